import type { Schema } from '../api/client'
import { DropdownMenu } from '../ui/DropdownMenu'
import { newId } from '../ui/new-id'
import { Refusal } from '../ui/states'
import { shortDay, together } from '../ui/words'
import { clockAt, type Arrangement } from './arranging'
import type { Lesson } from './data'
import type { useComingLesson } from './use-coming-lesson'

type Booked = Arrangement['beforeClass'][number]
type Missed = Schema['LookBackMissedItem']

/** Minutes in which one thing is shown to somebody who knows what is around it. */
const MINUTES = 10

const isOf = (booked: Booked, item: Missed) =>
  booked.postureId === item.postureId &&
  booked.side === item.side &&
  booked.from?.postureId === item.from?.postureId &&
  booked.from?.side === item.from?.side &&
  booked.studentIds.some((id) => item.away.some(({ studentId }) => studentId === id))

type Coming = ReturnType<typeof useComingLesson>

const awayStill = (item: Missed) => item.away.filter(({ shownSince }) => !shownSince)

/** What is done about it once somebody has decided: who comes before class, or the block in which it is introduced again. */
const decidedOn = (item: Missed, { arrangement }: Coming) => ({
  booked: arrangement?.beforeClass.filter((one) => isOf(one, item)) ?? [],
  again: arrangement?.edits.find((edit) => edit.kind === 'add' && edit.task.key === keyOfAgain(item)),
})

const keyOfAgain = ({ cohortId, postureId, side, from }: Missed) =>
  `introduce again ${cohortId} ${from ? `${from.postureId} ${from.side} ` : ''}${postureId} ${side}`

const mayIntroduceAgain = (item: Missed) => item.again && item.againMinutes !== null

/** Puts into the coming lesson what makes up for it: introduced again where a third was away, or else before class. */
const makeUps = ({ put }: Coming) => ({
  again: (item: Missed) => {
    const { cohortId, postureId, side, from, name } = item
    put(`${name} once more`, {
      kind: 'add',
      task: {
        key: keyOfAgain(item),
        kind: 'new',
        cohortIds: [cohortId],
        minutes: item.againMinutes!,
        what: name,
        because: `${item.absent} of ${item.of} were away when it was new.`,
        material: [...(from ? [from] : []), { postureId, side }],
      },
    })
  },
  before: (item: Missed, teacher: Missed['canShow'][number]) => {
    const { postureId, side, from } = item
    const students = awayStill(item).map(({ studentId }) => studentId)
    const of = { students, postureId, side, from, teacherId: teacher.id, minutes: MINUTES }
    put(`${item.name} before class with ${teacher.name}`, { kind: 'makesUp', id: newId(), ...of })
  },
})

/** Decides on the first that nobody has decided on, in the way that is offered first.
 * @returns Whether there was one. */
export function decideFirst(items: readonly Missed[], coming: Coming): boolean {
  if (!coming.arrangement) return false
  const open = items.find((item) => {
    const { booked, again } = decidedOn(item, coming)
    return awayStill(item).length > 0 && booked.length === 0 && !again && (mayIntroduceAgain(item) || item.canShow[0])
  })
  if (!open) return false
  if (mayIntroduceAgain(open)) makeUps(coming).again(open)
  else makeUps(coming).before(open, open.canShow[0]!)
  return true
}

/** Whoever missed something makes up for it in or before the coming class: a press, and taken back with another. */
export function MakeUp({ item, lesson, coming }: { item: Missed; lesson: Lesson; coming: Coming }) {
  const { arrangement, takeOut, busy, error } = coming
  if (!arrangement || awayStill(item).length === 0) return null
  const { booked, again } = decidedOn(item, coming)
  const day = shortDay(lesson.date)
  const takeBack = (id: string) =>
    arrangement.edits.filter((edit) => edit.kind === 'makesUp' && edit.id === id).forEach(takeOut)
  return (
    <div>
      {again && (
        <p className="text-pine">
          It is introduced again on {day}, {item.againMinutes} min.{' '}
          <button type="button" className="quiet-link" disabled={busy} onClick={() => takeOut(again)}>
            Take it back
          </button>
        </p>
      )}
      {booked.map((one) => (
        <p key={one.id} className="text-pine">
          {day}, {one.minutes} min before class with {one.teacher}: {together(one.students)}{' '}
          <button type="button" className="quiet-link" disabled={busy} onClick={() => takeBack(one.id)}>
            Take it back
          </button>
        </p>
      ))}
      {!again && mayIntroduceAgain(item) && (
        <button type="button" className="quiet-link" disabled={busy} onClick={() => makeUps(coming).again(item)}>
          Introduce it again on {day}, {item.againMinutes} min
        </button>
      )}
      {!mayIntroduceAgain(item) && booked.length === 0 && item.canShow.length > 0 && (
        <DropdownMenu
          className="quiet-link inline-flex! items-center gap-1"
          name={`Before class on ${day}, with …`}
          label={`${item.name} before class on ${day}, with …`}
          items={item.canShow.map((teacher) => ({
            name: teacher.name,
            act: () => makeUps(coming).before(item, teacher),
          }))}
        />
      )}
      {error && <Refusal error={error} />}
    </div>
  )
}

interface BeforeClassProps {
  booked: readonly Booked[]
  /** When the lesson begins. */
  start: string
  takeBack?: (id: string) => void
}

/** Who comes before class, and what for. */
export function BeforeClass({ booked, start, takeBack }: BeforeClassProps) {
  if (booked.length === 0) return null
  return (
    <section aria-label="Before class">
      <b>Before class</b>
      <ul>
        {booked.map((one) => (
          <li key={one.id}>
            {clockAt(start, -one.minutes)} {one.teacher} with {together(one.students)}: {one.what}.{' '}
            {takeBack && (
              <button type="button" className="quiet-link" onClick={() => takeBack(one.id)}>
                Take it back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
