import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { door } from '../shared/door'

/** Two teachers work on one class: each sees before long what the other has done. Milliseconds. */
const LOOKED_AGAIN = 10_000

/** @param on An earlier day, to see how it was then; until it is there, what was shown before stays. */
export const progressQuery = (classId: string | undefined, on?: string) =>
  queryOptions({
    queryKey: ['progress', classId, on],
    enabled: classId !== undefined,
    queryFn: () =>
      answer(api.GET('/api/classes/{classId}/progress', { params: { path: { classId: classId! }, query: { on } } })),
    placeholderData: (before, query) => (query?.queryKey[1] === classId ? before : undefined),
  })

export const studentQuery = (id: string) =>
  queryOptions({
    queryKey: ['student', id],
    queryFn: () => answer(api.GET('/api/students/{id}', { params: { path: { id } } })),
  })

export const correctionsQuery = (classId: string | undefined) =>
  queryOptions({
    queryKey: ['corrections', classId],
    enabled: classId !== undefined,
    queryFn: () => answer(api.GET('/api/classes/{classId}/corrections', { params: { path: { classId: classId! } } })),
    refetchInterval: LOOKED_AGAIN,
  })

/** Who of a class is ready for the next sash, and what the others lack. */
export const nextSashQuery = (classId: string | undefined) =>
  queryOptions({
    queryKey: ['next-sash', classId],
    enabled: classId !== undefined,
    queryFn: () => answer(api.GET('/api/classes/{classId}/readiness', { params: { path: { classId: classId! } } })),
    refetchInterval: LOOKED_AGAIN,
  })

/** Faults over the years, whoever had them. */
export const patternsQuery = () =>
  queryOptions({ queryKey: ['patterns'], queryFn: () => answer(api.GET('/api/patterns')) })

/** What the students of a class practise at home. */
export const homeQuery = (classId: string) =>
  queryOptions({
    queryKey: ['home', classId],
    queryFn: () => answer(api.GET('/api/classes/{classId}/home', { params: { path: { classId } } })),
    refetchInterval: LOOKED_AGAIN,
  })

/** Sheets that were printed are in their hands. Sent twice they count once. */
export const handOut = door({
  key: ['progress', 'hand out'],
  send: ({ classId, sheets }: { classId: string; sheets: Schema['HomePracticeHanded'][] }) =>
    answer(api.POST('/api/classes/{classId}/home/given', { params: { path: { classId } }, body: { sheets } })),
  changes: ['home'],
})

/** What somebody says they practised on a day. */
export interface Practised {
  classId: string
  log: Schema['PracticeLogMark']
}

export const sendPractised = ({ classId, log }: Practised) =>
  answer(api.POST('/api/classes/{classId}/home/practice', { params: { path: { classId } }, body: { logs: [log] } }))

export const withdrawObservation = door({
  key: ['progress', 'withdraw'],
  send: ({ id }: { id: string }) => answer(api.POST('/api/observations/{id}/withdrawal', { params: { path: { id } } })),
  changes: ['student', 'progress', 'corrections', 'next-sash', 'patterns', 'look-back', 'today', 'register'],
})

/** What the people of a cohort came with. */
export const takenOverQuery = (cohortId: string) =>
  queryOptions({
    queryKey: ['taken-over', cohortId],
    queryFn: () => answer(api.GET('/api/cohorts/{id}/taken-over', { params: { path: { id: cohortId } } })),
  })

/** Sent twice it counts once. */
export const sayTakenOver = door({
  key: ['progress', 'say taken over'],
  send: ({ cohortId, marks }: { cohortId: string; marks: Schema['TakenOverMark'][] }) =>
    answer(api.POST('/api/cohorts/{id}/taken-over', { params: { path: { id: cohortId } }, body: { marks } })),
  changes: [
    'taken-over',
    'progress',
    'next-sash',
    'student',
    'register',
    'lesson',
    'plan',
    'today',
    'assignment-check',
    'compare',
  ],
})

/** What people came with has been looked through. */
export const checkTakenOver = door({
  key: ['progress', 'check taken over'],
  send: () => answer(api.PUT('/api/moving-in/taken-over')),
  changes: ['moving-in'],
})
