import { describe, expect, it } from 'vitest'
import { programLines, traceLines } from './trace'

const samples: Record<string, number[]> = {
  commandedSpeed: [0, -5], speed: [0, -4.9], referenceCam: [0, 1], followingError: [0.1, 0.2], allowedFollowingError: [2, 3], torque: [0.5, 0.9], torqueLimited: [0, 1],
  inPosition: [1, 0], standstill: [1, 0], brakeOpen: [0, 1],
}
const column = (signal: string) => samples[signal] ?? []

describe('the trace of the bench', () => {
  it('draws the allowed following error on both sides', () => {
    expect(traceLines('error', column, 'mm').map((l) => l.values)).toEqual([[0.1, 0.2], [2, 3], [-2, -3]])
  })

  it('marks the torque only where a limit holds it back', () => {
    expect(traceLines('torque', column, 'mm')[1].values).toEqual([null, 0.9])
  })

  it('keeps the lamps of supervision apart', () => {
    const lines = traceLines('watch', column, 'mm')
    expect(lines.map((l) => l.values)).toEqual([[5.5, 4.5], [4, 3], [1.5, 2.5], [0, 1]])
  })

  it('shows the cam above the speed', () => {
    expect(traceLines('speed', column, 'mm')[2].values).toEqual([null, 5.5])
  })

  it('draws bits of the program above one another and numbers on a scale of their own', () => {
    const lines = programLines([{ name: 'a', bool: true }, { name: 'n', bool: false }, { name: 'b', bool: true }], (name) => ({ a: [0, 1], n: [5, 7], b: [1, 1] })[name]!)
    expect(lines.map((l) => [l.label, l.scale, l.values])).toEqual([['a', 'bits', [1.5, 2.5]], ['n', 'values', [5, 7]], ['b', 'bits', [1, 1]]])
    expect(new Set(lines.map((l) => l.colour)).size).toBe(3)
  })
})
