import { mutationOptions, type QueryKey } from '@tanstack/react-query'
import type { ChangeMeta } from './queries'

interface Door<V, A> {
  key: readonly [room: string, what: string]
  /** Variables are plain data: what it is about, what it is to be, and the version that was read. */
  send: (variables: V) => Promise<A>
  /** What it touches; all of it is asked for again. */
  changes?: ChangeMeta['changes']
  /** What somebody else has changed where this is refused as stale; what it touches, when it is left out. */
  onClash?: ChangeMeta['onClash']
  /** Where the answer is what a query would be answered with. */
  keeps?: (answer: A, variables: V) => (readonly [QueryKey, unknown])[]
}

/** A change that can be asked of the server, declared once in its room's data.ts and used with useMutation. */
export const door = <V, A>({ key, send, changes, onClash, keeps }: Door<V, A>) =>
  mutationOptions<A, Error, V>({
    mutationKey: key,
    mutationFn: send,
    meta: { changes, onClash, keeps: keeps as ChangeMeta['keeps'] },
  })
