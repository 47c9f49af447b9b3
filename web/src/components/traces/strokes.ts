/** How lines are told apart: by colour and by dashes. */
export const STROKES: { colour: string; dash?: number[]; mark: string }[] = [
  { colour: '--act', mark: '—' }, { colour: '--cmd', dash: [6, 4], mark: '╌' }, { colour: '--ref', mark: '—' }, { colour: '--ink', dash: [2, 3], mark: '┈' }, { colour: '--ok', dash: [10, 3, 2, 3], mark: '─·' }, { colour: '--pencil', mark: '—' },
]
/** Room for an axis to the left and to the right of each pane, px. */
export const MARGIN = 64
