import { useQuery } from '@tanstack/react-query'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Refusal } from '../ui/states'
import { shortDay } from '../ui/words'
import { editWords, type LessonEdit } from './arranging'
import { ManyShare } from './ArrangingByHand'
import { reTeachQuery, type Lesson } from './data'
import { useComingLesson } from './use-coming-lesson'

/** What many share, as a block of the coming lesson: put into it with a press, and taken out again with the undo. */
export function TeachAgain({ lesson }: { lesson: Lesson }) {
  const { arrangement, put, busy, error } = useComingLesson(lesson)
  const offers = useQuery(reTeachQuery(lesson, arrangement?.version ?? null, arrangement !== undefined)).data
  const edit = (added: LessonEdit) => arrangement && put(editWords(added, arrangement), added)
  useKeys((event) => {
    if (event.key !== 't' || !offers?.[0]) return false
    edit({ kind: 'add', task: offers[0].task })
    return true
  })
  if (!arrangement) return null
  const again = arrangement.edits.flatMap((one) =>
    one.kind === 'add' && one.task.kind === 'reTeach' ? [one.task] : [],
  )
  if (again.length === 0 && !offers?.length) return null
  return (
    <section>
      <h2 className="text-lg">To teach again on {shortDay(lesson.date)}</h2>
      {again.map((task) => (
        <p key={task.key} className="text-pine">
          {task.what}: it is in the lesson, {task.minutes} min.
        </p>
      ))}
      <ManyShare
        lesson={lesson}
        arrangement={arrangement}
        arranging={{ may: true, busy, edit }}
        title={
          <>
            Offered <Kbd>t</Kbd>
          </>
        }
      />
      {error && <Refusal error={error} />}
    </section>
  )
}
