import { useSyncExternalStore } from 'react'
import { Problem } from '../api/problem'

/** How often what did not come is asked for again before it is said that it did not. */
export const MOST_RETRIES = 5

/** Milliseconds to wait after so many failures before. */
export const askedAgainAfter = (failures: number) => Math.min(500 * 2 ** failures, 4000)

/** Whether the server answered the last time anybody asked it. */
class Connection {
  private away = false
  private readonly listeners = new Set<() => void>()

  readonly isAway = () => this.away

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }

  /** Null is an answer; a refusal is one too. */
  heard(error: unknown) {
    const away = error instanceof Problem && (error.status === 0 || error.status === 503)
    if (away === this.away) return
    this.away = away
    for (const listener of this.listeners) listener()
  }
}

export const connection = new Connection()

export const useIsAway = () => useSyncExternalStore(connection.subscribe, connection.isAway)
