import { snippetCompletion, type Completion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete'
import type { Schemas } from '../api/client'

/** What an editor can propose: words of the language, what the files declare, axes and tags. All of it is told by the core. */
export interface Known {
  words: Schemas['Words']
  outline: Schemas['FileOutline'][]
  axes: string[]
  tags: string[]
  file: string
}

interface Pin {
  name: string
  type: string
  output: boolean
}

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
const items = (known: Known) => [...known.outline.flatMap((f) => f.items), ...known.words.given]

/** The unit that a line stands in: the last one that begins before it. */
function unitAt(known: Known, line: number) {
  const units = known.outline.find((f) => f.file === known.file)?.items.filter((i) => ['PROGRAM', 'FUNCTION', 'FUNCTION_BLOCK'].includes(i.kind)) ?? []
  return units.filter((u) => u.line <= line).sort((a, b) => a.line - b.line).at(-1)
}

/** Variables that a line may name. */
function variables(known: Known, line: number) {
  return [...(unitAt(known, line)?.members ?? []), ...items(known).filter((i) => i.kind === 'VAR_GLOBAL').flatMap((i) => i.members)]
}

/** Pins of a kind of function block, of the standard, of motion, or of a file. */
function pinsOf(known: Known, type: string): Pin[] | null {
  const block = known.words.blocks.find((b) => same(b.name, type))
  if (block) return block.pins
  const unit = items(known).find((i) => i.kind === 'FUNCTION_BLOCK' && same(i.name, type))
  return unit ? unit.members.filter((m) => ['VAR_INPUT', 'VAR_OUTPUT', 'VAR_IN_OUT'].includes(m.section)).map((m) => ({ name: m.name, type: m.type, output: m.section === 'VAR_OUTPUT' })) : null
}

/** The type of a path such as Steps[1].Target, as far as declarations tell it. */
function typeOf(known: Known, path: string, line: number): string {
  const parts = path.replace(/\[[^\]]*\]/g, '[]').replace(/\^/g, '').split('.')
  /* a type that is only another name of one is that one */
  const behind = (type: string): string => items(known).find((i) => i.kind === 'TYPE' && i.type && same(i.name, type))?.type ?? type
  const element = (type: string, part: string) => behind(part.endsWith('[]') ? behind(type).replace(/^.*?\] OF /, '') : behind(type).replace(/^REF_TO /, ''))
  const name = (part: string) => part.replace('[]', '')
  const first = variables(known, line).find((v) => same(v.name, name(parts[0]!)))
  let type = first ? element(first.type, parts[0]!) : ''
  for (const part of parts.slice(1)) {
    const inner = pinsOf(known, type)?.find((p) => same(p.name, name(part))) ?? items(known).find((i) => i.kind === 'TYPE' && same(i.name, type))?.members.find((m) => same(m.name, name(part)))
    type = inner ? element(inner.type, part) : ''
  }
  return type
}

/** A call with all pins, the first of them to be filled in next. */
function skeleton(name: string, pins: Pin[]): Completion {
  const inputs = pins.filter((p) => !p.output).map((p) => `${p.name} := \${${p.type.toLowerCase()}}`)
  return snippetCompletion(`${name}(${inputs.join(', ')});`, { label: `${name}(…)`, detail: 'call', type: 'function', boost: -1 })
}

/** Proposals for Structured Text where the cursor stands. */
export const completionOf = (known: () => Known) => (context: CompletionContext): CompletionResult | null => {
  const all = known()
  const line = context.state.doc.lineAt(context.pos).number
  const member = context.matchBefore(/[A-Za-z_]\w*(?:\[[^\]]*\]|\^|\.\w+)*\.\w*/)
  if (member) {
    const dot = member.text.lastIndexOf('.')
    const path = member.text.slice(0, dot)
    const type = typeOf(all, path, line)
    const options: Completion[] = (pinsOf(all, type) ?? []).map((p) => ({ label: p.name, detail: p.type, type: p.output ? 'property' : 'variable' }))
    const declared = items(all).find((i) => i.kind === 'TYPE' && same(i.name, type || path))
    options.push(...(declared?.members ?? []).map((m) => ({ label: m.name, detail: m.type, type: 'property' })))
    const head = `${path.toLowerCase()}.`
    options.push(...all.tags.filter((t) => t.toLowerCase().startsWith(head)).map((t) => ({ label: t.slice(head.length), detail: 'tag', type: 'property' })))
    return options.length ? { from: member.from + dot + 1, options, validFor: /^\w*$/ } : null
  }
  const word = context.matchBefore(/[A-Za-z_]\w*/)
  if (!word && !context.explicit) return null
  const found = variables(all, line)
  const options: Completion[] = [
    ...found.map((v) => ({ label: v.name, detail: v.type, type: 'variable', boost: 2 })),
    ...found.flatMap((v) => { const pins = pinsOf(all, v.type); return pins ? [skeleton(v.name, pins)] : [] }),
    ...all.axes.map((a) => ({ label: a, detail: 'axis', type: 'variable', boost: 1 })),
    ...all.tags.map((t) => ({ label: t, detail: 'tag', type: 'variable' })),
    ...items(all).filter((i) => i.name).map((i) => ({ label: i.name, detail: i.kind.toLowerCase().replace('_', ' '), type: 'class' })),
    ...items(all).flatMap((i) => i.members.filter((m) => m.section === 'VALUE').map((m) => ({ label: m.name, detail: i.name, type: 'enum' }))),
    ...all.words.blocks.map((b) => ({ label: b.name, detail: 'function block', type: 'class' })),
    ...all.words.constants.map((c) => ({ label: c, detail: 'constant', type: 'constant' })),
    ...all.words.functions.map((f) => ({ label: f, detail: 'function', type: 'function' })),
    ...all.words.types.map((t) => ({ label: t, detail: 'type', type: 'type' })),
    ...all.words.keywords.map((k) => ({ label: k, type: 'keyword' })),
  ]
  return { from: word?.from ?? context.pos, options, validFor: /^\w*$/ }
}
