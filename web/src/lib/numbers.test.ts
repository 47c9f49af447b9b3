import { describe, expect, it } from 'vitest'
import { clock, fixed, grouped, parsed, plain } from './numbers'

describe('numbers as people type them', () => {
  it.each([['12', 12], ['-3.5', -3.5], ['\u22123,5', -3.5], ['1e3', 1000], ['1\u202f000', 1000], ['.5', 0.5]])('reads %s', (text, value) => {
    expect(parsed(text)).toBe(value)
  })
  it.each(['', 'abc', '1.2.3', '12 mm', '--1', 'Infinity'])('does not read %s', (text) => {
    expect(parsed(text)).toBeNull()
  })
  it('writes them with fixed decimals and never a negative zero', () => {
    expect(fixed(-0.0001, 3)).toBe('0.000')
    expect(fixed(-1.5, 1)).toBe('\u22121.5')
    expect(fixed(null, 2)).toBe('–')
  })
  it('writes machine time', () => {
    expect(clock(3723.004)).toBe('01:02:03.004')
  })
})

describe('numbers in fields', () => {
  it.each([[0, '0'], [0.00011, '1.1e-4'], [-0.0005, '-5e-4'], [0.95, '0.95'], [60000, '60000']])('writes %s as %s', (value, text) => {
    expect(plain(value)).toBe(text)
    expect(parsed(text)).toBe(value)
  })
  it.each([[0, '0'], [999, '999'], [1000, '1\u202f000'], [200000, '200\u202f000'], [-1234567, '-1\u202f234\u202f567']])('groups %d', (value, text) => {
    expect(grouped(value)).toBe(text)
  })
})
