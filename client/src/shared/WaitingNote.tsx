import { useEffect, useState } from 'react'
import { counted } from '../ui/words'
import type { Waiting } from './waiting'
import { waiting } from './waiting'

/** So long a mark is merely on its way, and nothing to worry about. In milliseconds. */
const ON_ITS_WAY = 1500

/** What has not reached the server yet; and everything it would not have, each with its reason, until it has been read. It stands at the foot of what is tapped, so that nothing moves under a finger. */
export function WaitingNote({ entries }: { entries: readonly Waiting[] }) {
  const pending = entries.filter((entry) => entry.refused === undefined)
  const oldest = pending[0]?.id
  const [late, setLate] = useState<string>()
  useEffect(() => {
    const timer = setTimeout(() => setLate(oldest), ON_ITS_WAY)
    return () => clearTimeout(timer)
  }, [oldest])
  const refused = entries.filter((entry) => entry.refused !== undefined)
  return (
    <div aria-live="polite" className="grid gap-2 bg-paper">
      {pending.length > 0 && late !== oldest && (
        <p className="px-5 py-2 text-soft">
          {counted(pending.length, 'mark')} on {pending.length === 1 ? 'its' : 'their'} way
        </p>
      )}
      {pending.length > 0 && late === oldest && (
        <p className="border-l-4 border-ochre-mark bg-floorboard px-3 py-2 font-semibold text-ochre">
          {pending.length === 1 ? '1 mark is' : `${pending.length} marks are`} waiting for the network.{' '}
          {pending.every((entry) => entry.kept)
            ? 'Kept on this device and sent as soon as the server answers.'
            : 'Not kept on this device yet: leave this page open until they are sent.'}
        </p>
      )}
      {refused.length > 0 && (
        <ul role="alert" className="grid gap-1 border-l-4 border-lacquer pl-3">
          {refused.map((entry) => (
            <li key={entry.id} className="flex flex-wrap items-baseline gap-x-3">
              <span>
                <b>{entry.says} was not taken.</b> {entry.refused}
              </span>
              <button type="button" className="quiet-link" onClick={() => void waiting.sendAgain(entry.id)}>
                Send it again
              </button>
              <button type="button" className="quiet-link" onClick={() => void waiting.forget(entry.id)}>
                I have read it
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
