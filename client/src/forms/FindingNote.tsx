import { useState } from 'react'
import type { Schema } from '../api/client'

interface FindingNoteProps {
  severity: Schema['Severity']
  /** Where in the posture it is, after the first word: "at count 2". */
  where: string | null
  message: string
  mends: { label: string; take: () => void }[]
  /** The school's reason when it keeps this as its way. */
  kept: string | null
  /** Whoever looks at it may change it. */
  editable: boolean
  keep: (reason: string) => void
  checkAgain: () => void
}

const border = {
  impossible: 'border-lacquer',
  error: 'border-ochre-mark',
  caution: 'border-ochre-mark',
  note: 'border-line',
} as const
const word = { impossible: 'Impossible', error: 'Disagrees', caution: 'Caution', note: 'Note' } as const

/** One disagreement, of a form or of a posture by itself: what would settle it, and the school's way of keeping it. */
export function FindingNote({ severity, where, message, mends, kept, editable, keep, checkAgain }: FindingNoteProps) {
  const [reasoning, setReasoning] = useState(false)
  const [reason, setReason] = useState('')
  const isKept = kept !== null
  return (
    <div role="note" className={`border-l-4 pl-3 ${isKept ? 'border-line text-soft' : border[severity]}`}>
      <b>{isKept ? 'Kept as our way' : word[severity]}</b>
      {where && <span className="text-soft"> {where}</span>}. {message}
      {isKept && <> “{kept}”</>}
      {editable && (
        <span className="mt-0.5 flex flex-wrap gap-x-4 gap-y-1">
          {!isKept &&
            mends.map((mend) => (
              <button key={mend.label} type="button" className="quiet-link text-left" onClick={mend.take}>
                {mend.label}
              </button>
            ))}
          {isKept ? (
            <button type="button" className="quiet-link" onClick={checkAgain}>
              Check it again
            </button>
          ) : reasoning ? (
            <form
              className="flex flex-1 gap-2"
              onSubmit={(event) => {
                event.preventDefault()
                if (reason.trim()) keep(reason.trim())
              }}
            >
              <input
                autoFocus
                className="field flex-1"
                aria-label="Why this is the school’s way"
                placeholder="Why this is the school’s way"
                maxLength={400}
                value={reason}
                onChange={(event) => setReason(event.target.value)}
              />
              <button type="submit" className="button" disabled={!reason.trim()}>
                Keep it
              </button>
            </form>
          ) : (
            severity !== 'note' && (
              <button type="button" className="quiet-link" onClick={() => setReasoning(true)}>
                Keep it as our way
              </button>
            )
          )}
        </span>
      )}
    </div>
  )
}
