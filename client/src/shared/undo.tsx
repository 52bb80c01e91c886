import { createContext, Suspense, use, useCallback, useMemo, useState, type ReactNode } from 'react'
import { newId } from '../ui/new-id'
import { useKeys } from '../ui/keys'
import { later } from './fetched'

export interface UndoStep {
  /** As it goes on after "Undo": "taking out Press". */
  what: string
  /** Takes it back; may be refused. */
  back: () => Promise<unknown>
  /** Said at the foot of the page when what was done leaves nothing on the screen to see: "Press was taken out." */
  says?: string
}

interface Undo {
  last: UndoStep | undefined
  busy: boolean
  /** Why the last one could not be taken back. */
  refused: Error | null
  did: (step: UndoStep) => void
  undo: () => void
  /** What was done before can no longer be taken back, because somebody else has gone on from it. */
  clear: () => void
}

const Toasts = later(() => import('../ui/Toast').then((toast) => toast.Toasts))

/** A step that says what it did, until it has been read. */
interface ToldStep {
  id: string
  step: UndoStep
}

const Context = createContext<Undo | null>(null)

/** The one undo of a room: what was done there since it was entered, newest first. The z key takes back; what vanished says so at the foot of the page. */
export function UndoRoom({ children }: { children: ReactNode }) {
  const [steps, setSteps] = useState<UndoStep[]>([])
  const [told, setTold] = useState<ToldStep[]>([])
  const [busy, setBusy] = useState(false)
  const [refused, setRefused] = useState<Error | null>(null)

  const take = useCallback(async (step: UndoStep) => {
    setBusy(true)
    setRefused(null)
    try {
      await step.back()
      setSteps((before) => before.filter((one) => one !== step))
      setTold((before) => before.filter((one) => one.step !== step))
    } catch (error) {
      setRefused(error as Error)
    } finally {
      setBusy(false)
    }
  }, [])
  const last = steps.at(-1)
  const undo = useMemo<Undo>(
    () => ({
      last,
      busy,
      refused,
      did: (step) => {
        setRefused(null)
        setSteps((before) => [...before, step])
        if (step.says) setTold((before) => [...before, { id: newId(), step }])
      },
      undo: () => {
        if (last && !busy) void take(last)
      },
      clear: () => {
        setSteps([])
        setTold([])
        setRefused(null)
      },
    }),
    [last, busy, refused, take],
  )
  useKeys((event) => {
    if (event.key !== 'z' || !last) return false
    undo.undo()
    return true
  })
  return (
    <Context value={undo}>
      {children}
      {told.length > 0 && (
        <Suspense fallback={null}>
          <Toasts
            told={told.map(({ id, step }) => ({ id, says: step.says!, undo: () => void take(step) }))}
            done={(id) => setTold((before) => before.filter((one) => one.id !== id))}
          />
        </Suspense>
      )}
    </Context>
  )
}

/** Takes something out: what follows, follows although the panel goes with what it was about. A refusal stays with whoever asked. */
export function useTakeOut() {
  const { did } = useUndo()
  /** @param step How it comes back; null when it cannot. */
  return (gone: Promise<unknown>, step: UndoStep | null, then: () => void) =>
    void gone.then(
      () => {
        if (step) did(step)
        then()
      },
      () => undefined,
    )
}

export function useUndo(): Undo {
  const undo = use(Context)
  if (!undo) throw new Error('Undo works inside a room.')
  return undo
}
