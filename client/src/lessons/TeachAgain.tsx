import { useMutation, useQuery } from '@tanstack/react-query'
import { useUndo } from '../shared/undo'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Refusal } from '../ui/states'
import { shortDay } from '../ui/words'
import { editWords, type Arrangement, type LessonEdit } from './arranging'
import { ManyShare } from './ArrangingByHand'
import { arrangementQuery, reTeachQuery, saveArrangement, type Lesson } from './data'

/** What many share, as a block of the coming lesson: put into it with a press, and taken out again with the undo. */
export function TeachAgain({ lesson }: { lesson: Lesson }) {
  const arrangement = useQuery(arrangementQuery(lesson)).data
  const offers = useQuery(reTeachQuery(lesson, arrangement?.version ?? null, arrangement !== undefined)).data
  const save = useMutation(saveArrangement)
  const { did } = useUndo()
  const keep = (to: Arrangement, edits: LessonEdit[]) => save.mutateAsync({ lesson, edits, version: to.version })
  const edit = (...more: LessonEdit[]) => {
    if (!arrangement || save.isPending) return
    // What is refused is said below.
    keep(arrangement, [...arrangement.edits, ...more]).then(
      (after) => did({ what: editWords(more[0]!, after), back: () => keep(after, after.edits.slice(0, -more.length)) }),
      () => undefined,
    )
  }
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
        arranging={{ may: true, busy: save.isPending, edit }}
        title={
          <>
            Offered <Kbd>t</Kbd>
          </>
        }
      />
      {save.error && <Refusal error={save.error} />}
    </section>
  )
}
