import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type Machine } from './client'
import { respond, serve } from './server.fake'

/** An answer that comes in pieces, as the network cuts it. */
function pieces(...parts: string[]) {
  const body = new ReadableStream<Uint8Array>({
    start(stream) {
      for (const part of parts) stream.enqueue(new TextEncoder().encode(part))
      stream.close()
    },
  })
  serve(() => new Response(body))
}

const machine = {} as Machine
const answer = { result: { done: true, message: 'Identified.' }, proposed: [] }

describe('identification, told move by move', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('tells every move and gives the answer of the last line', async () => {
    pieces('{"move":1,"of":6}\n{"mo', 've":2,"of":6}\n', `{"move":0,"of":0,"answer":${JSON.stringify(answer)}}\n`)
    const told: number[] = []
    expect(await api.identification(machine, 0, [], (move) => told.push(move), new AbortController().signal)).toEqual(answer)
    expect(told).toEqual([1, 2])
  })

  it('says so when the answer never comes', async () => {
    pieces('{"move":1,"of":6}\n')
    await expect(api.identification(machine, 0, [], () => {}, new AbortController().signal)).rejects.toThrow('ended without an answer')
  })

  it('is a problem with its words when it is refused', async () => {
    serve(() => respond(422, { title: 'Refused', detail: 'The mass is refused.' }))
    await expect(api.identification(machine, 0, [], () => {}, new AbortController().signal)).rejects.toThrow('The mass is refused.')
  })

  it('is cancelled by its page', async () => {
    const cancel = new AbortController()
    cancel.abort()
    serve(() => { throw new DOMException('aborted', 'AbortError') })
    const refusal = await api.identification(machine, 0, [], () => {}, cancel.signal).catch((e: Problem) => e)
    expect((refusal as Problem).title).toBe('Cancelled')
  })
})

describe('an answer', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('is what the server says, with its refusals in its words', async () => {
    serve((path, question) => (path === '/api/calc/entry' ? respond(200, { value: JSON.parse(question.body!).text.length }) : respond(409, { title: 'Saved by another page', detail: 'Revision 7 is newer.', currentRevision: 7 })))
    expect(await api.entry('2*3', 'mm')).toEqual({ value: 3 })
    const refusal = await api.undo(4, 2).catch((e: Problem) => e)
    expect(refusal).toMatchObject({ status: 409, detail: 'Revision 7 is newer.', currentRevision: 7 })
  })

  it('says what it is based on, and names what can be in a path as it is', async () => {
    const asked: [string, string | undefined][] = []
    serve((path, question) => {
      asked.push([path, question.headers['if-match']])
      return respond(200, [])
    })
    await api.undo(4, 2)
    await api.device(1, 'A/B é', 3)
    await api.trace(9, ['Shuttle.speed', 'Lift.speed'], 0, 1.5)
    expect(asked).toEqual([['/api/machines/4/undo', '"2"'], ['/api/machines/1/bench/devices/A%2FB%20%C3%A9/comparison?image=3', undefined], ['/api/runs/9/trace?signals=Shuttle.speed&signals=Lift.speed&from=0&to=1.5&points=3000', undefined]])
  })

  it('that breaks off, or never comes, is none', async () => {
    serve(() => new Response('{"value": 1', { status: 200 }))
    await expect(api.entry('1', 'mm')).rejects.toMatchObject({ status: 0, title: 'No answer' })
    serve(() => { throw new TypeError('Failed to fetch') })
    await expect(api.entry('1', 'mm')).rejects.toMatchObject({ status: 0, title: 'No connection' })
    await expect(api.tableText(new File(['x'], 'x.csv'))).rejects.toThrow('too large')
    serve(() => new Response('<html>proxy</html>', { status: 502, statusText: 'Bad gateway' }))
    await expect(api.entry('1', 'mm')).rejects.toMatchObject({ status: 502, detail: 'Bad gateway' })
  })
})
