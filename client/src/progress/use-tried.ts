import { useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { lessonsQuery } from '../lessons/data'
import { useTrying } from '../lessons/use-trying'
import { useSignedIn } from '../shared/session'

/** What is corrected, and in whom. */
interface About {
  studentId: string
  student: string
  postureId: string
  side: Schema['Side']
  from: Schema['PostureSide'] | null
  name: string
}

/** Says what was done about a correction in a class's last lesson; nothing where none was held yet. */
export function useTried(classId: string | null | undefined) {
  const { today } = useSignedIn()
  const lessons = useQuery(lessonsQuery())
  const last = lessons.data?.filter((lesson) => lesson.classId === classId && lesson.date <= today).at(-1)
  const tryWay = useTrying({ classId: classId ?? '', date: last?.date ?? '' })
  if (!last) return undefined
  return ({ student, name, ...about }: About, correction: Schema['CorrectionViewsCorrectionResponse']) =>
    (way: Schema['Way'], cause?: string) =>
      tryWay(
        { ...about, faultId: correction.faultId, words: correction.words, name: `${student}, ${name}` },
        way,
        true,
        cause ?? '',
      )
}
