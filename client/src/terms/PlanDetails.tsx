import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { SmallFigure } from '../shared/SmallFigure'
import { Choice } from '../ui/Field'
import { Kbd } from '../ui/Kbd'
import { Panel } from '../ui/Panel'
import { Ribbon } from '../ui/Ribbon'
import { Option } from '../ui/Select'
import { dayMonth, longDate } from '../ui/words'
import { number } from '../ui/writing'

/** What a unit of the plan is, where it is no new posture. */
export const kindWords: Record<Schema['PlanChip']['kind'], string> = {
  posture: '',
  drill: 'drill, ',
  link: 'link, ',
  layer: 'refined, ',
}

/** How a lesson keeps what is known. */
export const keptWords = (kept: Schema['PlanRefreshed']) =>
  kept.runThrough ? 'once through' : kept.changed ? 'new way' : 'again'

/** Why something is where it is, what it takes, and when it comes back. */
export function ChipPanel({
  cohort,
  chip,
  close,
  lessons,
  move,
  fix,
}: {
  cohort: Schema['PlanRow']
  chip: Schema['PlanChip']
  close: () => void
  /** Where it could go. */
  lessons: Schema['PlanColumn'][]
  move?: (date: string) => void
  fix?: () => void
}) {
  return (
    <Panel title={chip.name} close={close}>
      <p className="flex items-center gap-2.5">
        <Ribbon colour={cohort.colour} half={cohort.half} size={24} />
        {cohort.name} · {kindWords[chip.kind]}
        {chip.taught ? 'taught on' : 'new on'} {longDate(chip.date)}
      </p>
      <section>
        <h3>Why here</h3>
        <p>{chip.because}</p>
        {chip.was && <p className="mt-1">Announced for {longDate(chip.was)}.</p>}
        {chip.sharedWith.length > 0 && <p className="mt-1">Led together with {chip.sharedWith.join(' and ')}.</p>}
        {fix && (
          <button type="button" className="button mt-2" onClick={fix}>
            {chip.pinned ? 'Let it move' : 'Keep on this date'} <Kbd>p</Kbd>
          </button>
        )}
      </section>
      {move && (
        <Choice label="Move it to" value="" placeholder="another lesson" onChange={move}>
          {lessons
            .filter((lesson) => lesson.date !== chip.date)
            .map((lesson) => (
              <Option key={lesson.date} value={lesson.date}>
                Lesson {lesson.number}, {longDate(lesson.date)}
              </Option>
            ))}
        </Choice>
      )}
      <SmallFigure
        postureId={chip.postureId}
        side={chip.side}
        mode={cohort.mode}
        sash={cohort.colour}
        label="How it ends"
        className="mx-auto h-28"
      />
      <section>
        <h3>What it takes</h3>
        <p>{chip.effort}</p>
      </section>
      <section>
        <h3>Comes back</h3>
        <ul>
          {chip.reviews.map((review) => (
            <li key={review.date} className={review.late ? 'text-ochre' : ''}>
              {longDate(review.date)}{' '}
              <span className="text-soft">
                {review.late
                  ? `due after ${review.weeksAfter} weeks, late`
                  : review.weeksAfter === 1
                    ? 'after a week'
                    : `due after ${review.weeksAfter} weeks`}
              </span>
            </li>
          ))}
          {chip.reviews.length === 0 && (
            <li className="text-soft">Not again this term: its reviews fall into the next.</li>
          )}
        </ul>
      </section>
      <Link to={`/forms?posture=${chip.postureId}&side=${chip.side}`} className="quiet-link">
        Open the posture
      </Link>
    </Panel>
  )
}

/** What no lesson had room for, by how many minutes, and why. */
export function LeftOverList({
  id,
  left,
  fit,
}: {
  id: string
  fit?: () => void
  left: { row: Schema['PlanRow']; item: Schema['PlanLeft'] }[]
}) {
  if (left.length === 0) return null
  return (
    <section id={id} className="max-w-4xl px-5 py-5">
      <h2 className="text-lg">What does not fit</h2>
      {fit && (
        <button type="button" className="button mt-1.5" onClick={fit}>
          What would make it fit?
        </button>
      )}
      <ul className="mt-2 grid gap-2">
        {together(left).map(({ row, items }) => {
          const [item, minutes] = [items[0]!, items.reduce((sum, one) => sum + one.minutes, 0)]
          return (
            <li key={row.cohortId + item.name} className="border-l-4 border-ochre-mark pl-3">
              <b>
                {row.name}:{' '}
                {items.length > FEW
                  ? `${item.name} to ${items.at(-1)!.name}, ${items.length} things`
                  : items.map((one) => one.name).join('; ')}
              </b>
              {minutes > 0 && <>, {number(Math.round(minutes * 10) / 10)} min</>}. {item.because}
              {row.target && minutes > 0 && <span className="text-soft"> Its target is {dayMonth(row.target)}.</span>}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** More than so many left over for the same reason are named by the first and the last. */
const FEW = 3

/** What follows in one cohort for the same reason is said once. */
function together(left: { row: Schema['PlanRow']; item: Schema['PlanLeft'] }[]) {
  const groups: { row: Schema['PlanRow']; items: Schema['PlanLeft'][] }[] = []
  for (const { row, item } of left) {
    const last = groups.at(-1)
    if (last?.row === row && last.items[0]!.because === item.because) last.items.push(item)
    else groups.push({ row, items: [item] })
  }
  return groups
}

/** What could not stay where the head put it, and why. */
export function RefusedList({ refused }: { refused: { row: Schema['PlanRow']; item: Schema['PlanRefused'] }[] }) {
  if (refused.length === 0) return null
  return (
    <ul role="alert" className="mx-5 mb-3 border-l-4 border-lacquer pl-3">
      {refused.map(({ row, item }) => (
        <li key={row.cohortId + item.name}>
          <b>
            {item.name} of {row.name} cannot be on {dayMonth(item.date)}.
          </b>{' '}
          {item.because}
        </li>
      ))}
    </ul>
  )
}
