import type { Line } from '../components/TracePlot.vue'

/** A signal of an axis, as the recording names it behind the axis. */
type Signal = string

/** What the trace of the bench can show of an axis. */
export const VIEWS = { speed: 'speed', position: 'position', error: 'following error', torque: 'torque', watch: 'supervision', program: 'program values' } as const
export type View = keyof typeof VIEWS

const COLOURS = ['--act', '--cmd', '--ref', '--ok', '--ink', '--pencil']

/** Lines of values of the program: numbers on one scale, bits above one another. */
export function programLines(values: { name: string; bool: boolean }[], column: (name: string) => number[]): Line[] {
  const bits = values.filter((v) => v.bool)
  return values.map((v, i) => {
    const row = 1.5 * (bits.length - 1 - bits.indexOf(v))
    return v.bool ? { label: v.name, unit: '', colour: COLOURS[i % COLOURS.length]!, row: row + 0.5, values: column(v.name).map((on) => row + on), scale: 'bits' }
      : { label: v.name, unit: '', colour: COLOURS[i % COLOURS.length]!, values: column(v.name), scale: 'values' }
  })
}

/** Lines of one view. @param column values of a signal  @param unit user unit */
export function traceLines(view: View, column: (signal: Signal) => number[], unit: string): Line[] {
  const commandedAndActual = (what: string, commanded: Signal, actual: Signal, of: string): Line[] => [
    { label: `${what}, commanded`, unit: of, colour: '--cmd', dashed: true, values: column(commanded), scale: what },
    { label: `${what}, actual`, unit: of, colour: '--act', values: column(actual), scale: what },
  ]
  switch (view) {
    case 'speed': {
      const lines = commandedAndActual('speed', 'commandedSpeed', 'speed', `${unit}/s`)
      const high = Math.max(1, ...column('commandedSpeed').map(Math.abs))
      return [...lines, { label: 'reference cam', unit: '', colour: '--ref', values: column('referenceCam').map((on) => (on ? high * 1.1 : null)), scale: 'speed' }]
    }
    case 'position':
      return commandedAndActual('position', 'commandedPosition', 'position', unit)
    case 'error':
      return [
        { label: 'following error', unit, colour: '--act', values: column('followingError'), scale: 'error' },
        { label: 'allowed', unit, colour: '--stop', dashed: true, values: column('allowedFollowingError'), scale: 'error' },
        { label: '', unit, colour: '--stop', dashed: true, values: column('allowedFollowingError').map((v) => -v), scale: 'error' },
      ]
    case 'torque': {
      const torque = column('torque')
      return [
        { label: 'torque', unit: 'N·m', colour: '--act', values: torque, scale: 'torque' },
        { label: 'held back by a limit', unit: '', colour: '--stop', values: column('torqueLimited').map((on, i) => (on ? torque[i] : null)), scale: 'torque' },
      ]
    }
    case 'program':
      return []
    case 'watch':
      return (['inPosition', 'standstill', 'torqueLimited', 'brakeOpen'] as const).map((signal, i) => ({
        label: ['in position', 'standstill', 'torque limited', 'brake open'][i], unit: '', colour: ['--cmd', '--act', '--stop', '--ref'][i], dashed: i === 0, row: 5 - 1.5 * i,
        values: column(signal).map((on) => 4.5 - 1.5 * i + on), scale: 'watch',
      }))
  }
}
