import { useMutation, useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { useUndo } from '../shared/undo'
import { Refusal } from '../ui/states'
import { shortDay } from '../ui/words'
import { arrangementQuery, saveArrangement, type Lesson } from './data'
import { IN_A_BLOCK, minutesFor, toWatch } from './WatchTonight'

interface LooksNextProps {
  /** The coming one. */
  lesson: Lesson
  students: Schema['LookBackResponse']['overlooked']
}

/** Who looks at them in the coming lesson; and where nobody does, the minutes that would, put into it with a press. */
export function LooksNext({ lesson, students }: LooksNextProps) {
  const arrangement = useQuery(arrangementQuery(lesson)).data
  const save = useMutation(saveArrangement)
  const { did } = useUndo()
  if (!arrangement) return null
  const { cohorts, looks, unseen, teachers } = arrangement
  const day = shortDay(lesson.date)
  const keep = (edits: typeof arrangement.edits, version: number | null) => save.mutateAsync({ lesson, edits, version })
  const watch = (cohort: (typeof cohorts)[number], due: typeof unseen) => {
    if (save.isPending) return
    // What is refused is said below.
    keep([...arrangement.edits, toWatch(cohort.id, due)], arrangement.version).then(
      (after) =>
        did({
          what: `${cohort.name} is watched on ${day}`,
          back: () => keep(after.edits.slice(0, -1), after.version),
        }),
      () => undefined,
    )
  }
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
              <button type="button" className="quiet-link" disabled={save.isPending} onClick={() => watch(cohort, due)}>
                Watch {cohort.name} for {minutesFor(due)} min
              </button>
            </p>
          )
        )
      })}
      {save.error && <Refusal error={save.error} />}
    </>
  )
}
