import type { Schema } from '../api/client'
import { Refusal } from '../ui/states'
import { shortDay } from '../ui/words'
import type { Lesson } from './data'
import { useComingLesson } from './use-coming-lesson'
import { IN_A_BLOCK, minutesFor, toWatch } from './WatchTonight'

interface LooksNextProps {
  /** The coming one. */
  lesson: Lesson
  students: Schema['LookBackResponse']['overlooked']
}

/** Who looks at them in the coming lesson; and where nobody does, the minutes that would, put into it with a press. */
export function LooksNext({ lesson, students }: LooksNextProps) {
  const { arrangement, put, busy, error } = useComingLesson(lesson)
  if (!arrangement) return null
  const { cohorts, looks, unseen, teachers } = arrangement
  const day = shortDay(lesson.date)
  return (
    <>
      <ul className="text-pine">
        {students.flatMap(({ studentId }) =>
          looks
            .filter((look) => look.studentId === studentId)
            .map((look) => (
              <li key={studentId}>
                {look.student} on {day}: {teachers.find(({ id }) => id === look.teacherId)?.name.split(' ')[0]}, in{' '}
                {look.posture}.
              </li>
            )),
        )}
      </ul>
      {cohorts.map((cohort) => {
        const due = unseen.filter((look) => look.cohortId === cohort.id).slice(0, IN_A_BLOCK)
        return (
          due.length > 0 && (
            <p key={cohort.id}>
              Nobody looks at {due.map((look) => look.student).join(', ')} on {day}.{' '}
              <button
                type="button"
                className="quiet-link"
                disabled={busy}
                onClick={() => put(`${cohort.name} is watched on ${day}`, toWatch(cohort.id, due))}
              >
                Watch {cohort.name} for {minutesFor(due)} min
              </button>
            </p>
          )
        )
      })}
      {error && <Refusal error={error} />}
    </>
  )
}
