import { Suspense, useEffect, useSyncExternalStore } from 'react'
import { useBlocker } from 'react-router'
import { later } from './fetched'
import { waiting } from './waiting'

const AlertDialog = later(() => import('../ui/AlertDialog').then((dialog) => dialog.AlertDialog))

interface Unsaved {
  /** As it goes on after "You have not saved …": "the class Tuesday evening". */
  what: string
  /** Leaves what was there before. */
  forget: () => void
  /** It is on its way to the server: whoever wants to go elsewhere waits for that, and is asked only if it is refused. */
  isSaving: () => boolean
}

/** Everything that is being written and not yet saved, and the question that is open about it. */
class Leaving {
  private readonly unsaved = new Map<string, Unsaved>()
  private question: (() => void) | null = null
  private readonly listeners = new Set<() => void>()

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }

  readonly asked = () => ([...this.unsaved.values()].every(({ isSaving }) => isSaving()) ? null : this.question)

  /** @returns What lets go of it, and says whether whoever waited for that has gone elsewhere now. */
  hold(key: string, unsaved: Unsaved) {
    this.unsaved.set(key, unsaved)
    return () => {
      if (this.unsaved.get(key) === unsaved) this.unsaved.delete(key)
      const goes = !this.anything && this.question !== null
      if (goes) this.forgetAndGo()
      return goes
    }
  }

  /** A save was refused: whoever waited for it is asked after all. */
  readonly refused = () => this.tell()

  get anything() {
    return this.unsaved.size > 0
  }

  get whats() {
    return [...this.unsaved.values()].map(({ what }) => what)
  }

  /** Goes at once when nothing would be lost; asks first otherwise. */
  readonly leave = (go: () => void) => {
    if (!this.anything) go()
    else this.ask(go)
  }

  readonly stay = () => this.ask(null)

  readonly forgetAndGo = () => {
    const go = this.question
    for (const { forget } of this.unsaved.values()) forget()
    this.unsaved.clear()
    this.ask(null)
    go?.()
  }

  private ask(go: (() => void) | null) {
    this.question = go
    this.tell()
  }

  private tell() {
    for (const listener of this.listeners) listener()
  }
}

export const leaving = new Leaving()

/** Does something that takes a form off the screen: at once, or after asking when something in it is not saved. */
export const leave = leaving.leave

/** While this is on the screen, going elsewhere with unsaved words asks first; so does closing the window, also with marks that nothing but this page holds. */
export function LeavingQuestion() {
  const open = useSyncExternalStore(leaving.subscribe, leaving.asked)
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => leaving.anything && currentLocation.pathname !== nextLocation.pathname,
  )
  useEffect(() => {
    if (blocker.state === 'blocked') leaving.leave(() => blocker.proceed())
  }, [blocker])
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (leaving.anything || waiting.isOnlyHere) event.preventDefault()
    }
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [])
  if (open === null) return null
  return (
    <Suspense fallback={null}>
      <AlertDialog
        open
        title="Leave without saving?"
        act="Leave without saving"
        leave="Keep writing"
        onAct={leaving.forgetAndGo}
        onLeave={() => {
          leaving.stay()
          if (blocker.state === 'blocked') blocker.reset()
        }}
      >
        <p>You have not saved {leaving.whats.join(', nor ')}. What you wrote would be lost.</p>
      </AlertDialog>
    </Suspense>
  )
}
