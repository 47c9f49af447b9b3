import { expect, test } from 'vitest'
import { hits, replaced } from './find'

const files = [{ name: 'A.st', source: 'Care := 10;\nCareful := care + 1; (* a.b *)' }, { name: 'B.st', source: 'x := a+b;' }]
const wanted = (text: string, exact = false, whole = false) => ({ text, exact, whole })

test('finds in all texts, in any case, or as it is written, or whole names only', () => {
  expect(hits(files, wanted('care')).map((h) => `${h.file}:${h.line}:${h.at}`)).toEqual(['A.st:1:0', 'A.st:2:0', 'A.st:2:11'])
  expect(hits(files, wanted('Care', true)).length).toBe(2)
  expect(hits(files, wanted('care', false, true)).map((h) => h.at)).toEqual([0, 11])
  expect(hits(files, wanted(''))).toEqual([])
})

test('takes signs of patterns as they are', () => {
  expect(hits(files, wanted('a.b')).map((h) => h.file)).toEqual(['A.st'])
  expect(hits(files, wanted('a+b', false, true)).map((h) => h.file)).toEqual(['B.st'])
  expect(replaced(files, wanted('a+b'), '$&$1')[1].source).toBe('x := $&$1;')
})
