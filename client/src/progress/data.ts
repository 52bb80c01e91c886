import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import { door } from '../shared/door'

export const progressQuery = (classId: string | undefined) =>
  queryOptions({
    queryKey: ['progress', classId],
    enabled: classId !== undefined,
    queryFn: () => answer(api.GET('/api/classes/{classId}/progress', { params: { path: { classId: classId! } } })),
  })

export const studentQuery = (id: string) =>
  queryOptions({
    queryKey: ['student', id],
    queryFn: () => answer(api.GET('/api/students/{id}', { params: { path: { id } } })),
  })

export const withdrawObservation = door({
  key: ['progress', 'withdraw'],
  send: ({ id }: { id: string }) => answer(api.POST('/api/observations/{id}/withdrawal', { params: { path: { id } } })),
  changes: ['student', 'progress', 'today', 'register'],
})
