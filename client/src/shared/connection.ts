import { useSyncExternalStore } from 'react'
import { Problem } from '../api/problem'

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
