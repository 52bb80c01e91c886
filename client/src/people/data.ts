import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, stream, type Schema } from '../api/client'
import { door } from '../shared/door'
import { termsQuery } from '../shared/people'
import type { Kind } from '../shared/queries'

export type { Cohort, School, SchoolClass } from '../shared/people'
export type Student = Schema['StudentItem']
export type Assignment = Schema['AssignmentGiven']
export type AssignedSegment = Schema['AssignedSegment']
export type Form = Schema['FormResponse']
export type RosterColumn = Schema['RosterColumn']
export type RosterAnswers = Schema['RosterAnswers']
export type RosterPreview = Schema['RosterPreview']
export type RosterProgress = Schema['RosterProgress']
export { modeNames } from '../ui/words'

/** Whatever follows from people and what they have been given. */
const people: readonly Kind[] = [
  'people',
  'assignments',
  'students',
  'student',
  'student-details',
  'plan',
  'today',
  'coverage',
  'safety',
  'progress',
  'home',
  'next-sash',
  'lesson',
  'lessons',
  'imports',
  'limits',
  'access-log',
  'compare',
  'assignment-check',
  'taken-over',
]

export const purposeWords: Record<Schema['Purpose'], string> = { new: 'new', refine: 'refine', maintain: 'maintain' }

/** The term that runs, or else the next one. */
export const useTerm = () => useQuery(termsQuery()).data?.find((term) => term.isCurrent)

export const detailsQuery = (student: Student) =>
  queryOptions({
    queryKey: ['student-details', student.id],
    queryFn: () => answer(api.GET('/api/students/{id}/details', { params: { path: { id: student.id } } })),
  })

/** What each cohort has been given for the term. */
export const assignmentsQuery = () =>
  queryOptions({ queryKey: ['assignments'], queryFn: () => answer(api.GET('/api/assignments')) })

export const coverageQuery = (cohortId: string) =>
  queryOptions({
    queryKey: ['coverage', cohortId],
    queryFn: () => answer(api.GET('/api/cohorts/{id}/coverage', { params: { path: { id: cohortId } } })),
  })

/** What is unsafe in the coming lessons: for everybody one teaches, or for one student. */
export const safetyQuery = (studentId?: string) =>
  queryOptions({
    queryKey: ['safety', studentId],
    queryFn: () => answer(api.GET('/api/safety', { params: { query: { studentId } } })),
  })

export const accessLogQuery = () =>
  queryOptions({ queryKey: ['access-log'], queryFn: () => answer(api.GET('/api/access-log')) })

export const importsQuery = () =>
  queryOptions({ queryKey: ['imports'], queryFn: () => answer(api.GET('/api/roster/imports')) })

/** What speaks against segments, before they are given. */
export const assignmentCheckQuery = (termId: string, cohortId: string, segments: AssignedSegment[]) =>
  queryOptions({
    queryKey: ['assignment-check', termId, cohortId, segments],
    enabled: segments.length > 0,
    queryFn: () =>
      answer(
        api.POST('/api/terms/{termId}/cohorts/{cohortId}/assignment/check', {
          params: { path: { termId, cohortId } },
          body: { segments },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  })

export const classCheckQuery = (classId: string | null, text: Schema['ClassText']) =>
  queryOptions({
    queryKey: ['class-check', classId, text],
    enabled: text.hallId !== '' && text.minutes > 0 && text.start !== '',
    queryFn: () => answer(api.POST('/api/classes/check', { body: { classId, text } })),
    placeholderData: (before) => before,
  })

export const ladderEffectsQuery = (order: string[], moved: boolean) =>
  queryOptions({
    queryKey: ['ladder-effects', order],
    enabled: moved,
    queryFn: () => answer(api.POST('/api/sashes/order/effects', { body: { order } })),
  })

export const sashEffectsQuery = (id: string | undefined, text: Schema['SashText']) =>
  queryOptions({
    queryKey: ['sash-effects', id, text],
    enabled: id !== undefined && text.name.trim() !== '' && text.asks.weeks !== null && text.asks.lessons !== null,
    queryFn: () => answer(api.POST('/api/sashes/{id}/effects', { params: { path: { id: id! } }, body: text })),
    placeholderData: (before) => before,
  })

/** A thing with a version is changed, one without is new. */
type Saved<T> = { id: string; text: T; version: number | null }

export const saveClass = door({
  key: ['people', 'save class'],
  send: async ({ id, text, version }: Saved<Schema['ClassText']>) => {
    if (version === null) await answer(api.POST('/api/classes', { body: { id, text } }))
    else await answer(api.PUT('/api/classes/{id}', { params: { path: { id } }, body: { text, version } }))
  },
  changes: people,
})

export const endClass = door({
  key: ['people', 'end class'],
  send: ({ id, into }: { id: string; into: Record<string, string> }) =>
    answer(api.POST('/api/classes/{id}/removal', { params: { path: { id } }, body: { into } })),
  changes: people,
})

export const saveCohort = door({
  key: ['people', 'save cohort'],
  send: async ({
    id,
    classId,
    text,
    version,
    takesIn,
  }: Saved<Schema['CohortText']> & {
    classId: string
    /** Students of no class who learn in a new one from today. */
    takesIn?: string[]
  }) => {
    if (version === null)
      await answer(
        api.POST('/api/classes/{classId}/cohorts', {
          params: { path: { classId } },
          body: { id, text, takesIn: takesIn ?? null },
        }),
      )
    else await answer(api.PUT('/api/cohorts/{id}', { params: { path: { id } }, body: { text, version } }))
  },
  changes: people,
})

export const removeCohort = door({
  key: ['people', 'remove cohort'],
  send: ({ id, into }: { id: string; into: string }) =>
    answer(api.DELETE('/api/cohorts/{id}', { params: { path: { id }, query: { into: into || undefined } } })),
  changes: people,
})

export const saveHall = door({
  key: ['people', 'save hall'],
  send: async ({ id, text, version }: Saved<Schema['HallText']>) => {
    if (version === null) await answer(api.POST('/api/halls', { body: { id, text } }))
    else await answer(api.PUT('/api/halls/{id}', { params: { path: { id } }, body: { text, version } }))
  },
  changes: people,
})

export const removeHall = door({
  key: ['people', 'remove hall'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/halls/{id}', { params: { path: { id } } })),
  changes: people,
})

/** A whole ladder to begin with, where there is none yet. */
export const beginLadder = door({
  key: ['people', 'begin ladder'],
  send: (body: { pattern: Schema['LadderPattern'] }) => answer(api.POST('/api/sashes/pattern', { body })),
  changes: people,
})

export const saveSash = door({
  key: ['people', 'save sash'],
  send: async ({ id, text, version }: Saved<Schema['SashText']>) => {
    if (version === null) await answer(api.POST('/api/sashes', { body: { id, text } }))
    else await answer(api.PUT('/api/sashes/{id}', { params: { path: { id } }, body: { text, version } }))
  },
  changes: people,
})

export const removeSash = door({
  key: ['people', 'remove sash'],
  send: ({ id, into }: { id: string; into: string }) =>
    answer(api.DELETE('/api/sashes/{id}', { params: { path: { id }, query: { into: into || undefined } } })),
  changes: people,
})

export const orderSashes = door({
  key: ['people', 'order sashes'],
  send: ({ order }: { order: string[] }) => answer(api.PUT('/api/sashes/order', { body: { order } })),
  changes: people,
})

export const saveStudent = door({
  key: ['people', 'save student'],
  send: async ({
    id,
    text,
    version,
    sashSince,
    another = false,
  }: Saved<Schema['StudentText']> & {
    /** Null for another level that counts from today. */
    sashSince: string | null
    /** It has been said that this is somebody else than whoever has the same name. */
    another?: boolean
  }) => {
    if (version === null) await answer(api.POST('/api/students', { body: { id, text, sashSince, another } }))
    else await answer(api.PUT('/api/students/{id}', { params: { path: { id } }, body: { text, sashSince, version } }))
  },
  changes: people,
})

export const moveStudents = door({
  key: ['people', 'move students'],
  send: ({ moves }: { moves: Schema['StudentMove'][] }) => answer(api.POST('/api/students/moves', { body: { moves } })),
  changes: people,
})

export const leaveSchool = door({
  key: ['people', 'leave'],
  send: ({ id, version }: { id: string; version: number }) =>
    answer(api.POST('/api/students/{id}/leaving', { params: { path: { id } }, body: { version } })),
  changes: people,
})

export const eraseStudent = door({
  key: ['people', 'erase'],
  send: ({ id, version }: { id: string; version: number }) =>
    answer(api.POST('/api/students/{id}/erasure', { params: { path: { id } }, body: { version } })),
  changes: people,
})

export const saveLimits = door({
  key: ['people', 'save limits'],
  send: ({ id, ...body }: { id: string; limits: Schema['LimitResponse']['limits']; note: string; version: number }) =>
    answer(api.PUT('/api/students/{id}/limits', { params: { path: { id } }, body })),
  changes: people,
})

export const settleAdaptation = door({
  key: ['people', 'settle'],
  send: ({
    studentId,
    ...body
  }: {
    studentId: string
    id: string
    postureId: string
    mode: string | null
    words: string
  }) => answer(api.POST('/api/students/{id}/adaptations', { params: { path: { id: studentId } }, body })),
  changes: people,
})

export const saveAssignment = door({
  key: ['people', 'assign'],
  send: ({
    termId,
    cohortId,
    ...body
  }: {
    termId: string
    cohortId: string
    segments: AssignedSegment[]
    version: number | null
  }) =>
    answer(
      api.PUT('/api/terms/{termId}/cohorts/{cohortId}/assignment', { params: { path: { termId, cohortId } }, body }),
    ),
  changes: people,
})

/** What each cohort would get; nothing is given. */
export const proposeAssignments = door({
  key: ['people', 'propose assignments'],
  send: ({ termId, ...body }: { termId: string; template: Schema['AssignmentTemplate']; target: string }) =>
    answer(api.POST('/api/terms/{termId}/assignments/proposals', { params: { path: { termId } }, body })),
})

export const giveAssignments = door({
  key: ['people', 'give assignments'],
  send: ({
    termId,
    cohorts,
  }: {
    termId: string
    cohorts: { cohortId: string; segments: AssignedSegment[]; version: number | null }[]
  }) => answer(api.PUT('/api/terms/{termId}/assignments', { params: { path: { termId } }, body: { cohorts } })),
  changes: people,
})

/** What a spreadsheet would do; nothing is done. */
export const lookAtRoster = door({
  key: ['people', 'look at a spreadsheet'],
  send: (body: { file: string; sheet: string | null; answers: RosterAnswers }) =>
    answer(api.POST('/api/roster/preview', { body })),
})

export const importRoster = door({
  key: ['people', 'import'],
  send: ({
    heard,
    ...body
  }: {
    id: string
    fileName: string
    file: string
    sheet: string | null
    answers: RosterAnswers
    heard: (progress: Schema['RosterProgress']) => void
  }) => stream<Schema['RosterProgress']>('/api/roster/imports', body, heard),
  changes: people,
})

export const takeImportBack = door({
  key: ['people', 'take an import back'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/roster/imports/{id}', { params: { path: { id } } })),
  changes: people,
})
