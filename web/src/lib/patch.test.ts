import { describe, expect, it } from 'vitest'
import { patched } from './patch'

describe('JSON Patch, RFC 6902', () => {
  const document = { a: { b: 1 }, list: ['x', 'y'] }

  it('replaces, adds and removes, and leaves the old document alone', () => {
    const next = patched(document, [
      { op: 'replace', path: '/a/b', value: 2 },
      { op: 'add', path: '/list/1', value: 'between' },
      { op: 'add', path: '/list/-', value: 'last' },
      { op: 'remove', path: '/list/0' },
    ])
    expect(next).toEqual({ a: { b: 2 }, list: ['between', 'y', 'last'] })
    expect(document).toEqual({ a: { b: 1 }, list: ['x', 'y'] })
  })

  it('reads escaped keys as RFC 6901 says', () => {
    expect(patched({ 'a/b': 1, 'm~n': 2 }, [{ op: 'replace', path: '/a~1b', value: 3 }, { op: 'replace', path: '/m~0n', value: 4 }])).toEqual({ 'a/b': 3, 'm~n': 4 })
  })

  it('refuses a path that is not there', () => {
    expect(() => patched(document, [{ op: 'replace', path: '/nothing/here', value: 1 }])).toThrow('/nothing/here')
  })
})
