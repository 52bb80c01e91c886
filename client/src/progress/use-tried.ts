import { useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { lessonsQuery } from '../lessons/data'
import { useMarking } from '../lessons/use-marking'
import { useTrying } from '../lessons/use-trying'
import { useSignedIn } from '../shared/session'

/** What is corrected, and in whom. */
interface About {
  studentId: string
  student: string
  postureId: string
  side: Schema['Side']
  from: Schema['PostureSide'] | null
  /** Of a correction against a principle. */
  principleId?: string
  name: string
}

/** The lesson something is said of: a class's last one. */
function useLastLesson(classId: string | null | undefined) {
  const { today } = useSignedIn()
  const lessons = useQuery(lessonsQuery())
  const last = lessons.data?.filter((lesson) => lesson.classId === classId && lesson.date <= today).at(-1)
  return { held: last !== undefined, lesson: { classId: classId ?? '', date: last?.date ?? '' } }
}

/** Makes a habit one correction against its principle, or says how one is by now; nothing where no lesson was held yet. */
export function useAgainst(classId: string | null | undefined) {
  const { held, lesson } = useLastLesson(classId)
  const { observed } = useMarking(lesson)
  if (!held) return undefined
  return (
    of: Pick<About, 'studentId' | 'student' | 'postureId' | 'side'> & { principleId: string; principle: string },
    sign: 'fault' | 'better' | 'fine',
    weight: Schema['Weight'] | null,
  ) => {
    const says = `${of.student}, ${of.principle}: ${sign === 'fault' ? 'one correction' : sign === 'fine' ? 'kept' : sign}`
    const seen = {
      studentId: of.studentId,
      postureId: of.postureId,
      side: of.side,
      from: null,
      sign,
      stage: null,
      faultId: null,
      words: of.principle,
      weight,
      principleId: of.principleId,
    }
    observed([{ seen, says }], says)
  }
}

/** Says what was done about a correction in a class's last lesson; nothing where none was held yet. */
export function useTried(classId: string | null | undefined) {
  const { held, lesson } = useLastLesson(classId)
  const tryWay = useTrying(lesson)
  if (!held) return undefined
  return ({ student, name, ...about }: About, correction: Schema['CorrectionViewsCorrectionResponse']) =>
    (way: Schema['Way'], cause?: string) =>
      tryWay(
        { ...about, faultId: correction.faultId, words: correction.words, name: `${student}, ${name}` },
        way,
        true,
        cause ?? '',
      )
}
