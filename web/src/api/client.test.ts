import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type Machine } from './client'

/** An answer that comes in pieces, as the network cuts it. */
function pieces(...parts: string[]) {
  const body = new ReadableStream<Uint8Array>({
    start(stream) {
      for (const part of parts) stream.enqueue(new TextEncoder().encode(part))
      stream.close()
    },
  })
  vi.stubGlobal('fetch', vi.fn(async () => ({ ok: true, status: 200, body })))
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
    vi.stubGlobal('fetch', vi.fn(async () => ({ ok: false, status: 422, statusText: '', json: async () => ({ title: 'Refused', detail: 'The mass is refused.' }) })))
    await expect(api.identification(machine, 0, [], () => {}, new AbortController().signal)).rejects.toThrow('The mass is refused.')
  })

  it('is cancelled by its page', async () => {
    const cancel = new AbortController()
    cancel.abort()
    vi.stubGlobal('fetch', vi.fn(async () => { throw new DOMException('aborted', 'AbortError') }))
    const refusal = await api.identification(machine, 0, [], () => {}, cancel.signal).catch((e: Problem) => e)
    expect((refusal as Problem).title).toBe('Cancelled')
  })
})
