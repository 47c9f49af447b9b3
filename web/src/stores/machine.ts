import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Problem, type Asked, type Change, type EntryFault, type Finding, type HomingAnswer, type Machine, type MachineAnswer, type MachineState, type RunView, type Schemas } from '../api/client'
import { patched } from '../lib/patch'
import type { StageKey } from '../router'

/** Of a stage over the whole machine. */
export type StageState = { faults: number; warnings: number } | 'not started' | 'not known'

const SAVE_AFTER = 500

/**
 * The machine being worked on. What is typed goes into the draft at once; its consequences are asked from the core;
 * a draft without refused entries is saved by itself. A draft is never thrown away without being asked.
 */
export const useMachine = defineStore('machine', () => {
  const id = ref(0)
  const revision = ref(0)
  const canUndo = ref(false)
  const canRedo = ref(false)
  const draft = shallowRef<Machine | null>(null)
  const answer = shallowRef<MachineAnswer | null>(null)
  /** Searches by axis: those of other axes stay until the document comes anew. */
  const homings = shallowRef<Record<number, HomingAnswer>>({})
  /** The newest run of each proof that has run, in any order. */
  const runs = shallowRef<RunView[]>([])
  /** Which runs there are has been answered. */
  const runKnown = ref(false)
  /** The proof that waits or runs, how far it is, and how to end it. */
  const proving = shallowRef<{ name: string; before: number; time: number; of: number; cancel: AbortController } | null>(null)
  const axisIndex = ref(0)
  const proofIndex = ref(0)
  const saving = ref(false)
  const dirty = ref(false)
  const conflict = ref<number | null>(null)
  const problem = ref<Problem | null>(null)
  /** What was typed into fields but is no value yet, by JSON pointer. */
  const unread = ref<Record<string, EntryFault>>({})

  /** A machine that was to be opened and whose stored document cannot be read. */
  const unreadable = ref<Schemas['Listed'] | null>(null)
  /** There is no machine of the address. */
  const missing = ref(false)
  /** Entries of the stored document that are not known: the next revision goes without them. */
  const unknown = ref<string[]>([])

  let saveTimer = 0
  let question = 0
  /** The document that the answer belongs to. */
  let answered: Machine | null = null
  /** The document whose axes are being searched, one after the other. */
  let searching: Machine | null = null
  let saved: Promise<void> = Promise.resolve()

  const homing = computed(() => homings.value[axisIndex.value] ?? null)
  const axis = computed(() => draft.value?.axes[axisIndex.value] ?? null)
  const proof = computed(() => draft.value?.proofs[proofIndex.value] ?? null)
  const runOf = (name: string | undefined) => runs.value.find((r) => r.name.toLowerCase() === name?.toLowerCase()) ?? null
  /** A run under other conditions that has been opened: shown in place of the newest one of its proof, which stays what it is. */
  const opened = shallowRef<RunView | null>(null)
  /** The run of the chosen proof that is looked at: the newest one, or one that has been opened. */
  const run = computed(() => (opened.value && opened.value.name.toLowerCase() === proof.value?.name.toLowerCase() ? opened.value : runOf(proof.value?.name)))
  watch(
    () => draft.value?.proofs.length,
    (length) => (proofIndex.value = Math.max(0, Math.min(proofIndex.value, (length ?? 0) - 1))),
    { flush: 'sync' },
  )
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

  function adviceOf(stage: string, axis: number) {
    if (stage === 'home') return homings.value[axis]?.advice ?? null
    return answer.value?.stages.find((s) => s.stage === stage && s.axis === axis)?.advice ?? null
  }
  const advice = (stage: string) => adviceOf(stage, axisIndex.value)

  /** Faults and warnings of a stage over the whole machine; said only when it is known. */
  function stageState(stage: StageKey): StageState {
    const count = (findings: Finding[], severity: string) => findings.filter((f) => f.severity === severity).length
    if (stage === 'prove') {
      const known = (draft.value?.proofs ?? []).map((p) => runOf(p.name))
      if (!known.some(Boolean)) return runKnown.value ? 'not started' : 'not known'
      return { faults: known.reduce((sum, r) => sum + (r ? r.verdicts.filter((v) => !v.holds).length + (r.stopped ? 1 : 0) : 0), 0), warnings: known.filter((r) => r?.revision !== revision.value).length }
    }
    const refused = faults.value.filter((f) => stageOfField(f.field) === stage).length
    if (stage !== 'program' && draft.value?.axes.length === 0 && refused === 0) return 'not started'
    /* with a refused entry somewhere the core gives no advice on anything */
    const advised = answer.value !== null && answer.value.faults.length === 0
    const searched = stage !== 'home' || (draft.value !== null && draft.value.axes.every((_, i) => homings.value[i]))
    const judged = stage === 'program' ? (answer.value?.program.findings ?? []) : []
    const findings = stage === 'home' ? Object.values(homings.value).flatMap((h) => h.advice.findings) : (answer.value?.stages.filter((s) => s.stage === stage).flatMap((s) => s.advice.findings) ?? [])
    /* nothing that could be judged: no axis has a guard, and nothing asks for one */
    if (stage === 'guard' && advised && !findings.length) return 'not started'
    const state = { faults: count(findings, 'FAULT') + judged.filter((f) => f.severity === 'FAULT').length + refused + (stage === 'program' ? diagnostics.value.length : 0), warnings: count(findings, 'WARNING') + judged.filter((f) => f.severity === 'WARNING').length }
    return (advised && searched) || state.faults > 0 ? state : 'not known'
  }

  function take(state: MachineState, keepDraft: boolean) {
    id.value = state.id
    revision.value = state.revision
    canUndo.value = state.canUndo
    canRedo.value = state.canRedo
    unknown.value = state.unknown
    if (!keepDraft) whole(state.document)
  }

  /** Makes the change of the program that mends a fault or a finding; undo takes it back. */
  function mend(fault: { file: string; mend?: Schemas['TextMend'] }) {
    const at = draft.value?.plc.files.findIndex((f) => f.name === fault.file) ?? -1
    const lines = draft.value?.plc.files[at]?.source.split('\n')
    if (!lines || !fault.mend) return
    const { line, column, length, text } = fault.mend
    const before = lines[line - 1] ?? ''
    lines[line - 1] = before.slice(0, column - 1) + text + before.slice(column - 1 + length)
    set(`/plc/files/${at}/source`, lines.join('\n'))
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
        else problem.value = error
        return undefined
      }
      throw error
    }
  }

  /** Opens a machine by its key; what belonged to another one is forgotten. */
  async function load(machineId: number) {
    if (id.value !== machineId) close()
    id.value = machineId
    problem.value = null
    await guarded(async () => {
      const listed = (await api.machines()).find((m) => m.id === machineId && !m.deletedAt)
      if (id.value !== machineId) return
      missing.value = !listed
      unreadable.value = listed?.unreadable ? listed : null
      if (listed && !listed.unreadable) await open(machineId)
    })
  }

  /** No machine is open any more. @see leave, which saves first */
  function close() {
    clearTimeout(saveTimer)
    id.value = 0
    revision.value = 0
    whole(null)
    answer.value = null
    answered = null
    homings.value = {}
    runs.value = []
    opened.value = null
    proofIndex.value = 0
    runKnown.value = false
    proving.value?.cancel.abort()
    proving.value = null
    axisIndex.value = 0
    dirty.value = false
    conflict.value = null
    problem.value = null
    unread.value = {}
    unreadable.value = null
    unknown.value = []
    missing.value = false
  }

  /** Goes to an earlier revision of a machine that cannot be opened at its present one. */
  async function openRevision(machine: Schemas['Listed'], number: number) {
    await guarded(async () => {
      await api.openRevision(machine.id, machine.revision, number)
      await open(machine.id)
    })
  }

  async function open(machineId: number) {
    const state = await api.machine(machineId)
    if (id.value !== machineId) return
    take(state, false)
    unreadable.value = null
    dirty.value = false
    conflict.value = null
    unread.value = {}
    runKnown.value = false
    const latest = await api.latestRuns(machineId)
    if (id.value !== machineId) return
    runs.value = latest
    runKnown.value = true
    homings.value = {}
    await ask()
  }

  function edit(...changes: Change[]) {
    if (!draft.value) return
    draft.value = patched(draft.value, changes)
    log.push(...changes)
    /* what another axis finds holds as long as neither it nor the bus changes; the chosen one is asked at once */
    const holds = (i: string) => Number(i) === axisIndex.value || !changes.some((c) => `${c.path}/`.startsWith('/bus/') || `${c.path}/`.startsWith(`/axes/${i}/`))
    homings.value = Object.fromEntries(Object.entries(homings.value).filter(([i]) => holds(i)))
    dirty.value = true
    askSoon()
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

  /** Every change of the draft since it came whole. */
  let log: Change[] = []
  /** How often it has come whole. */
  let came = 0
  /** The document that the server keeps for this page: its key, and how many changes of the log are in it. */
  let base: { key: string; at: number } | null = null
  /** The advice of the last draft without refused entries, which a next answer says only the differences from. */
  let sound: Pick<MachineAnswer, 'stages' | 'program'> | null = null

  /** Only what has changed is asked and answered; all of it when the server does not keep the document (any more). */
  async function given(document: Machine): Promise<MachineAnswer> {
    const of = { came, at: log.length }
    const from = sound
    if (base && from) {
      const changed = await api.changes(base.key, log.slice(base.at)).catch((error) => {
        if (error instanceof Problem && error.status === 404) return null
        throw error
      })
      if (changed) {
        const told = new Set(changed.stages.map((s) => `${s.stage} ${s.axis}`))
        const stages = [...from.stages.filter((s) => s.axis < changed.axes && !told.has(`${s.stage} ${s.axis}`)), ...changed.stages]
        const program = changed.program ?? from.program
        return remembered(of, changed.faults.length ? { ...changed, stages: [], program: { diagnostics: [], findings: [], events: [], outline: [] } } : { ...changed, stages, program })
      }
    }
    return remembered(of, await api.consequences(document))
  }

  function remembered(of: { came: number; at: number }, answer: MachineAnswer): MachineAnswer {
    /* what was asked about a document that has been replaced, or has been overtaken, is no beginning for the next question */
    if (of.came !== came || (base && base.at > of.at)) return answer
    base = { key: answer.base, at: of.at }
    if (answer.faults.length === 0) sound = answer
    return answer
  }

  function whole(document: Machine | null) {
    draft.value = document
    came++
    log = []
    base = null
    sound = null
  }

  /** How a document is named to the server: by the key of what it keeps, when that is this one. */
  const named = (document: Machine): Asked => (base && base.at === log.length && answered === document ? { base: base.key } : { machine: document })
  /** Asks by the key, and with the whole document when the server does not keep it any more. */
  async function byKey<T>(document: Machine, work: (asked: Asked) => Promise<T>): Promise<T> {
    const asked = named(document)
    return work(asked).catch((error) => {
      if ('base' in asked && error instanceof Problem && error.status === 404) return work({ machine: document })
      throw error
    })
  }

  /** The consequences of a document, asked once however many wait for them. */
  let asking: { document: Machine; done: Promise<boolean> } | null = null
  function consequences(document: Machine): Promise<boolean> {
    if (asking?.document === document) return asking.done
    const mine = ++question
    const done = guarded(() => given(document)).then((given) => {
      if (asking?.done === done) asking = null
      if (!given) return false
      if (mine === question) {
        answer.value = given
        answered = document
      }
      return true
    })
    asking = { document, done }
    return done
  }

  /** Ends when the draft is another: then the server stops computing what was asked about the old one. */
  let wanted = new AbortController()
  watch(draft, () => {
    wanted.abort()
    wanted = new AbortController()
  }, { flush: 'sync' })
  function whileWanted<T>(work: (wanted: AbortSignal) => Promise<T>): Promise<T | undefined> {
    const { signal } = wanted
    return guarded<T | undefined>(() => work(signal).catch((error) => {
      if (!signal.aborted) throw error
      return undefined
    }))
  }

  /** The draft, once its consequences are known and nothing in it is refused; null when an entry is refused or nobody answers. */
  async function settled(): Promise<Machine | null> {
    for (;;) {
      const document = draft.value
      if (!document) return null
      if (answered === document) return faults.value.length > 0 ? null : document
      if (!(await consequences(document))) return null
    }
  }

  /**
   * The one way to ask something about the draft. It waits for the consequences, which tell of a refused entry beside its field; then nothing
   * is asked. An answer about a draft that is no more is dropped.
   */
  async function asked<T>(work: (document: Machine, axis: number, wanted: AbortSignal) => Promise<T>): Promise<T | undefined> {
    const document = await settled()
    const number = axisIndex.value
    if (!document) return undefined
    const given = await whileWanted((wanted) => work(document, number, wanted))
    return draft.value === document && axisIndex.value === number ? given : undefined
  }

  /** The same for what a person has clicked: it says why nothing was done. */
  async function ordered<T>(work: (document: Machine, axis: number) => Promise<T>): Promise<T | undefined> {
    const document = await settled()
    if (document) return guarded(() => work(document, axisIndex.value))
    const refused = faults.value[0]
    if (refused) tell('Not done', `${refused.label} is refused: ${refused.value || 'nothing'}. Allowed: ${refused.allowed}. Correct it first.`)
    return undefined
  }

  function tell(title: string, words: string) {
    problem.value = new Problem(500, title, words, [])
  }

  /** Asks what the draft gives, the search of the chosen axis, and then those of the others that are not known; an answer that has been overtaken is dropped. */
  async function ask() {
    const number = axisIndex.value
    const search = await asked(async (document, _, wanted) => {
      searched = document
      return document.axes[number] ? byKey(document, (asked) => api.homing(asked, number, wanted)) : undefined
    })
    if (search) homings.value = { ...homings.value, [number]: search }
    void askOthers()
  }

  /** What a change gives is asked at once. While a question is out, further changes wait for its answer and are asked together. */
  let out = false
  let waits = false
  let searched: Machine | null = null
  function askSoon() {
    if (out) {
      waits = true
      return
    }
    out = true
    waits = false
    void Promise.resolve().then(ask).finally(() => {
      out = false
      if (waits && draft.value !== searched) askSoon()
    })
  }

  /** Asks anew when something besides the document has changed, such as the library of devices. */
  function askAgain() {
    answered = null
    return ask()
  }

  /** Asks for the searches of the other axes, one after the other, as long as the document stays the same. */
  async function askOthers() {
    const document = await settled()
    if (!document || searching === document) return
    searching = document
    for (let i = 0; i < document.axes.length && draft.value === document; i++) {
      if (homings.value[i]) continue
      const search = await whileWanted((wanted) => byKey(document, (asked) => api.homing(asked, i, wanted)))
      if (!search) break
      if (draft.value === document) homings.value = { ...homings.value, [i]: search }
    }
    if (searching === document) searching = null
  }

  watch(axisIndex, (index) => {
    if (!homings.value[index]) void ask()
  })

  /** Saves before the machine is left. @returns false, and says why, when something entered would be lost */
  async function leave(): Promise<boolean> {
    if (draft.value) await flush()
    if (missing.value) return true
    if (!dirty.value && Object.keys(unread.value).length === 0) return true
    tell('Not left', conflict.value !== null ? 'Another page saved first. Keep yours or take theirs, then leave.' : 'An entry is not saved yet. Correct it, or take it back with undo, then leave.')
    return false
  }

  /** A change of the list of axes, computed by the core with everything that follows from it: one change, that can be undone. Refusals are the caller's. */
  async function editAxes(question: Omit<Schemas['AxisListQuestion'], 'machine'>): Promise<boolean> {
    const document = await settled()
    if (!document) return (await ordered(async () => true)) ?? false
    const outcome = await api.editAxes({ machine: document, ...question })
    if (draft.value !== document) return false
    homings.value = {}
    edit({ op: 'replace', path: '', value: outcome.machine })
    axisIndex.value = Math.max(0, outcome.axis)
    return true
  }

  /** A change of the list of virtual masters, as that of the axes. Refusals are the caller's. */
  async function editVirtualMasters(question: Omit<Schemas['VirtualMasterQuestion'], 'machine'>): Promise<void> {
    const document = await settled()
    if (!document) return void (await ordered(async () => true))
    const changed = await api.editVirtualMasters({ machine: document, ...question })
    if (draft.value === document) edit({ op: 'replace', path: '', value: changed })
  }

  /** A change of the list of requests, as that of the axes. Refusals are the caller's. */
  async function editSafetyRequests(question: Omit<Schemas['RequestQuestion'], 'machine'>): Promise<void> {
    const document = await settled()
    if (!document) return void (await ordered(async () => true))
    const changed = await api.editSafetyRequests({ machine: document, ...question })
    if (draft.value === document) edit({ op: 'replace', path: '', value: changed })
  }

  /** Goes to a revision of the open machine; the others stay. */
  async function restore(number: number) {
    await flush()
    if (conflict.value !== null) return
    await guarded(async () => {
      take(await api.openRevision(id.value, revision.value, number), false)
      unread.value = {}
      homings.value = {}
      await ask()
    })
  }

  /** Saves what is not saved, one save after the other. */
  function flush(): Promise<void> {
    clearTimeout(saveTimer)
    const of = id.value
    saved = saved.then(async () => {
      if (of !== id.value) return
      if (!dirty.value || conflict.value !== null || !draft.value) return
      /* what nobody answers is tried all the same: the server refuses what it must */
      while (answered !== draft.value && (await consequences(draft.value)));
      const document = draft.value
      if (answered === document && (answer.value?.faults.length ?? 0) > 0) return
      saving.value = true
      try {
        const state = await api.save(id.value, revision.value, document)
        /* the draft is what has been saved: what was answered about it stays answered */
        take(state, true)
        if (draft.value === document) dirty.value = false
        connected()
      } catch (error) {
        if (!(error instanceof Problem)) throw error
        if (error.status === 409 && error.currentRevision !== undefined) conflict.value = error.currentRevision
        else if (error.status !== 422) problem.value = error
        /* deleted by another page: nothing can be kept of it any more */
        if (error.status === 404) missing.value = true
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

  /** Looks at a run: one under other conditions beside the newest one, any other as that. */
  function show(run: RunView | null) {
    opened.value = run?.circumstances ? run : null
    if (!run || run.circumstances) return
    runs.value = [...runs.value.filter((r) => r.name.toLowerCase() !== run.name.toLowerCase()), run]
  }

  /** Runs proofs of the saved machine one after the other: the chosen one unless told otherwise. */
  async function prove(names: string[] = proof.value ? [proof.value.name] : []) {
    await flush()
    if (conflict.value !== null || faults.value.length > 0) return
    if (proving.value) return
    const cancel = new AbortController()
    proving.value = { name: names[0] ?? '', before: 0, time: 0, of: 0, cancel }
    try {
      for (const name of names) {
        const result = await guarded(() => api.prove(id.value, name, (told) => (proving.value = { ...told, name, cancel }), cancel.signal).catch((error) => {
          if (!cancel.signal.aborted) throw error
          return null
        }))
        if (!result) break
        show(result)
      }
    } finally {
      proving.value = null
    }
  }

  return {
    askAgain, asked, byKey, ordered, tell, id, revision, canUndo, canRedo, draft, answer, homing, homings, run, runs, runOf, proof, proofIndex, proving, axisIndex, axis, saving, dirty, conflict, problem, unread,
    unreadable, missing, unknown, openRevision, open, close, leave, editAxes, editVirtualMasters, editSafetyRequests, restore, faults, diagnostics, events, fault, mend, advice, adviceOf, runKnown, stageState, load, edit, set, setUnread, flush,
    undo: () => step('undo'), redo: () => step('redo'), keepMine, takeTheirs, prove, show, guarded,
  }
})

/** Stage at which a refused entry is edited. */
export function stageOfField(field: string): StageKey {
  if (field.startsWith('/proofs')) return 'prove'
  if (field.startsWith('/plc/tags')) return 'map'
  if (field.startsWith('/plc/virtualMasters')) return 'follow'
  if (field.startsWith('/plc')) return 'program'
  if (field.startsWith('/bus') || /\/station\/(address|identity|startWrites)/.test(field)) return 'connect'
  if (field.includes('/following')) return 'follow'
  if (field.startsWith('/safetyRequests') || /^\/axes\/\d+\/guard/.test(field)) return 'guard'
  if (field.includes('/moves') || field.includes('/commandedBy')) return 'move'
  if (field.includes('/station')) return 'map'
  if (field.includes('/wiring')) return 'wire'
  if (field.includes('/control')) return 'tune'
  if (field.includes('/homing') || field.includes('/travel')) return 'home'
  return 'scale'
}
