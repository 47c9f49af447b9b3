import { describe, expect, it } from 'vitest'
import { traceLines } from './trace'

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
})
