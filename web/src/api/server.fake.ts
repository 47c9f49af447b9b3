import { vi, type Mock } from 'vitest'

/** What a page asks, as a test looks at it. */
export interface Question {
  method: string
  body?: string
  headers: Record<string, string>
  signal: AbortSignal
}

type Answer = (path: string, question: Question) => Promise<Response> | Response

let present: Mock<Answer>

/** A server in a test: answers what the page asks, from now on. */
export function serve(answer: Answer) {
  present = vi.fn(answer)
  vi.stubGlobal('fetch', async (request: Request) => {
    const url = new URL(request.url)
    const body = await request.text()
    return present(url.pathname + url.search, { method: request.method, body: body || undefined, headers: Object.fromEntries(request.headers), signal: request.signal })
  })
}

/** What has been asked, and another answer to it. */
export const served = () => present

export const respond = (status: number, body: unknown) => new Response(status === 204 ? null : JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
