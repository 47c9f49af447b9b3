import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Problem } from '../api/client'
import { respond, serve, served } from '../api/server.fake'
import { useMachine } from './machine'

/** A server that keeps one document and its revision, and says no to a save based on an older one. */
function server() {
  const kept = { revision: 1, document: { name: 'cell', axes: [], plc: { files: [{ name: 'Main.st', source: '' }] }, proofs: [{ name: 'First proof', group: '', expectations: [] }] } as Record<string, unknown> }
  const state = () => ({ id: 1, revision: kept.revision, savedAt: '', canUndo: true, canRedo: false, document: kept.document, unknown: [] })
  serve((path, init) => {
    if (path === '/api/machines') return respond(200, [{ id: 1, name: 'cell', revision: kept.revision, unreadable: '' }])
    if (path.endsWith('/runs/latest')) return respond(200, [])
    if (path === '/api/calc/machine') return respond(200, { faults: (JSON.parse(init.body!) as { name: string }).name === '' ? [{ field: '/name', label: 'Machine name', value: '', allowed: '1 to 80 characters', mend: 'enter a name' }] : [], stages: [], program: { diagnostics: [], events: [] } })
    if (path === '/api/calc/machine/changes') return respond(404, { title: 'Not found', detail: 'not kept any more' })
    if (path === '/api/calc/homing') return respond(200, { advice: { figures: [], findings: [] } })
    if (init.method === 'PUT') {
      if (init.headers['if-match'] !== `"${kept.revision}"`) return respond(409, { title: 'Saved by another page', detail: '', currentRevision: kept.revision })
      kept.revision++
      kept.document = JSON.parse(init.body!)
    }
    return respond(200, state())
  })
  return kept
}

describe('the machine being worked on', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    setActivePinia(createPinia())
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })

  it('saves by itself', async () => {
    const kept = server()
    const machine = useMachine()
    await machine.load(1)
    machine.set('/name', 'changed')
    expect(kept.revision).toBe(1)
    await vi.advanceTimersByTimeAsync(600)
    expect(kept.revision).toBe(2)
    expect(machine.dirty).toBe(false)
  })

  it('keeps the entry in a conflict, and saves it over the other only when told to', async () => {
    const kept = server()
    const machine = useMachine()
    await machine.load(1)
    kept.revision = 7
    machine.set('/name', 'mine')
    await vi.advanceTimersByTimeAsync(600)
    expect(machine.conflict).toBe(7)
    expect(machine.draft?.name).toBe('mine')
    expect(kept.document.name).toBe('cell')
    await machine.keepMine()
    expect(kept.document.name).toBe('mine')
    expect(machine.revision).toBe(8)
  })

  it('never sends a document with a refused entry', async () => {
    const kept = server()
    const machine = useMachine()
    await machine.load(1)
    machine.set('/name', '')
    await machine.flush()
    expect(kept.revision).toBe(1)
    expect(served().mock.calls.filter(([, init]) => init.method === 'PUT')).toHaveLength(0)
    expect(machine.faults.map((f) => f.field)).toEqual(['/name'])
    expect(machine.draft?.name).toBe('')
  })

  it('takes back an entry that could not be read, and keeps what is not saved yet', async () => {
    const kept = server()
    const machine = useMachine()
    await machine.load(1)
    machine.set('/name', 'changed')
    machine.setUnread('/bus', { field: '/bus', label: 'Bus', value: '3 mm', allowed: 'a number', mend: 'enter a number' })
    await machine.undo()
    expect(machine.faults).toEqual([])
    expect(machine.draft?.name).toBe('changed')
    await vi.advanceTimersByTimeAsync(600)
    expect(kept.document.name).toBe('changed')
  })

  it('does not lose what is typed while a save is on its way', async () => {
    const kept = server()
    const machine = useMachine()
    await machine.load(1)
    machine.set('/name', 'first')
    const saving = machine.flush()
    machine.set('/name', 'second')
    await saving
    expect(machine.draft?.name).toBe('second')
    await vi.advanceTimersByTimeAsync(600)
    expect(kept.document.name).toBe('second')
  })

  it('chooses another axis when the chosen one has gone', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    machine.edit({ op: 'add', path: '/axes/-', value: { name: 'A' } }, { op: 'add', path: '/axes/-', value: { name: 'B' } })
    machine.axisIndex = 1
    expect(machine.axis?.name).toBe('B')
    machine.edit({ op: 'remove', path: '/axes/1' })
    expect(machine.axisIndex).toBe(0)
    expect(machine.axis?.name).toBe('A')
  })

  it('tells a refused entry once, beside its field, and asks no stage about it', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    const asked: string[] = []
    machine.set('/name', '')
    const answer = machine.asked(async (document) => asked.push(document.name))
    await vi.advanceTimersByTimeAsync(600)
    expect(await answer).toBeUndefined()
    expect(asked).toEqual([])
    expect(machine.faults.map((f) => f.field)).toEqual(['/name'])
    expect(machine.problem).toBeNull()
    expect(await machine.ordered(async () => asked.push('clicked'))).toBeUndefined()
    expect(asked).toEqual([])
    expect(machine.problem?.detail).toContain('Machine name is refused')
  })

  it('asks a stage only with the draft that has been answered, and drops what has been overtaken', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    machine.set('/name', 'first')
    let release = () => {}
    const seen: string[] = []
    const answer = machine.asked(async (document) => {
      seen.push(document.name)
      await new Promise<void>((resolve) => (release = resolve))
      return document.name
    })
    await vi.advanceTimersByTimeAsync(100)
    expect(seen).toEqual(['first'])
    machine.set('/name', 'second')
    release()
    expect(await answer).toBeUndefined()
    expect(served().mock.calls.filter(([path, init]) => path === '/api/calc/machine' && init.body?.includes('first'))).toHaveLength(1)
  })

  it('gives a question up when its draft is no more, without a word', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    let given: AbortSignal | undefined
    const answer = machine.asked((_document, _axis, wanted) => {
      given = wanted
      return new Promise((_resolve, reject) => wanted.addEventListener('abort', () => reject(new Problem(0, 'Cancelled', '', []))))
    })
    await vi.advanceTimersByTimeAsync(10)
    expect(given?.aborted).toBe(false)
    machine.set('/name', 'second')
    expect(given?.aborted).toBe(true)
    expect(await answer).toBeUndefined()
    expect(machine.problem).toBeNull()
  })

  it('tells how far a proof is, and ends it when told to', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    const answers = served().getMockImplementation()!
    let stream!: ReadableStreamDefaultController<Uint8Array>
    served().mockImplementation((path, init) => {
      if (!path.includes('/runs/progress')) return answers(path, init)
      const body = new ReadableStream<Uint8Array>({ start: (s) => { stream = s } })
      init.signal.addEventListener('abort', () => stream.error(new DOMException('aborted', 'AbortError')))
      return new Response(body)
    })
    const line = async (progress: object) => {
      stream.enqueue(new TextEncoder().encode(`${JSON.stringify({ before: 0, time: 0, of: 0, run: null, refused: null, ...progress })}\n`))
      await vi.advanceTimersByTimeAsync(10)
    }
    const first = machine.prove()
    await vi.advanceTimersByTimeAsync(10)
    await line({ before: 2 })
    expect(machine.proving).toMatchObject({ before: 2, of: 0 })
    await line({ time: 3, of: 12 })
    expect(machine.proving).toMatchObject({ before: 0, time: 3, of: 12 })
    await line({ time: 12, of: 12, run: { id: 5, name: 'First proof' } })
    await first
    expect(machine.proving).toBeNull()
    expect(machine.run?.id).toBe(5)
    const second = machine.prove()
    await vi.advanceTimersByTimeAsync(10)
    machine.proving!.cancel.abort()
    await second
    expect(machine.proving).toBeNull()
    expect(machine.run?.id, 'the run before it stays').toBe(5)
    expect(machine.problem, 'nothing is wrong when somebody cancels').toBeNull()
    const third = machine.prove()
    await vi.advanceTimersByTimeAsync(10)
    await line({ refused: 'There is no room on the disk.' })
    await third
    expect(machine.problem?.detail).toBe('There is no room on the disk.')
  })

  it('keeps what a stage was told while the draft is being saved', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    machine.set('/name', 'first')
    let release = () => {}
    const answer = machine.asked(async (document) => {
      await new Promise<void>((resolve) => (release = resolve))
      return document.name
    })
    await vi.advanceTimersByTimeAsync(700)
    expect(machine.dirty).toBe(false)
    release()
    expect(await answer).toBe('first')
  })

  it('says of no stage that nothing is wrong before it is known', async () => {
    server()
    const machine = useMachine()
    expect(machine.stageState('scale')).toBe('not known')
    expect(machine.stageState('prove')).toBe('not known')
    await machine.load(1)
    expect(machine.stageState('program')).toEqual({ faults: 0, warnings: 0 })
    expect(machine.stageState('scale')).toBe('not started')
    expect(machine.stageState('prove')).toBe('not started')
    machine.edit({ op: 'add', path: '/axes/-', value: { name: 'A' } })
    machine.edit({ op: 'add', path: '/axes/-', value: { name: 'B' } })
    expect(machine.stageState('home')).toBe('not known')
    machine.set('/name', '')
    await vi.advanceTimersByTimeAsync(600)
    expect(machine.stageState('scale')).toEqual({ faults: 1, warnings: 0 })
    expect(machine.stageState('tune')).toBe('not known')
  })

  it('searches every axis again that an edit leaves unknown, and only those', async () => {
    server()
    const machine = useMachine()
    await machine.load(1)
    machine.edit(...['A', 'B', 'C'].map((name) => ({ op: 'add' as const, path: '/axes/-', value: { name } })))
    /* edited while the other axes are being searched */
    const answers = served().getMockImplementation()!
    served().mockImplementation(async (path, init) => {
      if (path === '/api/calc/homing') await new Promise((resolve) => setTimeout(resolve, 100))
      return answers(path, init)
    })
    await vi.advanceTimersByTimeAsync(250)
    machine.set('/axes/0/name', 'D')
    expect(machine.stageState('home')).toBe('not known')
    await vi.advanceTimersByTimeAsync(1000)
    expect(Object.keys(machine.homings)).toEqual(['0', '1', '2'])
    expect(machine.stageState('home')).toEqual({ faults: 0, warnings: 0 })
    const before = served().mock.calls.filter(([path]) => path === '/api/calc/homing').length
    machine.set('/axes/1/name', 'E')
    expect(Object.keys(machine.homings)).toEqual(['0', '2'])
    await vi.advanceTimersByTimeAsync(1000)
    expect(Object.keys(machine.homings)).toEqual(['0', '1', '2'])
    /* the chosen axis, and the one that changed */
    expect(served().mock.calls.filter(([path]) => path === '/api/calc/homing').length - before).toBe(2)
    machine.edit({ op: 'add', path: '/bus', value: { cycleMicros: 2000 } })
    expect(Object.keys(machine.homings)).toEqual(['0'])
  })

  it('asks with the changes alone, is answered what is different, and sends all when the server does not keep the document any more', async () => {
    server()
    const plain = served().getMockImplementation()!
    const advice = (title: string) => ({ figures: [], findings: [{ stage: 'scale', axis: '', severity: 'WARNING', title, consequence: '' }] })
    const answers: Record<string, unknown>[] = []
    let keeps = true
    const asked: { path: string; body: Record<string, unknown> }[] = []
    serve((path, init) => {
      if (path.startsWith('/api/calc/')) asked.push({ path, body: JSON.parse(init.body!) })
      if (path === '/api/calc/machine') return respond(200, { base: 'whole', faults: [], stages: [{ stage: 'scale', axis: 0, advice: advice('a') }, { stage: 'tune', axis: 0, advice: advice('b') }], program: { diagnostics: [], events: ['Start'] } })
      if (path === '/api/calc/machine/changes') return keeps ? respond(200, answers.shift()) : respond(404, { title: 'Not found', detail: '' })
      return plain(path, init)
    })
    const machine = useMachine()
    await machine.load(1)
    expect(machine.adviceOf('scale', 0)?.findings[0].title).toBe('a')

    answers.push({ base: 'k1', faults: [], stages: [{ stage: 'scale', axis: 0, advice: advice('c') }], axes: 1, program: null })
    machine.set('/plc/files/0/source', 'x')
    await vi.advanceTimersByTimeAsync(60)
    expect(asked.at(-1)!.body).toEqual({ base: 'whole', changes: [{ op: 'replace', path: '/plc/files/0/source', value: 'x' }] })
    expect(machine.adviceOf('scale', 0)?.findings[0].title).toBe('c')
    expect(machine.adviceOf('tune', 0)?.findings[0].title).toBe('b')
    expect(machine.events).toEqual(['Start'])

    /* a refused entry says nothing else; what comes after it is told against what stood before it */
    answers.push({ base: 'k2', faults: [{ field: '/name', label: 'Machine name', value: '', allowed: '', mend: '' }], stages: [], axes: 1, program: null })
    machine.set('/name', '')
    await vi.advanceTimersByTimeAsync(60)
    expect(machine.faults).toHaveLength(1)
    expect(machine.adviceOf('tune', 0)).toBeNull()
    answers.push({ base: 'k3', faults: [], stages: [], axes: 1, program: null })
    machine.set('/name', 'cell')
    await vi.advanceTimersByTimeAsync(60)
    expect(asked.filter((a) => a.path.endsWith('/changes')).at(-1)!.body.base).toBe('k2')
    expect(machine.adviceOf('scale', 0)?.findings[0].title).toBe('c')

    keeps = false
    machine.set('/plc/files/0/source', 'y')
    await vi.advanceTimersByTimeAsync(60)
    expect(asked.at(-1)!.path).toBe('/api/calc/machine')
    expect(machine.adviceOf('scale', 0)?.findings[0].title).toBe('a')
  })
})
