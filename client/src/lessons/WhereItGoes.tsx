import { useMutation, useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { useUndo } from '../shared/undo'
import { changeWords } from '../terms/DraftBar'
import { announcePlan, planQuery, takeStep, type Plan } from '../terms/data'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Refusal } from '../ui/states'
import { shortDay } from '../ui/words'
import { howWords, keyOf } from './went'
import type { Lesson, RegisterItem } from './data'

interface WhereItGoesProps {
  lesson: Lesson
  termId: string
  notReached: { cohort: Schema['RegisterCohortRegister']; item: RegisterItem }[]
  /** The plan is the head's. */
  may: boolean
}

/** What was not reached and where it goes: the term is planned again from here, and its moves are announced or not. */
export function WhereItGoes({ lesson, termId, notReached, may }: WhereItGoesProps) {
  const path = { termId, classId: lesson.classId }
  const plan = useQuery(planQuery(path, {})).data
  const step = useMutation(takeStep)
  const announce = useMutation(announcePlan)
  const { did, clear } = useUndo()
  const busy = step.isPending || announce.isPending
  const draft = plan?.draft?.id
  const mayPlan = may && !busy && plan?.outOfDate === true
  const mayAnnounce = may && !busy && draft !== undefined && plan?.outOfDate === false
  const planAgain = () =>
    step.mutate(
      { path, step: { kind: 'plan' }, draft },
      {
        onSuccess: (after) =>
          did({
            what: 'planning the rest again',
            back: () => step.mutateAsync({ path, step: { kind: 'undo' }, draft: after.draft?.id }),
          }),
      },
    )
  // What everybody has seen is not taken back with a key.
  const announceIt = () => draft && announce.mutate({ path, draft }, { onSuccess: clear })
  useKeys((event) => {
    if (event.key === 'p' && mayPlan) planAgain()
    else if (event.key === 'a' && mayAnnounce) announceIt()
    else return false
    return true
  })
  if (!plan) return null
  return (
    <section>
      <h2 className="text-lg">Not reached</h2>
      {notReached.length === 0 ? (
        <p className="text-soft">Everything that was said to be taught was.</p>
      ) : (
        <ul>
          {notReached.map(({ cohort, item }) => (
            <li key={keyOf(cohort.cohortId, item)}>
              <b>{item.name}</b>{' '}
              <span className="text-soft">
                {howWords[item.how]}, {cohort.name}: {nextTime(plan, cohort.cohortId, item, lesson.date)}
              </span>
            </li>
          ))}
        </ul>
      )}
      {(step.error ?? announce.error) && <Refusal error={(step.error ?? announce.error)!} />}
      {plan.draft && !plan.outOfDate && (
        <p className="mt-1">
          <b>{changeWords(plan.changes)}.</b>{' '}
          <span className="text-soft">Nobody else sees it until it is announced.</span>
        </p>
      )}
      {plan.draft && !plan.outOfDate && (
        <ul>
          {plan.changes.flatMap((change) =>
            change.moves.map((move) => (
              <li key={change.cohortId + move.name + move.from + move.to}>
                {change.name}: {move.name} {move.from && `from ${shortDay(move.from)} `}
                {move.to ? `to ${shortDay(move.to)}` : 'leaves the term'}
              </li>
            )),
          )}
        </ul>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {mayPlan && (
          <button type="button" className="button" disabled={busy} onClick={planAgain}>
            Plan the rest again <Kbd>p</Kbd>
          </button>
        )}
        {mayAnnounce && (
          <button type="button" className="button button-primary" disabled={busy} onClick={announceIt}>
            Announce it <Kbd>a</Kbd>
          </button>
        )}
        {step.isPending && <span className="text-soft">Planning…</span>}
      </div>
    </section>
  )
}

/** The next lesson a plan has it in. */
function nextTime(plan: Plan, cohortId: string, item: RegisterItem, after: string): string {
  const chip = plan.rows
    .find((row) => row.cohortId === cohortId)
    ?.chips.find(
      (one) =>
        one.postureId === item.postureId &&
        one.side === item.side &&
        one.from?.postureId === item.from?.postureId &&
        one.from?.side === item.from?.side,
    )
  const dates = chip ? [chip.date, ...chip.reviews.map((review) => review.date)] : []
  const next = dates.filter((date) => date > after).toSorted()[0]
  return next ? `next on ${shortDay(next)}` : 'in no coming lesson yet'
}
