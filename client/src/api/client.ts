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

export const api = createClient<paths>({
  baseUrl: window.location.origin,
  // Looked up at each call, so that a test can stand in for the network.
  fetch: (request) => globalThis.fetch(request),
})
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

/** A file that takes a while to be written: how many bytes of how many are here. Left off, nothing of it is kept. */
export async function fetchFile(
  path: string,
  heard: (bytes: number, of: number) => void,
  signal: AbortSignal,
): Promise<{ name: string; content: Blob }> {
  const response = await asked(path, { signal })
  const reader = response.body!.getReader()
  const of = Number(response.headers.get('content-length'))
  const parts: Uint8Array<ArrayBuffer>[] = []
  let bytes = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    parts.push(value)
    bytes += value.length
    heard(bytes, of)
  }
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'school.zip'
  return { name, content: new Blob(parts) }
}

async function asked(path: string, request: RequestInit): Promise<Response> {
  let response
  try {
    response = await fetch(path, request)
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw readProblem(0, undefined)
  }
  if (!response.ok || !response.body) throw readProblem(response.status, await response.json().catch(() => undefined))
  return response
}

/** Sends something that takes a while and hears how far it is, a line of JSON at a time; the answer is the last line. A file is sent as it is. */
export async function stream<T>(
  path: string,
  body: unknown,
  heard: (line: T) => void,
  signal?: AbortSignal,
): Promise<T> {
  const isFile = body instanceof Blob
  const response = await asked(path, {
    method: 'POST',
    headers: { 'content-type': isFile ? 'application/zip' : 'application/json', 'X-Zeitplan-Token': token },
    body: isFile ? body : JSON.stringify(body),
    signal,
  })
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  let last: T | undefined
  for (;;) {
    const { done, value } = await reader.read()
    const lines = (rest + (value ?? '') + (done ? '\n' : '')).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines.filter(Boolean)) heard((last = JSON.parse(line) as T))
    if (done) break
  }
  if (last === undefined) throw readProblem(0, undefined)
  return last
}
