import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { newId } from '../ui/new-id'

type NewMark = Pick<Schema['RegisterMark'], 'studentId' | 'postureId' | 'side' | 'sign'> &
  Partial<Schema['RegisterMark']>

/** The facts that can be added to a lesson's register. Each names itself, so that sending it again adds nothing. */
export function useRegister(lesson: { classId: string; date: string }) {
  const queries = useQueryClient()
  const [marks, setMarks] = useState<string[]>([])
  const path = { params: { path: lesson } }
  const onSuccess = async () => {
    await queries.invalidateQueries({ queryKey: ['register', lesson.classId, lesson.date] })
    for (const key of ['progress', 'student', 'today', 'lessons', 'plan'])
      void queries.invalidateQueries({ queryKey: [key] })
  }
  const attend = useMutation({
    mutationFn: (present: { studentId: string; present: boolean }[]) =>
      answer(
        api.POST('/api/classes/{classId}/lessons/{date}/attendance', {
          ...path,
          body: { marks: present.map((one) => ({ ...one, id: newId() })) },
        }),
      ),
    onSuccess,
  })
  const taught = useMutation({
    mutationFn: (items: Schema['TaughtItem'][]) =>
      answer(
        api.POST('/api/classes/{classId}/lessons/{date}/taught', { ...path, body: { id: newId(), taught: items } }),
      ),
    onSuccess,
  })
  const observe = useMutation({
    mutationFn: async (mark: NewMark) => {
      const whole = { stage: null, faultId: null, words: null, weight: null, ...mark, id: newId() }
      await answer(
        api.POST('/api/classes/{classId}/lessons/{date}/observations', { ...path, body: { marks: [whole] } }),
      )
      setMarks((before) => [...before, whole.id])
    },
    onSuccess,
  })
  const withdraw = useMutation({
    mutationFn: async (id: string) => {
      await answer(api.POST('/api/observations/{id}/withdrawal', { params: { path: { id } } }))
      setMarks((before) => before.filter((one) => one !== id))
    },
    onSuccess,
  })
  return { attend, taught, observe, withdraw, lastMark: marks.at(-1) }
}
