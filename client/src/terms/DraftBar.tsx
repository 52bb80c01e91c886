import { useState } from 'react'
import type { Schema } from '../api/client'
import { AlertDialog } from '../ui/AlertDialog'
import { Kbd } from '../ui/Kbd'
import { ToggleGroup } from '../ui/ToggleGroup'
import { mayUndo, type Plan, type PlanShown } from './data'

interface DraftBarProps {
  plan: Plan
  shown: PlanShown
  busy: boolean
  /** What is shown is still to come. */
  waiting: boolean
  show: (shown: PlanShown) => void
  undo: () => void
  redo: () => void
  discard: () => void
  take: (remedy: string) => void
}

/** Whether the plan is what people know or what the head is working on, and the way back from it. */
export function DraftBar({ plan, shown, busy, waiting, show, undo, redo, discard, take }: DraftBarProps) {
  const [asking, setAsking] = useState(false)
  if (shown.remedy)
    return (
      <Bar>
        <span>
          <b>
            {shown.remedy.says}
            {waiting ? ': planning it…' : ': this is the plan it leads to.'}
          </b>{' '}
          {!waiting && `${changeWords(plan.changes)}. Taking it changes the school, and drafts this plan.`}
        </span>
        <span className="ml-auto flex gap-2">
          <button type="button" className="button" onClick={() => show({})}>
            Cancel
          </button>
          <button
            type="button"
            className="button button-primary"
            disabled={busy || waiting}
            onClick={() => take(shown.remedy!.id)}
          >
            Take it
          </button>
        </span>
      </Bar>
    )
  if (shown.version !== undefined)
    return (
      <Bar>
        <b>Plan {shown.version}, as it was announced.</b> {changeWords(plan.changes)} against plan {plan.announced}
        {shown.beside === undefined && ', which is in force'}.
        <button type="button" className="button" onClick={() => show({})}>
          Back to now
        </button>
      </Bar>
    )
  if (!plan.draft && !plan.redo && !shown.announced) return null
  return (
    <Bar>
      {plan.announced !== null && (plan.draft || shown.announced) && (
        <ToggleGroup
          label="Which plan"
          value={shown.announced ? 'announced' : 'draft'}
          options={[
            { value: 'draft', name: 'Draft' },
            { value: 'announced', name: `Announced, plan ${plan.announced}` },
          ]}
          onChange={(which) => show(which === 'announced' ? { announced: true } : {})}
        />
      )}
      {plan.draft && (
        <span>
          <b>{plan.draft.cause}.</b>{' '}
          {plan.announced === null
            ? 'Not announced yet: only you see it.'
            : `${changeWords(plan.changes)}; only you see it until you announce it.`}
        </span>
      )}
      {!plan.draft && plan.redo && !shown.announced && (
        <span>
          <b>Taken back: {plan.redo}.</b> This is what was announced.
        </span>
      )}
      {!shown.announced && (
        <span className="ml-auto flex gap-2">
          {mayUndo(plan) && (
            <button
              type="button"
              className="button"
              disabled={busy}
              title={`Takes back: ${plan.draft!.cause}`}
              onClick={undo}
            >
              Undo <Kbd>z</Kbd>
            </button>
          )}
          {plan.redo && (
            <button type="button" className="button" disabled={busy} title={`Does again: ${plan.redo}`} onClick={redo}>
              Redo <Kbd>Z</Kbd>
            </button>
          )}
          {plan.draft && (
            <>
              {(plan.draft.steps > 1 || !mayUndo(plan)) && (
                <button type="button" className="button" disabled={busy} onClick={() => setAsking(true)}>
                  Drop the draft
                </button>
              )}
              <AlertDialog
                open={asking}
                title="Drop the draft?"
                act="Drop it"
                leave="Keep it"
                onAct={() => {
                  setAsking(false)
                  discard()
                }}
                onLeave={() => setAsking(false)}
              >
                <p>
                  {plan.draft.steps === 1 ? 'The one step' : `All ${plan.draft.steps} steps`} that led to it would be
                  gone. {plan.announced === null ? 'The term is without a plan then.' : 'What is announced stays.'}
                </p>
              </AlertDialog>
            </>
          )}
        </span>
      )}
    </Bar>
  )
}

function Bar({ children }: { children: React.ReactNode }) {
  return (
    <div className="mx-5 mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-ochre-mark bg-paper px-3 py-2">
      {children}
    </div>
  )
}

export const changeWords = (changes: Schema['PlanChange'][]) => {
  const moves = changes.reduce((sum, change) => sum + change.moves.length, 0)
  return moves === 0 ? 'Nothing moves' : moves === 1 ? '1 thing moves' : `${moves} things move`
}
