<script setup lang="ts">
import { autocompletion, completionKeymap } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands'
import { codeFolding, foldGutter, foldKeymap, HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, setDiagnostics } from '@codemirror/lint'
import { Compartment, EditorState, StateEffect, StateField } from '@codemirror/state'
import { styleNonce } from '../theme'
import { Decoration, drawSelection, EditorView, highlightActiveLine, hoverTooltip, keymap, lineNumbers, WidgetType, type DecorationSet } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Diagnostic } from '../api/client'
import { breakpointGutter, cursorLine, movedLines, onKey, putBreakpoints } from '../lib/breakpoints'
import { completionOf, type Known } from '../lib/completion'
import { structuredTextFolding } from '../lib/folding'
import { structuredText } from '../lib/structuredText'
import { useLanguage } from '../stores/language'

/** Structured Text with faults underlined and one line marked: the one being executed, or the one that caused something. */
const props = defineProps<{ modelValue: string; diagnostics: Diagnostic[]; marked: number; ran?: number[]; readonly?: boolean; /** what can be proposed, but for the words of the language */ known?: Omit<Known, 'words'>; /** what stands beside a line, by its number */ beside?: Map<number, string>; /** what a place means, in words; empty for nothing */ describe?: (line: number, column: number) => Promise<string>; /** lines with a breakpoint; without them none can be set */ breakpoints?: number[]; label: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: string]; cursor: [line: number, column: number]; declaration: []; places: []; rename: []; mend: [fault: Diagnostic]; toggle: [line: number]; moved: [lines: Map<number, number>]; step: [how: 'INTO' | 'OVER' | 'OUT'] }>()
const host = ref<HTMLElement | null>(null)
let view: EditorView | null = null
const writable = new Compartment()
const painted = new Compartment()
const language = useLanguage()
const colouring = () => structuredText({ keywords: new Set(language.words.keywords), types: new Set([...language.words.types, ...language.words.blocks.map((b) => b.name.toUpperCase())]) })

const markLine = StateEffect.define<{ line: number; ran: number[] }>()
const markedLine = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    marks = marks.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (!effect.is(markLine)) continue
      const doc = transaction.state.doc
      const all = [...new Set([...effect.value.ran, effect.value.line])].filter((n) => n >= 1 && n <= doc.lines).sort((a, b) => a - b)
      marks = Decoration.set(all.map((n) => Decoration.line({ class: n === effect.value.line ? 'cm-marked' : 'cm-ran' }).range(doc.line(n).from)))
    }
    return marks
  },
  provide: (field) => EditorView.decorations.from(field),
})

/** Values behind the text of a line. */
class Beside extends WidgetType {
  constructor(readonly text: string) {
    super()
  }
  eq(other: Beside) {
    return other.text === this.text
  }
  toDOM() {
    const span = document.createElement('span')
    span.className = 'cm-beside'
    span.textContent = this.text
    span.title = this.text
    return span
  }
  ignoreEvent() {
    return true
  }
}
const putBeside = StateEffect.define<DecorationSet>()
const besideLines = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    marks = marks.map(transaction.changes)
    for (const effect of transaction.effects) if (effect.is(putBeside)) marks = effect.value
    return marks
  },
  provide: (field) => EditorView.decorations.from(field),
})
/** Only the lines that are seen are drawn: values change ten times a second. */
function showBeside() {
  if (!view) return
  const doc = view.state.doc
  const first = doc.lineAt(view.viewport.from).number
  const last = doc.lineAt(view.viewport.to).number
  const marks = []
  for (let n = first; n <= last; n++) {
    const text = props.beside?.get(n)
    if (text) marks.push(Decoration.widget({ widget: new Beside(text), side: 1 }).range(doc.line(n).to))
  }
  view.dispatch({ effects: putBeside.of(Decoration.set(marks)) })
}

const colours = HighlightStyle.define([
  { tag: tags.keyword, color: 'var(--cmd)', fontWeight: '700' },
  { tag: tags.operatorKeyword, color: 'var(--cmd)' },
  { tag: tags.typeName, color: 'var(--ref)' },
  { tag: tags.number, color: 'var(--act)' },
  { tag: tags.string, color: 'var(--act)' },
  { tag: tags.bool, color: 'var(--act)' },
  { tag: tags.comment, color: 'var(--pencil)', fontStyle: 'italic' },
])

const theme = EditorView.theme({
  '&': { height: '100%', fontSize: '13px', backgroundColor: 'var(--sheet)', color: 'var(--ink)' },
  '.cm-gutters': { backgroundColor: 'var(--paper)', color: 'var(--pencil)', border: 'none' },
  '.cm-activeLine': { backgroundColor: 'transparent' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': { backgroundColor: 'var(--hair) !important' },
  '.cm-marked': { backgroundColor: 'var(--line-wash)', boxShadow: 'inset 4px 0 var(--warn)' },
  '.cm-meaning': { padding: '2px 8px', maxWidth: '420px' },
  '.cm-foldGutter .cm-gutterElement': { cursor: 'pointer', padding: '0 2px' },
  '.cm-breaks': { cursor: 'pointer', minWidth: '16px' },
  '.cm-break': { color: 'var(--stop)', fontSize: '14px', lineHeight: '1' },
  '.cm-ran': { boxShadow: 'inset 4px 0 var(--ok)' },
  '.cm-beside': { marginLeft: '24px', color: 'var(--pencil)', fontSize: '12px', whiteSpace: 'pre' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'inherit', maxHeight: '220px' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': { backgroundColor: 'var(--cmd)', color: 'var(--sheet)' },
  '.cm-completionDetail': { marginLeft: '12px', fontStyle: 'normal', opacity: '.8' },
  '.cm-tooltip': { backgroundColor: 'var(--sheet)', color: 'var(--ink)', border: '1px solid var(--hair)' },
})

/** What a name means, beside the pointer. */
async function hover(at: EditorView, pos: number) {
  const line = at.state.doc.lineAt(pos)
  const words = (await props.describe?.(line.number, pos - line.from + 1)) ?? ''
  if (!words) return null
  return {
    pos,
    create() {
      const dom = document.createElement('div')
      dom.className = 'cm-meaning'
      dom.textContent = words
      return { dom }
    },
  }
}

function tellCursor(state: EditorState) {
  const head = state.selection.main.head
  const line = state.doc.lineAt(head)
  emit('cursor', line.number, head - line.from + 1)
}

function showDiagnostics() {
  if (!view) return
  const doc = view.state.doc
  const list = props.diagnostics.filter((d) => d.line <= doc.lines).map((d) => {
    const line = doc.line(d.line)
    const from = Math.min(line.from + d.column - 1, Math.max(line.from, line.to - 1))
    return { from, to: Math.max(from, Math.min(from + d.length, line.to)), severity: 'error' as const, message: d.message, actions: d.mend ? [{ name: d.mend.label, apply: () => emit('mend', d) }] : [] }
  })
  view.dispatch(setDiagnostics(view.state, list))
}

function show(line: number) {
  if (!view) return
  view.dispatch({ effects: markLine.of({ line, ran: props.ran ?? [] }) })
  if (props.readonly && line >= 1 && line <= view.state.doc.lines) {
    view.dispatch({ effects: EditorView.scrollIntoView(view.state.doc.line(line).from, { y: 'center' }) })
  }
}

onMounted(() => {
  void language.load()
  view = new EditorView({
    parent: host.value!,
    state: EditorState.create({
      doc: props.modelValue,
      extensions: [
        ...(props.breakpoints ? [breakpointGutter((line) => emit('toggle', line)), keymap.of([onKey('F9', (line) => emit('toggle', line)), onKey('F10', () => emit('step', 'OVER')), onKey('F11', () => emit('step', 'INTO')), onKey('Shift-F11', () => emit('step', 'OUT')), onKey('F12', () => emit('declaration')), onKey('Shift-F12', () => emit('places')), onKey('F2', () => emit('rename'))])] : []),
        ...(props.describe ? [hoverTooltip(hover, { hoverTime: 400 })] : []),
        structuredTextFolding, codeFolding(), foldGutter({ openText: '▾', closedText: '▸' }), keymap.of(foldKeymap),
        lineNumbers(), history(), drawSelection(), highlightActiveLine(), lintGutter(), keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap, indentWithTab]), painted.of(colouring()),
        ...(props.readonly ? [] : [autocompletion({ override: [completionOf(() => ({ words: language.words, ...(props.known ?? { outline: [], axes: [], tags: [], file: '' }) }))], icons: false })]),
        syntaxHighlighting(colours), markedLine, besideLines, theme, writable.of(EditorState.readOnly.of(Boolean(props.readonly))),
        EditorView.cspNonce.of(styleNonce),
        EditorView.contentAttributes.of({ 'aria-label': props.label, tabindex: '0' }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged && !update.transactions.some((t) => t.isUserEvent('outside'))) emit('update:modelValue', update.state.doc.toString())
          if (update.docChanged && props.breakpoints?.length) emit('moved', movedLines(props.breakpoints, update.startState.doc, update.state.doc, update.changes))
          if (update.viewportChanged && props.beside?.size) queueMicrotask(showBeside)
          if (update.selectionSet || update.docChanged) tellCursor(update.state)
        }),
      ],
    }),
  })
  showDiagnostics()
  show(props.marked)
  showBreakpoints()
})

function showBreakpoints() {
  view?.dispatch({ effects: putBreakpoints.of(props.breakpoints ?? []) })
}
watch(() => props.breakpoints, showBreakpoints)

/** Only what differs is exchanged, and the cursor stays in its line and column: undo, a mend or another name must not move it. */
function putText(view: EditorView, text: string) {
  const doc = view.state.doc
  const before = doc.toString()
  let from = 0
  while (from < before.length && from < text.length && before[from] === text[from]) from++
  let same = 0
  while (same < before.length - from && same < text.length - from && before[before.length - 1 - same] === text[text.length - 1 - same]) same++
  const line = doc.lineAt(view.state.selection.main.head)
  const column = view.state.selection.main.head - line.from
  view.dispatch({ changes: { from, to: before.length - same, insert: text.slice(from, text.length - same) }, userEvent: 'outside' })
  const there = view.state.doc.line(Math.min(line.number, view.state.doc.lines))
  view.dispatch({ selection: { anchor: Math.min(there.from + column, there.to) } })
}

watch(() => props.modelValue, (text) => {
  if (!view || view.state.doc.toString() === text) return
  putText(view, text)
  showDiagnostics()
  show(props.marked)
})
watch(() => props.diagnostics, showDiagnostics)
watch(() => language.words, () => view?.dispatch({ effects: painted.reconfigure(colouring()) }))
watch(() => props.beside, showBeside)
watch(() => [props.marked, props.ran?.join()], () => show(props.marked))
onBeforeUnmount(() => view?.destroy())
defineExpose({
  line: () => (view ? cursorLine(view.state) : 1),
  goTo(line: number) {
    if (!view || line > view.state.doc.lines) return
    const from = view.state.doc.line(line).from
    view.dispatch({ selection: { anchor: from }, effects: EditorView.scrollIntoView(from, { y: 'center' }) })
    view.focus()
  },
})
</script>

<template>
  <div ref="host" class="editor sheet" />
</template>

<style scoped>
.editor { height: 100%; overflow: hidden; }
</style>
