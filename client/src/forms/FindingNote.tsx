import { useState } from 'react'
import type { Schema } from '../api/client'
import type { FormText, Position } from './data'

interface FindingNoteProps {
  finding: Schema['Finding']
  text: FormText
  editable: boolean
  edit: (part: Partial<Position>, what: string) => void
  change: (what: string, wanted: FormText) => void
}

const border = {
  impossible: 'border-lacquer',
  error: 'border-ochre-mark',
  caution: 'border-ochre-mark',
  note: 'border-line',
} as const
const word = { impossible: 'Impossible', error: 'Disagrees', caution: 'Caution', note: 'Note' } as const

/** One disagreement: both sides of it, what would settle it, and the school's way of keeping it. */
export function FindingNote({ finding, text, editable, edit, change }: FindingNoteProps) {
  const [reasoning, setReasoning] = useState(false)
  const [reason, setReason] = useState('')
  const sameAs = (one: Schema['Accepted']) =>
    one.rule === finding.rule && one.positionId === finding.positionId && one.count === finding.count
  const isKept = finding.acceptedBecause !== null
  return (
    <div
      role="note"
      className={`mx-5 mb-2 border-l-4 pl-3 ${isKept ? 'border-line text-soft' : border[finding.severity]}`}
    >
      <b>{isKept ? 'Kept as our way' : word[finding.severity]}</b>
      {finding.count !== null && (
        <span className="text-soft"> {finding.count === 0 ? 'on the way in' : `at count ${finding.count}`}</span>
      )}
      . {finding.message}
      {isKept && <> “{finding.acceptedBecause}”</>}
      {editable && (
        <span className="mt-0.5 flex flex-wrap gap-x-4 gap-y-1">
          {!isKept &&
            finding.mends.map((mend) => (
              <button
                key={mend.label}
                type="button"
                className="quiet-link text-left"
                onClick={() =>
                  edit(
                    {
                      ...(mend.turn !== null && { turn: mend.turn }),
                      ...(mend.facing !== null && { facing: mend.facing }),
                      ...(mend.side !== null && { side: mend.side }),
                      ...(mend.wayIn !== null && { wayIn: mend.wayIn }),
                    },
                    'a mend',
                  )
                }
              >
                {mend.label}
              </button>
            ))}
          {isKept ? (
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                change('keeping our way', { ...text, accepted: text.accepted.filter((one) => !sameAs(one)) })
              }
            >
              Check it again
            </button>
          ) : reasoning ? (
            <form
              className="flex flex-1 gap-2"
              onSubmit={(event) => {
                event.preventDefault()
                if (reason.trim())
                  change('keeping it as our way', {
                    ...text,
                    accepted: [
                      ...text.accepted,
                      {
                        rule: finding.rule,
                        positionId: finding.positionId,
                        count: finding.count,
                        reason: reason.trim(),
                      },
                    ],
                  })
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
            finding.severity !== 'note' && (
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
