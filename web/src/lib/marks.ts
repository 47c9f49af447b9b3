import type { StageState } from '../stores/machine'

/** How the state of a stage is drawn and said: by its kind, its number, and in words. */
export function markOf(state: StageState): { text: string; kind: 'open' | 'unknown' | 'fault' | 'warning' | 'good'; words: string } {
  if (state === 'not started') return { text: '', kind: 'open', words: state }
  if (state === 'not known') return { text: '', kind: 'unknown', words: state }
  if (state.faults > 0) return { text: String(state.faults), kind: 'fault', words: state.faults === 1 ? '1 fault' : `${state.faults} faults` }
  if (state.warnings > 0) return { text: String(state.warnings), kind: 'warning', words: state.warnings === 1 ? '1 warning' : `${state.warnings} warnings` }
  return { text: '', kind: 'good', words: 'nothing wrong' }
}
