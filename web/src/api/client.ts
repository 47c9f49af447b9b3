import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Machine = Schemas['Machine']
export type Axis = Schemas['Axis']
export type MachineState = Schemas['MachineState']
export type MachineAnswer = Schemas['MachineAnswer']
export type HomingAnswer = Schemas['HomingAnswer']
export type Advice = Schemas['Advice']
export type Figure = Schemas['Figure']
export type Finding = Schemas['Finding']
export type Change = Schemas['Change']
export type EntryFault = Schemas['EntryFault']
export type Diagnostic = Schemas['Diagnostic']
export type Expectation = Schemas['Expectation']
export type Entry = Schemas['Entry']
export type RunView = Schemas['RunView']
export type ProofProgress = Schemas['ProofProgress']
export type Verdict = Schemas['Verdict']
export type TraceView = Schemas['TraceView']
export type BenchState = Schemas['State']
export type Terminal = Schemas['Terminal']
export type WiringCheck = Schemas['Check']
export type Mistake = Schemas['BenchCondition']['faults'][number]
export type IdentificationAnswer = Schemas['IdentificationAnswer']
export type StepAnswer = Schemas['StepAnswer']
export type TurnAnswer = Schemas['TurnAnswer']
export type HandOrderKind = Schemas['HandOrder']['order']
export type Moved = Schemas['Moved']
export type DeviceGroup = Schemas['DeviceGroup']
export type FamilyView = Schemas['FamilyView']
export type CyclicItem = Schemas['CyclicItem']
export type CycleTimes = Schemas['CycleTimes']
export type TablePreview = Schemas['TagTablePreview']
export type TagColumns = Schemas['Columns']
export type Compared = Schemas['Compared']
export type KnownDevice = Schemas['KnownDevice']
export type DeviceDescription = Schemas['DeviceDescription']
export type ScanResult = Schemas['ScanResult']
export type Difference = Schemas['Difference']
export type StandChange = Schemas['StandQuestion']['changes'][number]
export type StartWrite = Schemas['StartWrite']
export type ClockDrift = Schemas['Drift']
export type ImageView = Schemas['ImageView']
export type BenchAxis = Schemas['AxisState']

/** A document that is asked about: by the key under which the server keeps it, or whole. */
export type Asked = { base: string } | { machine: Machine }

/** A problem document, RFC 9457. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly faults: EntryFault[],
    readonly currentRevision?: number,
  ) {
    super(detail)
  }
}

/** Key of the control lease while this page holds it: orders to the bench show it. */
let controlKey = ''
export const showControlKey = (key: string) => (controlKey = key)

/** The interface of the server: paths, questions and answers as its description has them. */
const client = createClient<paths>({ baseUrl: location.origin, fetch: (request) => fetch(request) })
client.use({
  onRequest({ request }) {
    if (controlKey) request.headers.set('Rueda-Control', controlKey)
  },
})

/** A file is sent as it is. */
const whole = (file: Blob) => ({ body: file as unknown as string, bodySerializer: (body: unknown) => body as Blob, headers: { 'Content-Type': 'application/octet-stream' } })

/** A refusal of the server in its words. */
function refused(response: Response, error: unknown): Problem {
  const told = (typeof error === 'object' && error !== null ? error : {}) as { title?: string; detail?: string; faults?: EntryFault[]; currentRevision?: number }
  return new Problem(response.status, told.title ?? 'Error', told.detail ?? response.statusText, told.faults ?? [], told.currentRevision)
}

/** What the server answers; anything else is a problem. @param file that was sent with the question */
async function answered<T>(asked: Promise<{ data?: T; error?: unknown; response: Response }>, file?: File): Promise<T> {
  let answer
  try {
    answer = await asked
  } catch (failed) {
    if (failed instanceof DOMException && failed.name === 'AbortError') throw new Problem(0, 'Cancelled', 'Nobody waits for this answer any more.', [])
    /* an answer that breaks off is none */
    if (failed instanceof SyntaxError) throw new Problem(0, 'No answer', 'The answer of Rueda broke off. Try again; the reason is in the server\'s output.', [])
    if (file) throw new Problem(0, 'No connection', 'Rueda does not answer, or the file is too large for it. Nothing of it was taken.', [])
    throw new Problem(0, 'No connection', 'Rueda does not answer. Is the server running? Your entries are kept on this page.', [])
  }
  if (!answer.response.ok) throw refused(answer.response, answer.error)
  return answer.data as T
}

/** A question whose answer comes line by line; `last` takes what it waits for out of a line. Aborting closes the connection, and that ends the work. */
async function lines<L, A>(asked: Promise<{ data?: unknown; error?: unknown; response: Response }>, last: (line: L) => A | null | undefined, words: { cancelled: string; broken: string }, signal: AbortSignal): Promise<A> {
  const ended = () => (signal.aborted ? new Problem(0, 'Cancelled', words.cancelled, []) : new Problem(0, 'No connection', 'Rueda does not answer. Is the server running?', []))
  const answer = await asked.catch(() => null)
  if (!answer) throw ended()
  if (!answer.response.ok) throw refused(answer.response, answer.error)
  const reader = answer.response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let text = ''
  for (;;) {
    const part = await reader.read().catch(() => null)
    if (!part) throw ended()
    text += part.value ?? ''
    const whole = text.split('\n')
    text = whole.pop() ?? ''
    for (const line of whole) {
      const answer = last(JSON.parse(line) as L)
      if (answer) return answer
    }
    if (part.done) throw new Problem(0, 'No answer', words.broken, [])
  }
}

/** Identification, told move by move. */
function identify(machine: Machine, axis: number, faults: Mistake[], told: (move: number, of: number) => void, signal: AbortSignal): Promise<IdentificationAnswer> {
  return lines<Schemas['IdentificationProgress'], IdentificationAnswer>(client.POST('/api/calc/identification/progress', { body: { machine, axis, faults }, signal, parseAs: 'stream' }), (line) => {
    if (!line.answer) told(line.move, line.of)
    return line.answer
  }, { cancelled: 'Cancelled: the axis was stopped.', broken: 'The identification ended without an answer. Try again.' }, signal)
}

/** A proof of the saved machine, told as it waits and runs. */
function prove(id: number, proof: string, told: (progress: ProofProgress) => void, signal: AbortSignal): Promise<RunView> {
  return lines<ProofProgress, RunView>(client.POST('/api/machines/{id}/runs/progress', { params: { path: { id }, query: { proof } }, signal, parseAs: 'stream' }), (line) => {
    if (line.refused) throw new Problem(422, 'Not proven', line.refused, [])
    if (!line.run) told(line)
    return line.run
  }, { cancelled: 'The proof was cancelled; nothing of it was kept.', broken: 'The proof ended without an outcome. Try again.' }, signal)
}

/** How far a repeated proof is, told until it has ended. Aborting ends the telling, not the proof. */
function followRepetition(id: number, told: (progress: Schemas['RepetitionProgress']) => void, signal: AbortSignal): Promise<true> {
  return lines<Schemas['RepetitionProgress'], true>(client.GET('/api/repetitions/{id}/progress', { params: { path: { id } }, signal, parseAs: 'stream' }), (line) => {
    told(line)
    return line.ended || null
  }, { cancelled: 'Nobody listens any more.', broken: 'Rueda does not tell how far it is. Look again.' }, signal)
}

/** Brings a recording in from a file that the server has, told as it is read. Aborting ends it. */
function readRecording(key: string, order: Schemas['RecordingOrder'], told: (bytes: number, of: number) => void, signal: AbortSignal): Promise<Schemas['RecordingView']> {
  return lines<Schemas['BringingProgress'], Schemas['RecordingView']>(client.POST('/api/recordings/files/{key}/recording', { params: { path: { key } }, body: order, signal, parseAs: 'stream' }), (line) => {
    if (line.failed) throw new Problem(422, 'Not read', line.failed, [])
    told(line.bytes, line.of)
    return line.recording
  }, { cancelled: 'Cancelled: nothing of it was kept.', broken: 'Reading ended without an outcome. Try again.' }, signal)
}

/** Learns from a recording, told as the bench tries. Aborting ends it. */
function learn(machine: number, question: Schemas['LearningQuestion'], told: (progress: Schemas['LearningProgress']) => void, signal: AbortSignal): Promise<Schemas['Learned']> {
  return lines<Schemas['LearningProgress'], Schemas['Learned']>(client.POST('/api/machines/{id}/learning', { params: { path: { id: machine } }, body: question, signal, parseAs: 'stream' }), (line) => {
    if (line.refused) throw new Problem(422, 'Nothing learned', line.refused, [])
    told(line)
    return line.learned
  }, { cancelled: 'Cancelled: nothing was changed.', broken: 'Learning ended without an outcome. Try again.' }, signal)
}

/** Searches for the fastest that holds, told as it tries. Aborting ends it. */
function fastest(machine: number, question: Schemas['FastestQuestion'], told: (progress: Schemas['FastestProgress']) => void, signal: AbortSignal): Promise<Schemas['FastestProgress']> {
  return lines<Schemas['FastestProgress'], Schemas['FastestProgress']>(client.POST('/api/machines/{id}/fastest', { params: { path: { id: machine } }, body: question, signal, parseAs: 'stream' }), (line) => {
    if (line.refused) throw new Problem(422, 'Not searched', line.refused, [])
    told(line)
    return line.fastest ? line : null
  }, { cancelled: 'Cancelled: nothing was changed.', broken: 'The search ended without an outcome. Try again.' }, signal)
}

/** Sends a file part by part. @returns its key */
async function sendRecording(machine: number, file: File, told: (bytes: number) => void, signal: AbortSignal): Promise<string> {
  const { key, partBytes } = await answered(client.POST('/api/machines/{id}/recordings/files', { params: { path: { id: machine }, query: { name: file.name, size: file.size } }, signal }), file)
  for (let at = 0; at < file.size; at += partBytes) {
    const part = file.slice(at, at + partBytes)
    const { received } = await answered(client.PUT('/api/recordings/files/{key}', { params: { path: { key }, query: { at } }, ...whole(part), signal }), file)
    told(received)
  }
  return key
}

const basedOn = (revision: number) => ({ 'If-Match': `"${revision}"` })

export const api = {
  machines: () => answered(client.GET('/api/machines')),
  createMachine: (beginning: Schemas['NewMachineQuestion']['beginning'], name?: string) => answered(client.POST('/api/machines', { body: { beginning, name } })),
  createFromFile: (file: File) => answered(client.POST('/api/machines/file', whole(file)), file),
  copyMachine: (id: number, name?: string) => answered(client.POST('/api/machines/{id}/copy', { params: { path: { id } }, body: { name } })),
  renameMachine: (id: number, revision: number, name: string) => answered(client.POST('/api/machines/{id}/name', { params: { path: { id }, header: basedOn(revision) }, body: { name } })),
  deleteMachine: (id: number) => answered(client.DELETE('/api/machines/{id}', { params: { path: { id } } })),
  restoreMachine: (id: number) => answered(client.POST('/api/machines/{id}/restore', { params: { path: { id } } })),
  revisions: (id: number, before?: number) => answered(client.GET('/api/machines/{id}/revisions', { params: { path: { id }, query: { before } } })),
  comparison: (id: number, revision: number, other: number) => answered(client.GET('/api/machines/{id}/revisions/{number}/comparison', { params: { path: { id, number: revision }, query: { with: other } } })),
  nameRevision: (id: number, revision: number, name: string) => answered(client.PUT('/api/machines/{id}/revisions/{number}/name', { params: { path: { id, number: revision } }, body: { name } })),
  overview: (document: Machine) => answered(client.POST('/api/calc/overview', { body: document })),
  editAxes: (question: Schemas['AxisListQuestion']) => answered(client.POST('/api/calc/axes', { body: question })),
  dependents: (machine: Machine, axis: string) => answered(client.POST('/api/calc/axes/dependents', { body: { machine, axis } })),
  openRevision: (id: number, current: number, revision: number) => answered(client.POST('/api/machines/{id}/revisions/{number}/open', { params: { path: { id, number: revision }, header: basedOn(current) } })),
  programFolder: (machine: number) => answered(client.GET('/api/program/folder', { params: { query: { machine } } })),
  machine: (id: number) => answered(client.GET('/api/machines/{id}', { params: { path: { id } } })),
  save: (id: number, revision: number, document: Machine) => answered(client.PUT('/api/machines/{id}', { params: { path: { id }, header: basedOn(revision) }, body: document })),
  undo: (id: number, revision: number) => answered(client.POST('/api/machines/{id}/undo', { params: { path: { id }, header: basedOn(revision) } })),
  redo: (id: number, revision: number) => answered(client.POST('/api/machines/{id}/redo', { params: { path: { id }, header: basedOn(revision) } })),
  consequences: (document: Machine) => answered(client.POST('/api/calc/machine', { body: document })),
  changes: (base: string, changes: Change[]) => answered(client.POST('/api/calc/machine/changes', { body: { base, changes } })),
  homing: (document: Asked, axis: number, signal?: AbortSignal) => answered(client.POST('/api/calc/homing', { body: { ...document, axis }, signal })),
  entry: (text: string, unit: string) => answered(client.POST('/api/calc/entry', { body: { text, unit } })),
  value: (question: Schemas['ValueQuestion']) => answered(client.POST('/api/calc/value', { body: question })),
  choices: () => answered(client.GET('/api/calc/choices')),
  lineValues: (id: number) => answered(client.GET('/api/machines/{id}/bench/line-values', { params: { path: { id } } })),
  breakpoints: (id: number, breakpoints: Schemas['Breakpoint'][]) => answered(client.PUT('/api/machines/{id}/bench/program/breakpoints', { params: { path: { id } }, body: { breakpoints } })),
  watches: (id: number, expressions: string[]) => answered(client.PUT('/api/machines/{id}/bench/program/watches', { params: { path: { id } }, body: { expressions } })),
  traced: (id: number, names: string[]) => answered(client.PUT('/api/machines/{id}/bench/program/traced', { params: { path: { id } }, body: { names } })),
  history: (id: number, name: string) => answered(client.GET('/api/machines/{id}/bench/program/history', { params: { path: { id }, query: { name } } })),
  stepProgram: (id: number, how: Schemas['StepOrder']['how']) => answered(client.POST('/api/machines/{id}/bench/program/step', { params: { path: { id } }, body: { how } })),
  toLine: (id: number, file: string, line: number) => answered(client.POST('/api/machines/{id}/bench/program/to-line', { params: { path: { id } }, body: { file, line } })),
  writeValue: (id: number, name: string, value: string, force: boolean) => answered(client.POST(force ? '/api/machines/{id}/bench/program/force' : '/api/machines/{id}/bench/program/write', { params: { path: { id } }, body: { name, value } })),
  releaseValue: (id: number, name: string) => answered(client.POST('/api/machines/{id}/bench/program/release', { params: { path: { id } }, body: { name } })),
  nameAt: (document: Asked, file: string, line: number, column: number) => answered(client.POST('/api/calc/program/name', { body: { ...document, file, line, column } })),
  renameName: (document: Asked, file: string, line: number, column: number, name: string) => answered(client.POST('/api/calc/program/rename', { body: { ...document, file, line, column, name } })),
  sentences: (document: Asked, proof: number) => answered(client.POST('/api/calc/sentences', { body: { ...document, proof } })),
  tagUses: (document: Asked) => answered(client.POST('/api/calc/program/tags', { body: { ...document } })),
  language: () => answered(client.GET('/api/program/language')),
  readProgram: (file: File) => answered(client.POST('/api/program/read', { params: { query: { name: file.name } }, ...whole(file) }), file),
  formatProgram: (files: Schemas['SourceFile'][]) => answered(client.POST('/api/program/format', { body: { files } })),
  xmlProgram: (project: string, files: Schemas['SourceFile'][]) => answered(client.POST('/api/program/xml', { params: { query: { project } }, body: { files }, parseAs: 'blob' })) as unknown as Promise<Blob>,
  zipProgram: (files: Schemas['SourceFile'][]) => answered(client.POST('/api/program/zip', { body: { files }, parseAs: 'blob' })) as unknown as Promise<Blob>,
  layout: (document: Asked, axis: number) => answered(client.POST('/api/calc/layout', { body: { ...document, axis } })),
  layoutTags: (document: Asked, axis: number) => answered(client.POST('/api/calc/layout/tags', { body: { ...document, axis } })),
  layoutTelegram: (document: Asked, axis: number, number: number) => answered(client.POST('/api/calc/layout/telegram', { body: { ...document, axis, number } })),
  planMoves: (document: Asked, axis: number, from: number, at?: number, drag?: Schemas['Drag']) => answered(client.POST('/api/calc/moves/plan', { body: { ...document, axis, from, at, drag } })),
  editMoves: (document: Asked, axis: number, edit: Omit<Schemas['MovesEditQuestion'], 'machine' | 'base' | 'axis'>) => answered(client.POST('/api/calc/moves/edit', { body: { ...document, axis, ...edit } })),
  families: () => answered(client.GET('/api/calc/bus/families')),
  moveToFamily: (machine: Machine, family: FamilyView['family']) => answered(client.POST('/api/calc/bus/family', { body: { machine, family } })),
  times: (machine: Machine) => answered(client.POST('/api/calc/bus/times', { body: machine })),
  tableText: (file: File) => answered(client.POST('/api/calc/bus/table/text', whole(file)), file),
  previewTable: (text: string) => answered(client.POST('/api/calc/bus/table', { body: { text } })),
  compareTable: (question: Schemas['ComparisonQuestion']) => answered(client.POST('/api/calc/bus/comparison', { body: question })),
  eni: (machine: Machine) => answered(client.POST('/api/calc/bus/eni', { body: machine })),
  dcf: (machine: Machine, axis: number) => answered(client.POST('/api/calc/bus/dcf', { body: { machine, axis } })),
  takeConfiguration: (machine: Machine, axis: number, configuration: Schemas['NodeConfiguration']) => answered(client.POST('/api/calc/bus/dcf/taken', { body: { machine, axis, configuration } })),
  readMachine: (file: File) => answered(client.POST('/api/machines/read', whole(file)), file),
  declared: (text: string) => answered(client.POST('/api/calc/bus/declared', { body: { text } })),
  exportTags: (machine: Machine, format: Schemas['ExportQuestion']['format']) => answered(client.POST('/api/calc/bus/tags', { body: { machine, format } })),
  prove,
  recordings: (id: number) => answered(client.GET('/api/machines/{id}/recordings', { params: { path: { id } } })),
  sendRecording,
  readRecording,
  learn,
  fastest,
  freedoms: (id: number) => answered(client.GET('/api/machines/{id}/freedoms', { params: { path: { id } } })),
  previewRecording: (key: string) => answered(client.GET('/api/recordings/files/{key}/preview', { params: { path: { key } } })),
  previewLayout: (key: string, layout: Schemas['RecordingLayout']) => answered(client.POST('/api/recordings/files/{key}/preview', { params: { path: { key } }, body: layout })),
  assignColumn: (id: number, column: Schemas['ColumnUse'], as: string) => answered(client.POST('/api/machines/{id}/recordings/assignment', { params: { path: { id } }, body: { column, as } })),
  dropIncoming: (key: string) => answered(client.DELETE('/api/recordings/files/{key}', { params: { path: { key } } })),
  renameRecording: (id: number, name: string) => answered(client.PUT('/api/recordings/{id}/name', { params: { path: { id } }, body: { name } })),
  forgetRecording: (id: number) => answered(client.DELETE('/api/recordings/{id}', { params: { path: { id } } })),
  traceSources: (id: number) => answered(client.GET('/api/machines/{id}/traces', { params: { path: { id } } })),
  drawn: (question: Schemas['TracesQuestion'], signal?: AbortSignal) => answered(client.POST('/api/traces', { body: question, signal })),
  overlay: (question: Schemas['OverlayQuestion']) => answered(client.POST('/api/traces/comparison', { body: question })),
  measured: (question: Schemas['TracesQuestion']) => answered(client.POST('/api/traces/measures', { body: question })),
  bands: (run: number, signal: string) => answered(client.GET('/api/runs/{id}/bands', { params: { path: { id: run }, query: { signal: signal || undefined } } })),
  repeat: (id: number, proof: string) => answered(client.POST('/api/machines/{id}/repetitions', { params: { path: { id }, query: { proof } } })),
  followRepetition,
  repetition: (id: number) => answered(client.GET('/api/repetitions/{id}', { params: { path: { id } } })),
  latestRepetitions: (id: number) => answered(client.GET('/api/machines/{id}/repetitions/latest', { params: { path: { id } } })),
  cancelRepetition: (id: number) => answered(client.POST('/api/repetitions/{id}/cancel', { params: { path: { id } } })),
  againOf: (id: number, run: number) => answered(client.POST('/api/repetitions/{id}/runs/{run}', { params: { path: { id, run } } })),
  runs: (id: number, proof: string) => answered(client.GET('/api/machines/{id}/runs', { params: { path: { id }, query: { proof } } })),
  run: (id: number) => answered(client.GET('/api/runs/{id}', { params: { path: { id } } })),
  latestRuns: (id: number) => answered(client.GET('/api/machines/{id}/runs/latest', { params: { path: { id } } })),
  trace: (run: number, signals: string[], from: number, to: number) =>
    answered(client.GET('/api/runs/{id}/trace', { params: { path: { id: run }, query: { signals, from, to, points: 3000 } } })),
  startBench: (id: number, program: 'PROGRAM' | 'HOMING', axis: string, running: boolean, retained = false) =>
    answered(client.POST('/api/machines/{id}/bench', { params: { path: { id } }, body: { program, axis, running, retained } })),
  takeControl: (id: number, monitoringSeconds: number) => answered(client.POST('/api/machines/{id}/control', { params: { path: { id } }, body: { monitoringSeconds } })),
  renewControl: (id: number, key: string) => answered(client.POST('/api/machines/{id}/control/{key}/renew', { params: { path: { id, key } } })),
  releaseControl: (id: number, key: string) => answered(client.DELETE('/api/machines/{id}/control/{key}', { params: { path: { id, key } } })),
  handOrder: (id: number, key: string, order: { axis: string; order: HandOrderKind; value?: number; fast?: boolean; terminal?: string; speedLimit?: number }) => answered(client.POST('/api/machines/{id}/control/{key}/orders', { params: { path: { id, key } }, body: order })),
  bench: (id: number, order: 'run' | 'hold' | 'cycle' | 'stop') => answered(client.POST(`/api/machines/{id}/bench/${order}` as const, { params: { path: { id } } })),
  condition: (id: number) => answered(client.GET('/api/machines/{id}/bench/condition', { params: { path: { id } } })),
  benchCondition: (id: number, axis: string, faults: Mistake[]) => answered(client.POST('/api/machines/{id}/bench/condition', { params: { path: { id } }, body: { axis, faults } })),
  wiring: (machine: Machine, axis: number, faults: Mistake[], signal?: AbortSignal) => answered(client.POST('/api/calc/wiring', { body: { machine, axis, faults }, signal })),
  identification: identify,
  turn: (machine: Machine, axis: number, faults: Mistake[], signal?: AbortSignal) => answered(client.POST('/api/calc/turn', { body: { machine, axis, faults }, signal })),
  response: (document: Asked, axis: number, signal?: AbortSignal) => answered(client.POST('/api/calc/response', { body: { ...document, axis }, signal })),
  movement: (machine: Machine, axis: number, faults: Mistake[], signal?: AbortSignal) => answered(client.POST('/api/calc/movement', { body: { machine, axis, faults }, signal })),
  follow: (document: Asked, axis: number, source: Schemas['MasterQuestion']['source'], master?: string) => answered(client.POST('/api/calc/follow/edit', { body: { ...document, axis, source, master } })),
  askGuards: (id: number, request: string, firstOpen: boolean, secondOpen: boolean) => answered(client.POST('/api/machines/{id}/bench/guards/request', { params: { path: { id } }, body: { request, firstOpen, secondOpen } })),
  acknowledgeGuards: (id: number) => answered(client.POST('/api/machines/{id}/bench/guards/acknowledge', { params: { path: { id } } })),
  guardLog: (id: number) => answered(client.GET('/api/machines/{id}/bench/guards/log', { params: { path: { id } } })),
  guardUsual: (document: Asked, axis: number) => answered(client.POST('/api/calc/guard/usual', { body: { ...document, axis } })),
  guardPlan: (document: Asked, axis: number, ask: Schemas['Ask']) => answered(client.POST('/api/calc/guard/plan', { body: { ...document, axis, ...ask } })),
  guardStop: (document: Asked, axis: number, ask: Schemas['Ask'], proof: string | undefined, signal?: AbortSignal) => answered(client.POST('/api/calc/guard/stop', { body: { ...document, axis, ...ask, proof }, signal })),
  editSafetyRequests: (question: Schemas['RequestQuestion']) => answered(client.POST('/api/calc/guard/requests', { body: question })),
  editVirtualMasters: (question: Schemas['VirtualMasterQuestion']) => answered(client.POST('/api/calc/follow/masters', { body: question })),
  followTrial: (document: Asked, axis: number, masterSpeed: number | undefined, running: boolean, signal?: AbortSignal) => answered(client.POST('/api/calc/follow/trial', { body: { ...document, axis, masterSpeed, running }, signal })),
  device: (id: number, axis: string, image?: number) => answered(client.GET('/api/machines/{id}/bench/devices/{axis}/comparison', { params: { path: { id, axis }, query: { image } } })),
  writeDevice: (id: number, axis: string, question: Schemas['WriteQuestion']) => answered(client.POST('/api/machines/{id}/bench/devices/{axis}/parameters', { params: { path: { id, axis } }, body: question })),
  endWriting: (id: number, axis: string, way: 'finish' | 'undo') => answered(client.POST(way === 'finish' ? '/api/machines/{id}/bench/devices/{axis}/finish' : '/api/machines/{id}/bench/devices/{axis}/undo', { params: { path: { id, axis } } })),
  factoryReset: (id: number, axis: string) => answered(client.POST('/api/machines/{id}/bench/devices/{axis}/factory-reset', { params: { path: { id, axis } } })),
  images: (id: number) => answered(client.GET('/api/machines/{id}/images', { params: { path: { id } } })),
  keepImage: (id: number, axis: string, name: string) => answered(client.POST('/api/machines/{id}/images', { params: { path: { id } }, body: { axis, name } })),
  bringImage: (id: number, file: File) => answered(client.POST('/api/machines/{id}/images/file', { params: { path: { id } }, ...whole(file) }), file),
  forgetImage: (id: number, image: number) => answered(client.DELETE('/api/machines/{id}/images/{image}', { params: { path: { id, image } } })),
  devices: () => answered(client.GET('/api/devices')),
  bringDevice: (file: File) => answered(client.POST('/api/devices', { params: { query: { name: file.name } }, ...whole(file) }), file),
  forgetDevice: (file: number) => answered(client.DELETE('/api/devices/files/{file}', { params: { path: { file } } })),
  scan: (id: number, from: number, to: number) => answered(client.GET('/api/machines/{id}/bench/scan', { params: { path: { id }, query: { from, to } } })),
  resolveAtDevice: (id: number, axis: string, way: 'READDRESS' | 'EXCHANGE') => answered(client.POST('/api/machines/{id}/bench/resolve', { params: { path: { id } }, body: { axis, way } })),
  stand: (id: number) => answered(client.GET('/api/machines/{id}/bench/stand', { params: { path: { id } } })),
  changeStand: (id: number, axis: string, changes: StandChange[]) => answered(client.POST('/api/machines/{id}/bench/stand', { params: { path: { id } }, body: { axis, changes } })),
  startUp: (machine: Machine, axis: number) => answered(client.POST('/api/calc/bus/startup', { body: { machine, axis } })),
  clocks: (machine: Machine) => answered(client.POST('/api/calc/bus/clocks', { body: machine })),
  writeDevices: (id: number) => answered(client.POST('/api/machines/{id}/bench/devices/write', { params: { path: { id } } })),
  keepDevice: (id: number, axis: string) => answered(client.POST('/api/machines/{id}/bench/devices/{axis}/keep', { params: { path: { id, axis } } })),
  restartDevice: (id: number, axis: string) => answered(client.POST('/api/machines/{id}/bench/devices/{axis}/restart', { params: { path: { id, axis } } })),
  step: (document: Asked, axis: number, signal?: AbortSignal) => answered(client.POST('/api/calc/step', { body: { ...document, axis }, signal })),
  benchSpeed: (id: number, factor: number) => answered(client.POST('/api/machines/{id}/bench/speed', { params: { path: { id } }, body: { factor } })),
}
