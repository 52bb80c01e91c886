import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { answer, api } from '../../api/client'
import { touch } from '../../shared/queries'
import { waiting } from '../../shared/waiting'
import type { LessonEdit } from '../arranging'
import type { Lesson } from '../data'

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
    waiting.through(KIND, {
      send: ({ lesson, ...body }: Happening) =>
        answer(api.POST('/api/classes/{classId}/lessons/{date}/happenings', { params: { path: lesson }, body })),
      landed: () => touch(queries, ['arrangement', 'lesson', 'register']),
    })
  }, [queries])
}
