import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { answer, api } from '../../api/client'
import { touch } from '../../shared/queries'
import { waiting } from '../../shared/waiting'
import type { Arrangement, LessonEdit } from '../arranging'
import { arrangementQuery, type Lesson } from '../data'

/** Something that happens while a lesson is held, on its way to the server. */
export interface Happening {
  lesson: Lesson
  id: string
  edits: LessonEdit[]
  /** Of the arrangement that was shown when it happened. */
  version: number | null
}

export const KIND = 'happening'

/** What happens goes on being sent wherever somebody is. */
export function useSendingHappenings() {
  const queries = useQueryClient()
  useEffect(() => {
    const answers = new Map<string, { lesson: Lesson; arrangement: Arrangement }>()
    waiting.through(KIND, {
      send: async ({ lesson, ...body }: Happening) => {
        const call = api.POST('/api/classes/{classId}/lessons/{date}/happenings', { params: { path: lesson }, body })
        answers.set(`${lesson.classId} ${lesson.date}`, { lesson, arrangement: await answer(call) })
      },
      // The last answer knows of all that was said before it: nobody in the hall waits to be told the same once more.
      landed: async () => {
        for (const { lesson, arrangement } of answers.values()) {
          const { queryKey } = arrangementQuery(lesson)
          await queries.cancelQueries({ queryKey, exact: true })
          queries.setQueryData(queryKey, arrangement)
        }
        answers.clear()
        void touch(queries, ['arrangement', 'lesson', 'register'])
      },
    })
  }, [queries])
}
