import createClient, { type Middleware } from 'openapi-fetch'
import type { components, paths } from './schema'
import { readProblem } from './problem'

export type Schema = components['schemas']

let token = ''

/** The token every change has to carry; it belongs to whoever is signed in. */
export const keepToken = (value: string) => {
  token = value
}

const carryToken: Middleware = {
  onRequest: ({ request }) => {
    if (request.method !== 'GET') request.headers.set('X-Zeitplan-Token', token)
    return request
  },
}

export const api = createClient<paths>({ baseUrl: '/' })
api.use(carryToken)

/** The answer's data; anything else is thrown as a Problem. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await call
  } catch {
    throw readProblem(0, undefined)
  }
  if (!result.response.ok) throw readProblem(result.response.status, result.error)
  return result.data as T
}
