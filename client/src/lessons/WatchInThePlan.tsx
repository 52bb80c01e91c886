import { useMutation } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { useUndo } from '../shared/undo'
import { keepForWatching } from '../terms/data'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Refusal } from '../ui/states'
import { shortDay } from '../ui/words'

interface WatchInThePlanProps {
  back: Schema['LookBackResponse']
  /** The class's next lesson. */
  next: string
}

/** The minutes it takes to see them all, kept in the next lesson by the term plan; what gives way is seen when the rest is planned again. */
export function WatchInThePlan({
  back: { classId, watchMinutes, keptMinutes, classVersion },
  next,
}: WatchInThePlanProps) {
  const keep = useMutation(keepForWatching)
  const { did } = useUndo()
  const day = shortDay(next)
  const isKept = keptMinutes >= watchMinutes
  const say = (minutes: number) => {
    if (keep.isPending) return
    const send = (kept: number, version: number) =>
      keep.mutateAsync({ classId, date: next, body: { minutes: kept || null, version } })
    send(minutes, classVersion).then(
      ({ version }) =>
        did({ what: `keeping ${minutes} min of ${day} for watching`, back: () => send(keptMinutes, version) }),
      () => undefined,
    )
  }
  useKeys((event) => {
    if (event.key !== 'w' || isKept) return false
    say(watchMinutes)
    return true
  })
  return (
    <>
      <p>
        {keptMinutes > 0 && `The plan keeps ${keptMinutes} min of ${day} for watching. `}
        {isKept ? (
          <button type="button" className="quiet-link" disabled={keep.isPending} onClick={() => say(0)}>
            Keep none
          </button>
        ) : (
          <button type="button" className="button" disabled={keep.isPending} onClick={() => say(watchMinutes)}>
            Keep {watchMinutes} min of {day} for it in the plan <Kbd>w</Kbd>
          </button>
        )}
      </p>
      {keep.error && <Refusal error={keep.error} />}
    </>
  )
}
