import { useMutation, useQuery } from '@tanstack/react-query'
import { useUndo } from '../shared/undo'
import type { LessonEdit } from './arranging'
import { arrangementQuery, saveArrangement, type Lesson } from './data'

/** The coming lesson as it is arranged, and what is put into it from another page: each with its undo; what is refused is in the error. Null after the last one. */
export function useComingLesson(lesson: Lesson | null) {
  const arrangement = useQuery({ ...arrangementQuery(lesson ?? { classId: '', date: '' }), enabled: !!lesson }).data
  const save = useMutation(saveArrangement)
  const { did } = useUndo()
  const put = (what: string, edit: LessonEdit) => {
    if (!lesson || !arrangement || save.isPending) return
    save.mutateAsync({ lesson, edits: [...arrangement.edits, edit], version: arrangement.version }).then(
      (after) =>
        did({
          what,
          back: () => save.mutateAsync({ lesson, edits: after.edits.slice(0, -1), version: after.version }),
        }),
      () => undefined,
    )
  }
  const takeOut = (edit: LessonEdit) => {
    if (lesson && arrangement && !save.isPending)
      save.mutate({ lesson, edits: arrangement.edits.filter((one) => one !== edit), version: arrangement.version })
  }
  return { arrangement, put, takeOut, busy: save.isPending, error: save.error }
}
