import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { api, Problem, type Change, type EntryFault, type Finding, type HomingAnswer, type Machine, type MachineAnswer, type MachineState, type RunView } from '../api/client'
import { patched } from '../lib/patch'
import type { StageKey } from '../router'

const SAVE_AFTER = 500
const ASK_AFTER = 40

/**
 * The machine being worked on. What is typed goes into the draft at once; its consequences are asked from the core;
 * a draft without refused entries is saved by itself. A draft is never thrown away without being asked.
 */
export const useMachine = defineStore('machine', () => {
  const id = ref(0)
  const revision = ref(0)
  const canUndo = ref(false)
  const canRedo = ref(false)
  const draft = ref<Machine | null>(null)
  const answer = ref<MachineAnswer | null>(null)
  /** Searches by axis: those of other axes stay until the document comes anew. */
  const homings = ref<Record<number, HomingAnswer>>({})
  const run = ref<RunView | null>(null)
  const proving = ref(false)
  const axisIndex = ref(0)
  const saving = ref(false)
  const dirty = ref(false)
  const conflict = ref<number | null>(null)
  const problem = ref<Problem | null>(null)
  /** What was typed into fields but is no value yet, by JSON pointer. */
  const unread = ref<Record<string, EntryFault>>({})

  let saveTimer = 0
  let askTimer = 0
  let question = 0
  /** The document that the answer belongs to. */
  let answered: Machine | null = null
  let saved: Promise<void> = Promise.resolve()

  const homing = computed(() => homings.value[axisIndex.value] ?? null)
  const axis = computed(() => draft.value?.axes[axisIndex.value] ?? null)
  /* an axis that has gone, also by undo, is not the chosen one any more */
  watch(
    () => draft.value?.axes.length,
    (length, before) => {
      if (length && axisIndex.value >= length) axisIndex.value = length - 1
      if (before) homings.value = {}
    },
    { flush: 'sync' },
  )
  const faults = computed<EntryFault[]>(() => [...Object.values(unread.value), ...(answer.value?.faults ?? [])])
  const diagnostics = computed(() => answer.value?.program.diagnostics ?? [])
  const events = computed(() => answer.value?.program.events ?? [])

  function fault(field: string): EntryFault | undefined {
    return faults.value.find((f) => f.field === field)
  }

  function advice(stage: string) {
    if (stage === 'home') return homing.value?.advice ?? null
    return answer.value?.stages.find((s) => s.stage === stage && s.axis === axisIndex.value)?.advice ?? null
  }

  /** Faults and warnings of a stage over the whole machine; null when it has not been started. */
  function stageState(stage: StageKey): { faults: number; warnings: number } | null {
    const count = (findings: Finding[], severity: string) => findings.filter((f) => f.severity === severity).length
    if (stage === 'program') return { faults: diagnostics.value.length, warnings: 0 }
    if (stage === 'prove') {
      if (!run.value) return null
      return { faults: run.value.verdicts.filter((v) => !v.holds).length + (run.value.stopped ? 1 : 0), warnings: run.value.revision === revision.value ? 0 : 1 }
    }
    const findings = stage === 'home' ? Object.values(homings.value).flatMap((h) => h.advice.findings) : (answer.value?.stages.filter((s) => s.stage === stage).flatMap((s) => s.advice.findings) ?? [])
    const refused = faults.value.filter((f) => stageOfField(f.field) === stage).length
    return { faults: count(findings, 'FAULT') + refused, warnings: count(findings, 'WARNING') }
  }

  function take(state: MachineState, keepDraft: boolean) {
    id.value = state.id
    revision.value = state.revision
    canUndo.value = state.canUndo
    canRedo.value = state.canRedo
    if (!keepDraft) draft.value = state.document
  }

  /** An answer ends the message that there is none; other messages stay until they are closed. */
  function connected() {
    if (problem.value?.status === 0) problem.value = null
  }

  async function guarded<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      const result = await work()
      connected()
      return result
    } catch (error) {
      if (error instanceof Problem) {
        if (error.status === 409 && error.currentRevision !== undefined) conflict.value = error.currentRevision
        /* a refused entry that the answer on its way will show beside its field is no message of its own */
        else if (!(error.status === 422 && answered !== draft.value && error.faults.some((f) => f.field.startsWith('/')))) problem.value = error
        return undefined
      }
      throw error
    }
  }

  async function load() {
    await guarded(async () => {
      const list = await api.machines()
      if (list.length === 0) return
      await open(list[0].id)
    })
  }

  async function open(machineId: number) {
    take(await api.machine(machineId), false)
    dirty.value = false
    conflict.value = null
    unread.value = {}
    run.value = (await api.latestRun(machineId)) ?? null
    homings.value = {}
    await ask()
    void askOthers()
  }

  function edit(...changes: Change[]) {
    if (!draft.value) return
    draft.value = patched(draft.value, changes)
    dirty.value = true
    clearTimeout(askTimer)
    askTimer = window.setTimeout(() => void ask(), ASK_AFTER)
    clearTimeout(saveTimer)
    saveTimer = window.setTimeout(() => void flush(), SAVE_AFTER)
  }

  function set(path: string, value: unknown) {
    edit({ op: 'replace', path, value })
  }

  function setUnread(field: string, fault: EntryFault | null) {
    const next = { ...unread.value }
    if (fault) next[field] = fault
    else delete next[field]
    unread.value = next
  }

  /** Asks what the draft gives; an answer that has been overtaken is dropped. */
  async function ask() {
    const document = draft.value
    if (!document) return
    const mine = ++question
    await guarded(async () => {
      const given = await api.consequences(document)
      if (mine !== question) return
      answer.value = given
      answered = document
      if (given.faults.length > 0) return
      const number = axisIndex.value
      const search = await api.homing(document, number)
      if (mine === question) homings.value = { ...homings.value, [number]: search }
    })
  }

  /** Asks for the searches of the other axes, one after the other, as long as nothing newer is asked. */
  async function askOthers() {
    const mine = question
    const document = draft.value
    for (let i = 0; document && i < document.axes.length; i++) {
      if (mine !== question || (answer.value?.faults.length ?? 0) > 0) return
      if (homings.value[i]) continue
      const search = await guarded(() => api.homing(document, i))
      if (mine !== question || !search) return
      homings.value = { ...homings.value, [i]: search }
    }
  }

  watch(axisIndex, (index) => {
    if (!homings.value[index]) void ask()
  })

  /** Saves what is not saved, one save after the other. */
  function flush(): Promise<void> {
    clearTimeout(saveTimer)
    saved = saved.then(async () => {
      if (!dirty.value || conflict.value !== null || !draft.value) return
      if (answered !== draft.value) await ask()
      const document = draft.value
      if (answered === document && (answer.value?.faults.length ?? 0) > 0) return
      saving.value = true
      try {
        const state = await api.save(id.value, revision.value, document)
        const unchanged = draft.value === document
        take(state, !unchanged)
        if (unchanged) dirty.value = false
        connected()
      } catch (error) {
        if (!(error instanceof Problem)) throw error
        if (error.status === 409 && error.currentRevision !== undefined) conflict.value = error.currentRevision
        else if (error.status !== 422) problem.value = error
      } finally {
        saving.value = false
      }
    })
    return saved
  }

  async function step(direction: 'undo' | 'redo') {
    if (direction === 'undo' && faults.value.length > 0) {
      /* the refused entry was never saved: undo takes it back, and nothing else */
      unread.value = {}
      if ((answer.value?.faults.length ?? 0) > 0) await guarded(() => open(id.value))
      return
    }
    await flush()
    if (conflict.value !== null) return
    await guarded(async () => {
      take(await api[direction](id.value, revision.value), false)
      unread.value = {}
      homings.value = {}
      await ask()
      void askOthers()
    })
  }

  /** After a conflict: save this page's document over the other's. Theirs stays in the revisions. */
  async function keepMine() {
    if (conflict.value === null) return
    revision.value = conflict.value
    conflict.value = null
    dirty.value = true
    await flush()
  }

  async function takeTheirs() {
    await guarded(() => open(id.value))
  }

  async function prove() {
    await flush()
    if (conflict.value !== null || faults.value.length > 0) return
    proving.value = true
    const result = await guarded(() => api.prove(id.value))
    proving.value = false
    if (result) run.value = result
  }

  return {
    ask, id, revision, canUndo, canRedo, draft, answer, homing, homings, run, proving, axisIndex, axis, saving, dirty, conflict, problem, unread,
    faults, diagnostics, events, fault, advice, stageState, load, edit, set, setUnread, flush,
    undo: () => step('undo'), redo: () => step('redo'), keepMine, takeTheirs, prove, guarded,
  }
})

/** Stage at which a refused entry is edited. */
export function stageOfField(field: string): StageKey {
  if (field.startsWith('/proof')) return 'prove'
  if (field.startsWith('/plc/tags')) return 'map'
  if (field.startsWith('/plc')) return 'program'
  if (field.startsWith('/bus') || /\/station\/(address|identity|startWrites)/.test(field)) return 'connect'
  if (field.includes('/station')) return 'map'
  if (field.includes('/wiring')) return 'wire'
  if (field.includes('/control')) return 'tune'
  if (field.includes('/homing') || field.includes('/travel')) return 'home'
  return 'scale'
}
