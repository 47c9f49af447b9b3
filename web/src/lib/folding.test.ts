import { Text } from '@codemirror/state'
import { expect, test } from 'vitest'
import { fold } from './folding'

const text = Text.of(['PROGRAM P', 'VAR', '  a : INT; (* IF *)', 'END_VAR', 'IF a = 1 THEN', "  IF a = 2 THEN b := 'END_IF';", '  END_IF', '  c := 1;', 'END_IF', 'IF a THEN b := 1; END_IF', '10: IF a THEN', ' x;', 'END_IF', 'END_PROGRAM', 'WHILE a DO'])
const lines = (n: number) => {
  const found = fold(text, n)
  return found && [text.lineAt(found.from).number, text.lineAt(found.to).number]
}

test('folds what END closes, with what is inside', () => {
  expect(lines(1)).toEqual([1, 13])
  expect(lines(2)).toEqual([2, 3])
  expect(lines(5)).toEqual([5, 8])
  expect(lines(11)).toEqual([11, 12])
})

test('folds nothing that has no inside, or no end', () => {
  expect(lines(3)).toBeNull()
  expect(lines(6)).toBeNull()
  expect(lines(10)).toBeNull()
  expect(lines(15)).toBeNull()
})
