import { RangeSet, StateEffect, StateField, type ChangeDesc, type EditorState, type Text } from '@codemirror/state'
import { type EditorView, gutter, GutterMarker } from '@codemirror/view'

/** Lines with a breakpoint, instead of those before. */
export const putBreakpoints = StateEffect.define<number[]>()

class Dot extends GutterMarker {
  toDOM() {
    const dot = document.createElement('span')
    dot.className = 'cm-break'
    dot.textContent = '●'
    return dot
  }
}
const dot = new Dot()

const marks = StateField.define<RangeSet<GutterMarker>>({
  create: () => RangeSet.empty,
  update(set, transaction) {
    let now = set.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (!effect.is(putBreakpoints)) continue
      const doc = transaction.state.doc
      now = RangeSet.of([...new Set(effect.value)].filter((n) => n >= 1 && n <= doc.lines).sort((a, b) => a - b).map((n) => dot.range(doc.line(n).from)))
    }
    return now
  },
})

/** A margin in which a click sets a breakpoint or takes it away. */
export const breakpointGutter = (toggle: (line: number) => void) => [
  marks,
  gutter({
    class: 'cm-breaks',
    markers: (view) => view.state.field(marks),
    initialSpacer: () => dot,
    domEventHandlers: {
      mousedown(view, block) {
        toggle(view.state.doc.lineAt(block.from).number)
        return true
      },
    },
  }),
]

/** Where lines have gone by a change of the text. */
export function movedLines(lines: number[], before: Text, after: Text, changes: ChangeDesc) {
  return new Map(lines.filter((n) => n <= before.lines).map((n) => [n, after.lineAt(Math.min(after.length, changes.mapPos(before.line(n).from, 1))).number]))
}

/** Line in which the cursor stands. */
export const cursorLine = (state: EditorState) => state.doc.lineAt(state.selection.main.head).number

/** A key that does something in the line of the cursor. */
export const onKey = (key: string, action: (line: number) => void) => ({ key, preventDefault: true, run: (view: EditorView) => { action(cursorLine(view.state)); return true } })
