import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { door } from '../shared/door'
import type { Kind } from '../shared/queries'

export type Plan = Schema['PlanResponse']
export type PlanChip = Schema['PlanChip']

/** One class in one term. */
export interface PlanPath {
  termId: string
  classId: string
}

/** Which of a class's plans is looked at: the draft or else the announced one, the announced, an earlier one, or what a remedy would lead to. */
export type PlanShown = {
  announced?: boolean
  version?: number
  beside?: number
  remedy?: { id: string; says: string }
}

const keyOf = (path: PlanPath, ...rest: unknown[]) => ['plan', path.termId, path.classId, ...rest] as const

export const planQuery = (path: PlanPath, { remedy, ...query }: PlanShown) =>
  queryOptions({
    queryKey: keyOf(path, query, ...(remedy ? [remedy.id] : [])),
    queryFn: () =>
      remedy
        ? answer(
            api.GET('/api/terms/{termId}/classes/{classId}/plan/remedies/{id}', {
              params: { path: { ...path, id: remedy.id } },
            }),
          )
        : answer(api.GET('/api/terms/{termId}/classes/{classId}/plan', { params: { path, query } })),
    placeholderData: (before) => before,
  })

/** What each lesson would cost a posture that is being moved. */
export const movesQuery = (path: PlanPath, chip: string | undefined) =>
  queryOptions({
    queryKey: ['moves', path.termId, path.classId, chip],
    enabled: chip !== undefined,
    queryFn: () =>
      answer(
        api.GET('/api/terms/{termId}/classes/{classId}/plan/chips/{chip}/moves', {
          params: { path: { ...path, chip: chip! } },
        }),
      ),
  })

export const remediesQuery = (path: PlanPath, plannedAt: string) =>
  queryOptions({
    queryKey: ['remedies', path.termId, path.classId, plannedAt],
    queryFn: () => answer(api.GET('/api/terms/{termId}/classes/{classId}/plan/remedies', { params: { path } })),
  })

export const versionsQuery = (path: PlanPath) =>
  queryOptions({
    queryKey: ['plan-versions', path.termId, path.classId],
    queryFn: () => answer(api.GET('/api/terms/{termId}/classes/{classId}/plan/versions', { params: { path } })),
  })

export const yearQuery = (classId: string) =>
  queryOptions({
    queryKey: ['year', classId],
    queryFn: () => answer(api.GET('/api/classes/{classId}/year', { params: { path: { classId } } })),
  })

/** What a head does to a plan; every step answers with the plan that follows from it. */
export type Step =
  | { kind: 'plan' }
  | { kind: 'pin'; chip: string; date: string | null }
  | { kind: 'keep'; cohortId: string }
  | { kind: 'undo' }
  | { kind: 'redo' }
  | { kind: 'discard' }

/** The first plan of a term is dropped, and never undone by a key: nothing would be left. */
export const mayUndo = (plan: Plan) => plan.draft !== null && (plan.draft.steps > 1 || plan.announced !== null)

const follows = (plan: Plan, { path }: { path: PlanPath }) => [[keyOf(path, {}), plan] as const]

/** A step is taken from what is seen: from one that somebody else has replaced meanwhile, none is. */
export const takeStep = door({
  key: ['terms', 'step'],
  send: ({ path, step, draft }: { path: PlanPath; step: Step; draft: string | undefined }) => {
    const query = { draft }
    switch (step.kind) {
      case 'plan':
        return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan', { params: { path, query } }))
      case 'pin':
        return answer(
          api.PUT('/api/terms/{termId}/classes/{classId}/plan/chips/{chip}/pin', {
            params: { path: { ...path, chip: step.chip }, query },
            body: { date: step.date },
          }),
        )
      case 'keep':
        return answer(
          api.PUT('/api/terms/{termId}/classes/{classId}/plan/cohorts/{cohortId}/kept', {
            params: { path: { ...path, cohortId: step.cohortId }, query },
          }),
        )
      case 'undo':
        return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/undo', { params: { path, query } }))
      case 'redo':
        return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/redo', { params: { path, query } }))
      case 'discard':
        return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/discard', { params: { path, query } }))
    }
  },
  keeps: follows,
  changes: ['moves'],
  onClash: ['plan', 'moves'],
})

/** What the whole school sees changes. */
export const announcePlan = door({
  key: ['terms', 'announce'],
  send: ({ path, draft }: { path: PlanPath; draft: string }) =>
    answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/announcement', { params: { path, query: { draft } } })),
  keeps: follows,
  onClash: ['plan', 'plan-versions'],
  changes: ['moves', 'today', 'lessons', 'safety', 'lesson', 'register', 'plan-versions'],
})

const calendar: readonly Kind[] = ['people', 'assignments', 'terms', 'today', 'lessons', 'remedies', 'assignment-check']

/** Changes the school itself: its classes, its calendar, what is assigned. */
export const takeRemedy = door({
  key: ['terms', 'take a remedy'],
  send: ({ path, id }: { path: PlanPath; id: string }) =>
    answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/remedies/{id}', { params: { path: { ...path, id } } })),
  keeps: follows,
  changes: ['moves', ...calendar],
})

/** What is different about one lesson, with what its day is to the whole school where that changes: all of it or nothing. */
export const saveLesson = door({
  key: ['terms', 'save lesson'],
  send: ({ classId, date, body }: { classId: string; date: string; body: Schema['LessonChangeRequest'] }) =>
    answer(api.PUT('/api/classes/{classId}/calendar/{date}', { params: { path: { classId, date } }, body })),
  changes: ['people', 'assignments', 'terms'],
})

/** Minutes of one lesson are kept for watching: the plan has so many fewer. */
export const keepForWatching = door({
  key: ['terms', 'keep for watching'],
  send: ({ classId, date, body }: { classId: string; date: string; body: Schema['LessonChangeWatching'] }) =>
    answer(api.PUT('/api/classes/{classId}/calendar/{date}/watching', { params: { path: { classId, date } }, body })),
  onClash: ['look-back'],
  changes: ['people', 'assignments', 'terms', 'plan', 'look-back'],
})

export const dropLesson = door({
  key: ['terms', 'drop lesson'],
  send: ({ classId, date, version }: { classId: string; date: string; version: number }) =>
    answer(
      api.DELETE('/api/classes/{classId}/calendar/{date}', { params: { path: { classId, date }, query: { version } } }),
    ),
  changes: ['people', 'assignments', 'terms'],
})

export const planShortStay = door({
  key: ['terms', 'short stay'],
  send: (body: Schema['ShortStayRequest']) => answer(api.POST('/api/short-stay', { body })),
})

/** A secret address of a class's calendar, or of everything one teaches; a new one ends the old. */
export const calendarAddress = door({
  key: ['terms', 'calendar address'],
  send: ({ classId, renew }: { classId: string | null; renew: boolean }) =>
    classId === null
      ? answer(api.POST('/api/calendar-link', { params: { query: { renew } } }))
      : answer(api.POST('/api/classes/{classId}/calendar-link', { params: { path: { classId }, query: { renew } } })),
})
