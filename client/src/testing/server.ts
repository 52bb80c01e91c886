import { vi } from 'vitest'

type Answer = { status?: number; body?: unknown } | 'away'

/** A server of a few answers; whatever it is asked is written down. */
export function serve(answers: Record<string, Answer | ((body: unknown) => Answer | Promise<Answer>)>) {
  const asked: { what: string; query: string; body: unknown }[] = []
  const now = { ...answers }
  vi.stubGlobal(
    'fetch',
    vi.fn(async (input: Request | string, init?: RequestInit) => {
      const request = input instanceof Request ? input : new Request(new URL(input, 'http://here'), init)
      const { pathname, search: query } = new URL(request.url, 'http://here')
      const what = `${request.method} ${pathname}`
      const text = await request.text()
      const body: unknown = text ? JSON.parse(text) : undefined
      asked.push({ what, query, body })
      const known = now[what]
      if (known === undefined) throw new Error(`Nobody answers ${what}.`)
      const answer = typeof known === 'function' ? await known(body) : known
      if (answer === 'away') throw new TypeError('Failed to fetch')
      const { status = 200, body: said } = answer
      return new Response(said === undefined ? null : JSON.stringify(said), {
        status: said === undefined && status === 200 ? 204 : status,
        headers: { 'content-type': 'application/json' },
      })
    }),
  )
  return { asked, answer: now }
}

/** A refusal as the server writes it. */
export const refusal = (title: string, rest: { errors?: Record<string, string[]>; changes?: string[] } = {}) => ({
  type: 'urn:zeitplan:problem:test',
  title,
  ...rest,
})
