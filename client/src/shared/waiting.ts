import type { IDBPDatabase, IDBPObjectStore } from 'idb'
import { useSyncExternalStore } from 'react'
import { Problem, readProblem } from '../api/problem'
import { comesAgain } from './queries'

/** A fact on its way to the server. It has been named before it was first sent, so that sending it again adds nothing. */
export interface Waiting<V = unknown> {
  id: string
  /** Which door it goes through. */
  kind: string
  variables: V
  /** Who tapped it: nobody else may send it. */
  by: string
  /** As it is said to whoever tapped it: "Imke R., Single Whip: alone". */
  says: string
  /** It lies in the browser's own database: a reload does not lose it. */
  kept?: boolean
  /** Why the server would not have it; it is kept until it has been read. */
  refused?: string
}

export interface Sender {
  send: (variables: never) => Promise<unknown>
  /** Those that follow one another and have the same word go in one request: a whole evening in one tap takes no longer than a mark. */
  together?: { word: (variables: never) => string | undefined; send: (all: never[]) => Promise<unknown> }
  /** Everything that was waiting has landed. */
  landed?: () => unknown
}

const STORE = 'waiting'

/** So many go in one request at most. */
const MOST_TOGETHER = 100

/** In a hall with half a network a request may hang without end; it is given up, and sent again. */
const LONGEST = 30_000

/**
 * What was tapped and has not reached the server yet, in the order it was tapped. It lives in the browser's own database, so that neither a lost network nor
 * a reload loses any of it; it is sent in that order, and again until the server has answered.
 */
export class WaitingQueue {
  private entries: readonly Waiting[] = []
  private sending = false
  private again: ReturnType<typeof setTimeout> | undefined
  private person: string | null = null
  private database: Promise<IDBPDatabase> | undefined
  private read: Promise<void> | undefined
  private keeping: Promise<void> | undefined
  private readonly senders = new Map<string, Sender>()
  private readonly listeners = new Set<() => void>()

  constructor(
    private readonly name = 'zeitplan',
    private readonly patience = 3000,
    private readonly longest = LONGEST,
  ) {}

  readonly now = () => this.entries

  /** Something waits that is not kept on this device: it goes with the page. */
  get isOnlyHere() {
    return this.entries.some((entry) => !entry.kept && entry.refused === undefined)
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }

  /** Says how a kind of fact is sent. */
  through(kind: string, sender: Sender) {
    this.senders.set(kind, sender)
  }

  /** From now on what this person has tapped is sent; null sends nothing. */
  async signedIn(person: string | null) {
    this.person = person
    await (this.read ??= this.recall())
    void this.flush()
  }

  /** @returns Once it is kept on this device, or it is known that it is not. */
  add(entry: Waiting): Promise<void> {
    this.set([...this.entries, entry])
    return (this.keeping ??= this.keep())
  }

  /** Whatever one tap says is kept in one go: a whole evening lies on the device as soon as a single mark does. */
  private async keep() {
    await Promise.resolve()
    this.keeping = undefined
    const now = Date.now()
    const taken = this.entries
      .map((entry, at) => ({ ...entry, at: now + at / 1000 }))
      .filter((entry) => !entry.kept && entry.refused === undefined)
    const kept = await this.store(taken)
    if (kept) {
      const ids = new Set(taken.map(({ id }) => id))
      this.set(this.entries.map((entry) => (ids.has(entry.id) ? { ...entry, kept } : entry)))
      // They have landed while they were being kept.
      const still = new Set(this.entries.map(({ id }) => id))
      await this.remove(taken.map(({ id }) => id).filter((id) => !still.has(id)))
    }
    void this.flush()
  }

  /** A refusal has been read. */
  async forget(...ids: string[]) {
    const gone = new Set(ids)
    this.set(this.entries.filter((entry) => !gone.has(entry.id)))
    await this.remove(ids)
  }

  /** What was refused is asked for once more: the reason may have gone. */
  async sendAgain(id: string) {
    this.set(this.entries.map((entry) => (entry.id === id ? { ...entry, refused: undefined } : entry)))
    await this.flush()
  }

  /** Sends what there is to send, oldest first; stops where the server does not answer and tries again in a while. */
  readonly flush = async () => {
    if (this.sending) return
    clearTimeout(this.again)
    this.sending = true
    const landed = new Map<string, Waiting>()
    const alone = new Set<string>()
    try {
      for (;;) {
        const due = this.due(landed, alone)
        if (!due) {
          if (landed.size === 0) return
          await this.settle(landed)
          continue
        }
        const [next, ...more] = due.entries
        try {
          await this.answered(
            due.together && more.length > 0
              ? due.together(due.entries.map(({ variables }) => variables as never))
              : due.send(next.variables as never),
          )
          for (const entry of due.entries) landed.set(entry.id, entry)
        } catch (error) {
          // Away, busy, or no longer signed in: it waits. Anything else is an answer.
          if (comesAgain(error) || (error instanceof Problem && error.status === 401)) {
            await this.settle(landed)
            this.again = setTimeout(() => void this.flush(), this.patience)
            return
          }
          // None of them was saved; which one it is about shows when they are sent one by one.
          if (more.length > 0) {
            for (const entry of due.entries) alone.add(entry.id)
            continue
          }
          const refused = error instanceof Problem ? [error.message, ...error.others([])].join(' ') : String(error)
          this.set(this.entries.map((entry) => (entry.id === next.id ? { ...entry, refused } : entry)))
          await this.store([{ ...next, refused, at: Date.now() }])
        }
      }
    } finally {
      this.sending = false
    }
  }

  /** What is sent next: the oldest, and what can go with it. */
  private due(landed: ReadonlyMap<string, Waiting>, alone: ReadonlySet<string>) {
    const open = this.entries.filter(
      (entry) => entry.refused === undefined && entry.by === this.person && !landed.has(entry.id),
    )
    const [next] = open
    const sender = next && this.senders.get(next.kind)
    if (!sender) return undefined
    const wordOf = ({ id, kind, variables }: Waiting) =>
      kind === next.kind && !alone.has(id) ? sender.together?.word(variables as never) : undefined
    const word = wordOf(next)
    const other = word === undefined ? 1 : open.findIndex((entry) => wordOf(entry) !== word)
    const more = open.slice(1, Math.min(other < 0 ? open.length : other, MOST_TOGETHER))
    return { entries: [next, ...more] as const, send: sender.send, together: sender.together?.send }
  }

  private async answered(sent: Promise<unknown>) {
    let clock: ReturnType<typeof setTimeout> | undefined
    const tooLong = new Promise<never>((_, reject) => {
      clock = setTimeout(() => reject(readProblem(0, undefined)), this.longest)
    })
    try {
      await Promise.race([sent, tooLong])
    } finally {
      clearTimeout(clock)
    }
  }

  /** What has landed waits on until the page has been answered with it; a whole row of marks is asked for again once. */
  private async settle(landed: Map<string, Waiting>) {
    for (const kind of new Set([...landed.values()].map((entry) => entry.kind)))
      await this.senders.get(kind)?.landed?.()
    await this.forget(...landed.keys())
    landed.clear()
  }

  private async recall() {
    let kept: (Waiting & { at: number })[] = []
    await this.reach(async (database) => (kept = (await database.getAll(STORE)) as typeof kept))
    const known = new Set(this.entries.map((entry) => entry.id))
    this.set([
      ...kept
        .filter((entry) => !known.has(entry.id))
        .toSorted((a, b) => a.at - b.at)
        .map((entry) => ({ ...entry, kept: true })),
      ...this.entries,
    ])
  }

  private store(entries: readonly (Waiting & { at: number })[]) {
    return this.inOne(entries, (kept, entry) => kept.put(entry))
  }

  private remove(ids: readonly string[]) {
    return this.inOne(ids, (kept, id) => kept.delete(id))
  }

  /** All of it or none. */
  private async inOne<T>(
    all: readonly T[],
    work: (kept: IDBPObjectStore<unknown, [typeof STORE], typeof STORE, 'readwrite'>, one: T) => Promise<unknown>,
  ) {
    if (all.length === 0) return true
    return this.reach(async (database) => {
      const { store, done } = database.transaction(STORE, 'readwrite')
      await Promise.all([...all.map((one) => work(store, one)), done])
    })
  }

  /** @returns False in a browser that keeps nothing, as some do in private windows: what is tapped can still be sent, and is not said to be kept. */
  private async reach(work: (database: IDBPDatabase) => Promise<unknown>): Promise<boolean> {
    try {
      await work(await this.open())
      return true
    } catch {
      this.database = undefined
      return false
    }
  }

  private open() {
    return (this.database ??= import('idb').then(({ openDB }) =>
      openDB(this.name, 1, {
        upgrade: (database) => void database.createObjectStore(STORE, { keyPath: 'id' }),
      }),
    ))
  }

  private set(entries: readonly Waiting[]) {
    this.entries = entries
    for (const listener of this.listeners) listener()
  }
}

export const waiting = new WaitingQueue()

/** Everything that waits, the oldest first. */
export const useWaiting = () => useSyncExternalStore(waiting.subscribe, waiting.now)

/** What waits and belongs to one thing, such as one lesson's register. */
export const useWaitingFor = (belongs: (entry: Waiting) => boolean) => useWaiting().filter(belongs)
