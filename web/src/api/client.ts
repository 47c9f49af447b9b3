import type { components } from './schema'

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

/** Sends a file as it is. */
async function upload<T>(path: string, file: File): Promise<T> {
  const response = await fetch(`/api${path}`, { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: file }).catch(() => null)
  if (!response) throw new Problem(0, 'No connection', 'Rueda does not answer, or the file is too large for it. Nothing of it was taken.', [])
  const json = await response.json().catch(() => ({}))
  if (!response.ok) throw new Problem(response.status, json.title ?? 'Error', json.detail ?? response.statusText, json.faults ?? [])
  return json as T
}

/** Key of the control lease while this page holds it: orders to the bench show it. */
let controlKey = ''
export const showControlKey = (key: string) => (controlKey = key)

async function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}, signal?: AbortSignal): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...(controlKey ? { 'Rueda-Control': controlKey } : {}), ...headers },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal,
    })
  } catch {
    if (signal?.aborted) throw new Problem(0, 'Cancelled', 'Nobody waits for this answer any more.', [])
    throw new Problem(0, 'No connection', 'Rueda does not answer. Is the server running? Your entries are kept on this page.', [])
  }
  if (response.status === 204) return undefined as T
  const json = await response.json().catch(() => {
    if (signal?.aborted) throw new Problem(0, 'Cancelled', 'Nobody waits for this answer any more.', [])
    /* an answer that breaks off is none */
    if (response.ok) throw new Problem(0, 'No answer', 'The answer of Rueda broke off. Try again; the reason is in the server\'s output.', [])
    return {}
  })
  if (!response.ok) {
    throw new Problem(response.status, json.title ?? 'Error', json.detail ?? response.statusText, json.faults ?? [], json.currentRevision)
  }
  return json as T
}

/** A question whose answer comes line by line; `last` takes what it waits for out of a line. Aborting closes the connection, and that ends the work. */
async function lines<L, A>(path: string, body: unknown, last: (line: L) => A | null | undefined, words: { cancelled: string; broken: string }, signal: AbortSignal): Promise<A> {
  const response = await fetch(`/api${path}`, {
    method: 'POST', headers: body === undefined ? {} : { 'Content-Type': 'application/json' }, body: body === undefined ? undefined : JSON.stringify(body), signal,
  }).catch(() => null)
  const ended = () => (signal.aborted ? new Problem(0, 'Cancelled', words.cancelled, []) : new Problem(0, 'No connection', 'Rueda does not answer. Is the server running?', []))
  if (!response) throw ended()
  if (!response.ok) {
    const json = await response.json().catch(() => ({}))
    throw new Problem(response.status, json.title ?? 'Error', json.detail ?? response.statusText, json.faults ?? [])
  }
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
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
  return lines<Schemas['IdentificationProgress'], IdentificationAnswer>('/calc/identification/progress', { machine, axis, faults }, (line) => {
    if (!line.answer) told(line.move, line.of)
    return line.answer
  }, { cancelled: 'Cancelled: the axis was stopped.', broken: 'The identification ended without an answer. Try again.' }, signal)
}

/** The proof of the saved machine, told as it waits and runs. */
function prove(id: number, told: (progress: ProofProgress) => void, signal: AbortSignal): Promise<RunView> {
  return lines<ProofProgress, RunView>(`/machines/${id}/runs/progress`, undefined, (line) => {
    if (line.refused) throw new Problem(422, 'Not proven', line.refused, [])
    if (!line.run) told(line)
    return line.run
  }, { cancelled: 'The proof was cancelled; nothing of it was kept.', broken: 'The proof ended without an outcome. Try again.' }, signal)
}

const basedOn = (revision: number) => ({ 'If-Match': `"${revision}"` })

export const api = {
  machines: () => call<Schemas['Listed'][]>('GET', '/machines'),
  createMachine: (beginning: 'EMPTY' | 'DEMO', name?: string) => call<MachineState>('POST', '/machines', { beginning, name }),
  createFromFile: (file: File) => upload<MachineState>('/machines/file', file),
  copyMachine: (id: number, name?: string) => call<MachineState>('POST', `/machines/${id}/copy`, { name }),
  renameMachine: (id: number, revision: number, name: string) => call<MachineState>('POST', `/machines/${id}/name`, { name }, basedOn(revision)),
  deleteMachine: (id: number) => call<void>('DELETE', `/machines/${id}`),
  restoreMachine: (id: number) => call<MachineState>('POST', `/machines/${id}/restore`),
  revisions: (id: number, before?: number) => call<Schemas['ListedRevision'][]>('GET', `/machines/${id}/revisions${before ? `?before=${before}` : ''}`),
  comparison: (id: number, revision: number, other: number) => call<Schemas['DocumentChange'][]>('GET', `/machines/${id}/revisions/${revision}/comparison?with=${other}`),
  nameRevision: (id: number, revision: number, name: string) => call<void>('PUT', `/machines/${id}/revisions/${revision}/name`, { name }),
  overview: (document: Machine) => call<Schemas['MachineOverview']>('POST', '/calc/overview', document),
  editAxes: (question: Schemas['AxisListQuestion']) => call<Schemas['Outcome']>('POST', '/calc/axes', question),
  dependents: (machine: Machine, axis: string) => call<string[]>('POST', '/calc/axes/dependents', { machine, axis }),
  openRevision: (id: number, current: number, revision: number) => call<MachineState>('POST', `/machines/${id}/revisions/${revision}/open`, undefined, basedOn(current)),
  machine: (id: number) => call<MachineState>('GET', `/machines/${id}`),
  save: (id: number, revision: number, document: Machine) => call<MachineState>('PUT', `/machines/${id}`, document, basedOn(revision)),
  undo: (id: number, revision: number) => call<MachineState>('POST', `/machines/${id}/undo`, undefined, basedOn(revision)),
  redo: (id: number, revision: number) => call<MachineState>('POST', `/machines/${id}/redo`, undefined, basedOn(revision)),
  consequences: (document: Machine) => call<MachineAnswer>('POST', '/calc/machine', document),
  changes: (base: string, changes: Change[]) => call<Schemas['ChangeAnswer']>('POST', '/calc/machine/changes', { base, changes }),
  homing: (document: Asked, axis: number, signal?: AbortSignal) => call<HomingAnswer>('POST', '/calc/homing', { ...document, axis }, {}, signal),
  entry: (text: string, unit: string) => call<{ value: number }>('POST', '/calc/entry', { text, unit }),
  value: (question: Schemas['ValueQuestion']) => call<Figure[]>('POST', '/calc/value', question),
  families: () => call<FamilyView[]>('GET', '/calc/bus/families'),
  moveToFamily: (machine: Machine, family: FamilyView['family']) => call<Machine>('POST', '/calc/bus/family', { machine, family }),
  times: (machine: Machine) => call<CycleTimes>('POST', '/calc/bus/times', machine),
  tableText: (file: File) => upload<{ text: string }>('/calc/bus/table/text', file),
  previewTable: (text: string) => call<TablePreview>('POST', '/calc/bus/table', { text }),
  compareTable: (question: Schemas['ComparisonQuestion']) => call<Compared[]>('POST', '/calc/bus/comparison', question),
  eni: (machine: Machine) => call<Schemas['ExportAnswer']>('POST', '/calc/bus/eni', machine),
  dcf: (machine: Machine, axis: number) => call<Schemas['ExportAnswer']>('POST', '/calc/bus/dcf', { machine, axis }),
  takeConfiguration: (machine: Machine, axis: number, configuration: Schemas['NodeConfiguration']) => call<Schemas['Taken']>('POST', '/calc/bus/dcf/taken', { machine, axis, configuration }),
  readMachine: (file: File) => upload<Machine>('/machines/read', file),
  declared: (text: string) => call<Schemas['DeclaredTag'][]>('POST', '/calc/bus/declared', { text }),
  exportTags: (machine: Machine, format: Schemas['ExportQuestion']['format']) => call<Schemas['ExportAnswer']>('POST', '/calc/bus/tags', { machine, format }),
  prove,
  latestRun: (id: number) => call<RunView | undefined>('GET', `/machines/${id}/runs/latest`),
  trace: (run: number, signals: string[], from: number, to: number) =>
    call<TraceView>('GET', `/runs/${run}/trace?signals=${signals.map(encodeURIComponent).join(',')}&from=${from}&to=${to}&points=3000`),
  startBench: (id: number, program: 'PROGRAM' | 'HOMING', axis: string, running: boolean) =>
    call<BenchState>('POST', `/machines/${id}/bench`, { program, axis, running }),
  takeControl: (id: number, monitoringSeconds: number) => call<Schemas['ControlTaken']>('POST', `/machines/${id}/control`, { monitoringSeconds }),
  renewControl: (id: number, key: string) => call<void>('POST', `/machines/${id}/control/${key}/renew`),
  releaseControl: (id: number, key: string) => call<void>('DELETE', `/machines/${id}/control/${key}`),
  handOrder: (id: number, key: string, order: { axis: string; order: HandOrderKind; value?: number; fast?: boolean; terminal?: string; speedLimit?: number }) => call<Schemas['HandAnswer']>('POST', `/machines/${id}/control/${key}/orders`, order),
  bench: (id: number, order: 'run' | 'hold' | 'cycle' | 'stop') => call<BenchState>('POST', `/machines/${id}/bench/${order}`),
  condition: (id: number) => call<Record<string, Mistake[]>>('GET', `/machines/${id}/bench/condition`),
  benchCondition: (id: number, axis: string, faults: Mistake[]) => call<Record<string, Mistake[]>>('POST', `/machines/${id}/bench/condition`, { axis, faults }),
  wiring: (machine: Machine, axis: number, faults: Mistake[], signal?: AbortSignal) => call<WiringCheck[]>('POST', '/calc/wiring', { machine, axis, faults }, {}, signal),
  identification: identify,
  turn: (machine: Machine, axis: number, faults: Mistake[], signal?: AbortSignal) => call<Schemas['TurnAnswer']>('POST', '/calc/turn', { machine, axis, faults }, {}, signal),
  response: (document: Asked, axis: number, signal?: AbortSignal) => call<StepAnswer>('POST', '/calc/response', { ...document, axis }, {}, signal),
  movement: (machine: Machine, axis: number, faults: Mistake[], signal?: AbortSignal) => call<Moved>('POST', '/calc/movement', { machine, axis, faults }, {}, signal),
  device: (id: number, axis: string, image?: number) => call<DeviceGroup[]>('GET', `/machines/${id}/bench/devices/${encodeURIComponent(axis)}/comparison${image ? `?image=${image}` : ''}`),
  writeDevice: (id: number, axis: string, question: Schemas['WriteQuestion']) => call<BenchState>('POST', `/machines/${id}/bench/devices/${encodeURIComponent(axis)}/parameters`, question),
  endWriting: (id: number, axis: string, way: 'finish' | 'undo') => call<BenchState>('POST', `/machines/${id}/bench/devices/${encodeURIComponent(axis)}/${way}`),
  factoryReset: (id: number, axis: string) => call<BenchState>('POST', `/machines/${id}/bench/devices/${encodeURIComponent(axis)}/factory-reset`),
  images: (id: number) => call<ImageView[]>('GET', `/machines/${id}/images`),
  keepImage: (id: number, axis: string, name: string) => call<ImageView>('POST', `/machines/${id}/images`, { axis, name }),
  bringImage: (id: number, file: File) => upload<ImageView>(`/machines/${id}/images/file`, file),
  forgetImage: (id: number, image: number) => call<void>('DELETE', `/machines/${id}/images/${image}`),
  devices: () => call<KnownDevice[]>('GET', '/devices'),
  bringDevice: (file: File) => upload<Schemas['Brought']>(`/devices?name=${encodeURIComponent(file.name)}`, file),
  forgetDevice: (file: number) => call<void>('DELETE', `/devices/files/${file}`),
  scan: (id: number, from: number, to: number) => call<ScanResult>('GET', `/machines/${id}/bench/scan?from=${from}&to=${to}`),
  resolveAtDevice: (id: number, axis: string, way: 'READDRESS' | 'EXCHANGE') => call<ScanResult>('POST', `/machines/${id}/bench/resolve`, { axis, way }),
  stand: (id: number) => call<Record<string, StandChange[]>>('GET', `/machines/${id}/bench/stand`),
  changeStand: (id: number, axis: string, changes: StandChange[]) => call<Record<string, StandChange[]>>('POST', `/machines/${id}/bench/stand`, { axis, changes }),
  startUp: (machine: Machine, axis: number) => call<Schemas['StartUpView']>('POST', '/calc/bus/startup', { machine, axis }),
  clocks: (machine: Machine) => call<ClockDrift>('POST', '/calc/bus/clocks', machine),
  writeDevices: (id: number) => call<BenchState>('POST', `/machines/${id}/bench/devices/write`),
  keepDevice: (id: number, axis: string) => call<BenchState>('POST', `/machines/${id}/bench/devices/${encodeURIComponent(axis)}/keep`),
  restartDevice: (id: number, axis: string) => call<BenchState>('POST', `/machines/${id}/bench/devices/${encodeURIComponent(axis)}/restart`),
  step: (document: Asked, axis: number, signal?: AbortSignal) => call<StepAnswer>('POST', '/calc/step', { ...document, axis }, {}, signal),
  benchSpeed: (id: number, factor: number) => call<BenchState>('POST', `/machines/${id}/bench/speed`, { factor }),
}
