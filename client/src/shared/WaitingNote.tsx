import type { Waiting } from './waiting'
import { waiting } from './waiting'

/** How much has not reached the server yet; and everything it would not have, each with its reason, until it has been read. */
export function WaitingNote({ entries }: { entries: readonly Waiting[] }) {
  const pending = entries.filter((entry) => entry.refused === undefined)
  const refused = entries.filter((entry) => entry.refused !== undefined)
  return (
    <div aria-live="polite" className="grid gap-2">
      {pending.length > 0 && (
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
