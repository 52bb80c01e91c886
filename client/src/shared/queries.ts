import {
  matchQuery,
  MutationCache,
  QueryCache,
  QueryClient,
  type Query,
  type QueryKey,
  type QueryPersister,
} from '@tanstack/react-query'
import { Problem } from '../api/problem'
import { askedAgainAfter, connection, MOST_RETRIES } from './connection'

/** What the first word of a query's key says it is about; a change names those it touches. */
export type Kind =
  | 'access-log'
  | 'account'
  | 'arrangement'
  | 'assignment-check'
  | 'assignments'
  | 'class-check'
  | 'compare'
  | 'corrections'
  | 'conventions'
  | 'coverage'
  | 'effort'
  | 'form'
  | 'forms'
  | 'hall'
  | 'home'
  | 'imports'
  | 'journal'
  | 'lesson'
  | 'lessons'
  | 'letters'
  | 'limits'
  | 'links'
  | 'look-back'
  | 'moves'
  | 'moving-in'
  | 'next-sash'
  | 'numbers'
  | 'patterns'
  | 'people'
  | 'plan'
  | 'plan-versions'
  | 'posture'
  | 'postures'
  | 'principles'
  | 'progress'
  | 'register'
  | 'remedies'
  | 'safety'
  | 'school'
  | 'second-factor'
  | 'session'
  | 'staff'
  | 'student'
  | 'student-details'
  | 'students'
  | 'taken-over'
  | 'teaching'
  | 'terms'
  | 'today'
  | 'year'

/** A change as one of a room's doors declares it: what it touches, and answers that are what a query would be answered with. */
export interface ChangeMeta extends Record<string, unknown> {
  changes?: readonly Kind[] | 'everything'
  onClash?: readonly Kind[]
  keeps?: (answer: never, variables: never) => (readonly [QueryKey, unknown])[]
}

declare module '@tanstack/react-query' {
  interface Register {
    mutationMeta: ChangeMeta
  }
}

/** What is on the device after it was seen once, so that the hall works without a network. */
const keptKinds: readonly Kind[] = [
  'arrangement',
  'conventions',
  'lesson',
  'lessons',
  'posture',
  'postures',
  'principles',
  'register',
  'today',
]

/** Answers that came from the device: nobody has heard the server. */
const fromDevice = new WeakSet()

/** An answer is kept as it comes; where the server is away, the last one is better than none. */
export async function orKept<T>(key: string, ask: () => T | Promise<T>, nothingYet = true): Promise<T> {
  // Where this does not come either, nothing is kept: no reason to show nothing.
  const device = import('./kept').catch(() => undefined)
  try {
    const data = await ask()
    void device.then((it) => it?.keep(key, data))
    return data
  } catch (error) {
    const kept = isAway(error) && nothingYet ? await (await device)?.recall(key) : undefined
    if (typeof kept !== 'object' || kept === null) throw error
    connection.heard(error)
    fromDevice.add(kept)
    return kept as T
  }
}

const keptOnDevice: QueryPersister = (ask, context, query) =>
  keptKinds.includes(query.queryKey[0] as Kind)
    ? orKept(query.queryHash, () => ask(context), query.state.data === undefined)
    : ask(context)

/** A server or database that is away is asked again; a refusal is not. */
export const isAway = (error: unknown) => error instanceof Problem && [0, 502, 503, 504].includes(error.status)

/** Whoever is told that much is being planned just now asks again by itself. */
export const comesAgain = (error: unknown) => isAway(error) || (error instanceof Problem && error.status === 429)

/** Whoever is no longer signed in sees the sign-in, and comes back to where they were; what they were writing is kept meanwhile. */
function heard(client: QueryClient, error: unknown) {
  if (error instanceof Problem && error.status === 401) {
    client.setQueryData(
      ['session'],
      (session: { person: unknown } | undefined) => session && { ...session, person: null },
    )
    // The token every change carries belonged to whoever was signed in.
    void client.invalidateQueries({ queryKey: ['session'] })
  }
  connection.heard(error)
}

/** The one place in which what a change touches is asked for again. */
export async function touch(client: QueryClient, changes: ChangeMeta['changes']) {
  const predicate = (query: Query) =>
    changes === 'everything'
      ? query.queryKey[0] !== 'session' && query.queryKey[0] !== 'engine'
      : (changes ?? []).some((kind) => matchQuery({ queryKey: [kind] }, query))
  // A first answer that was under way before the change may not know of it, and nothing asks again for what has not come yet.
  const firstAnswers = client
    .getQueryCache()
    .findAll({ predicate, fetchStatus: 'fetching' })
    .filter((query) => query.state.data === undefined)
  await Promise.allSettled(firstAnswers.flatMap((query) => query.promise ?? []))
  await client.invalidateQueries({ predicate })
}

export function makeQueries(): QueryClient {
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({
      onError: (error) => heard(client, error),
      onSuccess: (data) => {
        if (!(typeof data === 'object' && data !== null && fromDevice.has(data))) connection.heard(null)
      },
    }),
    mutationCache: new MutationCache({
      onError: (error, _variables, _context, mutation) => {
        heard(client, error)
        // Somebody was quicker: whoever is told so can see at once what is there now.
        if (error instanceof Problem && error.status === 409)
          return touch(client, mutation.meta?.onClash ?? mutation.meta?.changes)
      },
      onSuccess: (answer, variables, _, mutation) => {
        connection.heard(null)
        const { keeps, changes } = mutation.meta ?? {}
        for (const [key, value] of keeps?.(answer as never, variables as never) ?? []) client.setQueryData(key, value)
        // Whoever waits for the change waits for what follows from it too, and never sees what was there before.
        return touch(client, changes)
      },
    }),
    defaultOptions: {
      queries: {
        retry: (count, error) => comesAgain(error) && count < MOST_RETRIES,
        retryDelay: askedAgainAfter,
        staleTime: 5_000,
        persister: keptOnDevice,
        // Away is found out by asking; a browser's own idea of being online says nothing about our server.
        networkMode: 'always',
      },
      mutations: { networkMode: 'always' },
    },
  })
  return client
}
