import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Problem, type Schemas } from '../api/client'
import { useMachine } from './machine'

export type Source = Schemas['TraceSource']
/** A run or a recording of which something is drawn; its times are later by `shift`, s. */
export interface From { kind: Source['kind']; id: number; shift: number }
/** A line: a signal of a run or a recording, or what it differs from another. @property colour number of its colour */
export interface Shown extends From { signal: string; less: From | null; pane: number; colour: number }
interface Kept { lines: Shown[]; from: number; to: number; a: number; b: number; bands: string }

const NOTHING: Kept = { lines: [], from: 0, to: 1, a: 0.25, b: 0.75, bands: '' }
const POINTS = 2400
/** So much of what is seen is held besides, to each side: moving on shows it at once. */
const BESIDE = 1
/** Drawn anew when less of it is left. */
const LEAST_LEFT = 0.3
export const COLOURS = 6

/** Lines of the trace page, what of them is seen, and the two cursors; kept for each machine in this browser. */
export const useTraces = defineStore('traces', () => {
  const machine = useMachine()
  const all = useLocalStorage<Record<number, Kept>>('rueda.traces', {})
  const kept = computed<Kept>(() => ({ ...NOTHING, ...all.value[machine.id] }))
  const sources = shallowRef<Source[]>([])
  const known = ref(false)
  const held = shallowRef<{ from: number; to: number; span: number; lines: Schemas['DrawnLine'][] } | null>(null)
  const measures = shallowRef<(Schemas['Measured'] | null)[]>([])
  const happened = shallowRef<Schemas['Band'][]>([])
  const problem = shallowRef<Problem | null>(null)
  const looked = ref(0)
  const change = (part: Partial<Kept>) => (all.value = { ...all.value, [machine.id]: { ...kept.value, ...part } })

  const source = (of: From) => sources.value.find((s) => s.kind === of.kind && s.id === of.id)
  const named = (of: From) => { const s = source(of); return s ? (s.kind === 'RUN' ? `run ${s.id}` : s.name) : 'gone' }
  /* what has been deleted is not asked for */
  const lines = computed(() => kept.value.lines.filter((l) => source(l)?.signals.some((s) => s.name.toLowerCase() === l.signal.toLowerCase()) && (!l.less || source(l.less))))
  const panes = computed(() => [...new Set(lines.value.map((l) => l.pane))].sort((x, y) => x - y))
  const words = (name: string) => name.replace('.', ' ').replace(/([a-z])([A-Z])/g, (_, x: string, y: string) => `${x} ${y.toLowerCase()}`)
  const label = (l: Shown) => `${words(l.signal)}, ${named(l)}${l.less ? ` less ${named(l.less)}` : ''}`
  const unit = (l: Shown) => source(l)?.signals.find((s) => s.name.toLowerCase() === l.signal.toLowerCase())?.unit ?? ''
  const extent = computed(() => {
    const shown = lines.value.map((l) => ({ from: source(l)!.begins + l.shift, to: source(l)!.ends + l.shift }))
    return shown.length ? { from: Math.min(...shown.map((s) => s.from)), to: Math.max(...shown.map((s) => s.to)) } : { from: 0, to: 1 }
  })
  const asked = (from: From, signal: string): Schemas['TraceLine'] => ({ run: from.kind === 'RUN' ? from.id : undefined, recording: from.kind === 'RECORDING' ? from.id : undefined, signal, shift: from.shift })
  const question = (from: number, to: number, points: number): Schemas['TracesQuestion'] => ({ lines: lines.value.map((l) => ({ ...asked(l, l.signal), less: l.less ? asked(l.less, l.signal) : undefined })), from, to, points })

  async function load() {
    const id = machine.id
    const found = await machine.guarded(() => api.traceSources(id))
    if (!found || id !== machine.id) return
    sources.value = found
    known.value = true
  }
  watch(() => machine.id, () => { sources.value = []; known.value = false; held.value = null; measures.value = [] })

  /** What is seen from now on; at least a microsecond. */
  function see(from: number, to: number) {
    const span = Math.max(1e-6, to - from)
    change({ from, to: from + span })
  }
  const whole = () => { const { from, to } = extent.value; see(from, to > from ? to : from + 1) }
  function zoom(factor: number, around = (kept.value.from + kept.value.to) / 2) {
    const { from, to } = kept.value
    const span = Math.min(2 * Math.max(1e-3, extent.value.to - extent.value.from), (to - from) * factor)
    const left = (around - from) / (to - from)
    see(around - left * span, around + (1 - left) * span)
  }
  const pan = (share: number) => { const d = share * (kept.value.to - kept.value.from); see(kept.value.from + d, kept.value.to + d) }

  /** Adds a line, beside those of its unit unless it is told where. */
  function add(of: From, signal: string, pane?: number) {
    const first = kept.value.lines.length === 0
    const measured = source(of)?.signals.find((s) => s.name.toLowerCase() === signal.toLowerCase())?.unit
    const beside = lines.value.find((l) => unit(l) === measured)?.pane
    const used = lines.value.filter((l) => l.pane === (pane ?? beside)).map((l) => l.colour)
    const colour = Array.from({ length: COLOURS }, (_, i) => i).find((i) => !used.includes(i)) ?? used.length % COLOURS
    change({ lines: [...lines.value, { ...of, signal, less: null, pane: pane ?? beside ?? Math.max(0, ...lines.value.map((l) => l.pane + 1)), colour }] })
    if (first) { whole(); const { from, to } = kept.value; change({ a: from + (to - from) / 4, b: to - (to - from) / 4 }) }
  }
  const alter = (index: number, part: Partial<Shown>) => change({ lines: lines.value.map((l, i) => (i === index ? { ...l, ...part } : l)) })
  const remove = (index: number) => change({ lines: lines.value.filter((_, i) => i !== index) })
  /** Other lines instead of those that are there. */
  async function show(wanted: Omit<Shown, 'colour'>[]) {
    await load()
    change({ lines: wanted.map((l, i) => ({ ...l, colour: wanted.slice(0, i).filter((o) => o.pane === l.pane).length % COLOURS })) })
    whole()
    const { from, to } = kept.value
    change({ a: from + (to - from) / 4, b: to - (to - from) / 4 })
  }

  let drawing: AbortController | null = null
  let wanted = ''
  /** Asks for what is seen and what lies beside it, unless enough of it is there. */
  async function draw(anew: boolean) {
    if (!looked.value || !lines.value.length) { held.value = null; return }
    const { from, to } = kept.value
    const span = to - from
    const enough = held.value && !anew && held.value.from <= from - LEAST_LEFT * span * BESIDE && held.value.to >= to + LEAST_LEFT * span * BESIDE && held.value.span < 1.5 * span && held.value.span > span / 1.5
    if (enough) return
    const key = `${from} ${to} ${JSON.stringify(lines.value)}`
    if (key === wanted) return
    wanted = key
    drawing?.abort()
    const mine = (drawing = new AbortController())
    const q = question(from - BESIDE * span, to + BESIDE * span, POINTS * (1 + 2 * BESIDE) > 10_000 ? 10_000 : POINTS * (1 + 2 * BESIDE))
    try {
      const drawn = await api.drawn(q, mine.signal)
      if (mine === drawing) { held.value = { from: q.from, to: q.to, span, lines: drawn }; problem.value = null }
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      if (mine === drawing && error.title !== 'Cancelled') { problem.value = error; wanted = '' }
    }
  }
  watch([() => JSON.stringify(lines.value), looked], () => { wanted = ''; void draw(true) })
  watch([() => kept.value.from, () => kept.value.to], () => void draw(false))

  let measuring = 0
  watch([() => JSON.stringify(lines.value), () => kept.value.a, () => kept.value.b, looked], async () => {
    const mine = ++measuring
    /* the hand that moves a cursor is faster than the answer */
    await new Promise((resolve) => setTimeout(resolve, 80))
    if (mine !== measuring || !looked.value) return
    if (!lines.value.length) { measures.value = []; return }
    const { a, b } = kept.value
    const found = await api.measured(question(Math.min(a, b), Math.max(a, b), 4)).catch(() => null)
    if (mine === measuring && found) measures.value = found
  })

  const banded = computed(() => lines.value.find((l) => l.kind === 'RUN'))
  /** Values of the program by which bands can be told. */
  const bandable = computed(() => (banded.value ? source(banded.value)?.signals.filter((s) => !machine.draft?.axes.some((axis) => s.name.toLowerCase().startsWith(axis.name.toLowerCase() + '.'))).map((s) => s.name) ?? [] : []))
  watch([() => banded.value?.id, () => kept.value.bands, looked], async () => {
    const run = banded.value
    if (!looked.value || !run) { happened.value = []; return }
    const found = await machine.guarded(() => api.bands(run.id, bandable.value.includes(kept.value.bands) ? kept.value.bands : ''))
    if (found && banded.value?.id === run.id) happened.value = found.map((b) => ({ ...b, from: b.from + run.shift, to: b.to + run.shift }))
  })
  return { kept, sources, known, lines, panes, extent, held, measures, happened, bandable, problem, looked, source, named, label, unit, words, load, see, whole, zoom, pan, add, alter, remove, show, change }
})
