import type { Schema } from '../api/client'
import { DropdownMenu } from '../ui/DropdownMenu'
import { newId } from '../ui/new-id'
import { Refusal } from '../ui/states'
import { shortDay, together } from '../ui/words'
import { clockAt, type Arrangement } from './arranging'
import type { Lesson } from './data'
import { useComingLesson } from './use-coming-lesson'

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

/** Whoever missed something makes up for it before the coming class: with whom is a press, and taken back with another. */
export function MakeUpBeforeClass({ item, lesson }: { item: Missed; lesson: Lesson }) {
  const { arrangement, put, takeOut, busy, error } = useComingLesson(lesson)
  if (!arrangement) return null
  const book = (teacher: Missed['canShow'][number]) => {
    const students = item.away.filter(({ shownSince }) => !shownSince).map(({ studentId }) => studentId)
    const { postureId, side, from } = item
    const of = { students, postureId, side, from, teacherId: teacher.id, minutes: MINUTES }
    put(`${item.name} before class with ${teacher.name}`, { kind: 'makesUp', id: newId(), ...of })
  }
  const takeBack = (id: string) =>
    arrangement.edits.filter((edit) => edit.kind === 'makesUp' && edit.id === id).forEach(takeOut)
  const booked = arrangement.beforeClass.filter((one) => isOf(one, item))
  return (
    <div>
      {booked.map((one) => (
        <p key={one.id} className="text-pine">
          {shortDay(lesson.date)}, {one.minutes} min before class with {one.teacher}: {together(one.students)}{' '}
          <button type="button" className="quiet-link" disabled={busy} onClick={() => takeBack(one.id)}>
            Take it back
          </button>
        </p>
      ))}
      {booked.length === 0 && item.canShow.length > 0 && (
        <DropdownMenu
          className="quiet-link inline-flex! items-center gap-1"
          name={`Before class on ${shortDay(lesson.date)}, with …`}
          label={`${item.name} before class on ${shortDay(lesson.date)}, with …`}
          items={item.canShow.map((teacher) => ({ name: teacher.name, act: () => book(teacher) }))}
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
