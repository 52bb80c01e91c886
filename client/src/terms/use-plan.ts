import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'

export type Plan = Schema['PlanResponse']
export type PlanShown = {
  announced?: boolean
  version?: number
  beside?: number
  remedy?: { id: string; says: string }
}

/** One class's term: what is shown of it, and the steps a head takes. Every step answers with the plan that follows from it. */
export function usePlan(path: { termId: string; classId: string }, shown: PlanShown = {}) {
  const queries = useQueryClient()
  const { remedy, ...query } = shown
  const plan = useQuery({
    queryKey: ['plan', path.termId, path.classId, query, ...(remedy ? [remedy.id] : [])],
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
  const onSuccess = (made: Plan) => {
    queries.setQueryData(['plan', path.termId, path.classId, {}], made)
    queries.removeQueries({ queryKey: ['moves'] })
  }
  /** What the whole school sees has changed. */
  const onAnnounced = (made: Plan) => {
    onSuccess(made)
    void queries.invalidateQueries({
      predicate: ({ queryKey }) =>
        ['today', 'lessons', 'safety', 'lesson', 'register', 'plan-versions'].includes(queryKey[0] as string),
    })
  }
  const step = useMutation({
    mutationFn: (what: Step) => {
      switch (what.kind) {
        case 'plan':
          return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan', { params: { path } }))
        case 'pin':
          return answer(
            api.PUT('/api/terms/{termId}/classes/{classId}/plan/chips/{chip}/pin', {
              params: { path: { ...path, chip: what.chip } },
              body: { date: what.date },
            }),
          )
        case 'keep':
          return answer(
            api.PUT('/api/terms/{termId}/classes/{classId}/plan/cohorts/{cohortId}/kept', {
              params: { path: { ...path, cohortId: what.cohortId } },
            }),
          )
        case 'undo':
          return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/undo', { params: { path } }))
        case 'discard':
          return answer(api.POST('/api/terms/{termId}/classes/{classId}/plan/discard', { params: { path } }))
      }
    },
    onSuccess,
  })
  const announce = useMutation({
    mutationFn: (draft: string) =>
      answer(
        api.POST('/api/terms/{termId}/classes/{classId}/plan/announcement', { params: { path }, body: { draft } }),
      ),
    onSuccess: onAnnounced,
  })
  /** Changes the school itself: its classes, its calendar, what is assigned. */
  const take = useMutation({
    mutationFn: (id: string) =>
      answer(
        api.POST('/api/terms/{termId}/classes/{classId}/plan/remedies/{id}', { params: { path: { ...path, id } } }),
      ),
    onSuccess: (made) => {
      onSuccess(made)
      void queries.invalidateQueries({
        predicate: ({ queryKey }) =>
          ['people', 'terms', 'today', 'lessons', 'remedies', 'assignment-check'].includes(queryKey[0] as string),
      })
    },
  })
  return { plan, step, announce, take }
}

export type Step =
  | { kind: 'plan' }
  | { kind: 'pin'; chip: string; date: string | null }
  | { kind: 'keep'; cohortId: string }
  | { kind: 'undo' }
  | { kind: 'discard' }

/** A chip on its way, and what each lesson would cost it. */
export function useMoving(path: { termId: string; classId: string }, drop: (chip: string, date: string) => void) {
  const [moving, setMoving] = useState<{ chip: string; at?: number }>()
  const costs = useQuery({
    queryKey: ['moves', path.termId, path.classId, moving?.chip],
    enabled: moving !== undefined,
    queryFn: () =>
      answer(
        api.GET('/api/terms/{termId}/classes/{classId}/plan/chips/{chip}/moves', {
          params: { path: { ...path, chip: moving!.chip } },
        }),
      ),
  })
  return {
    refused: moving ? costs.error : null,
    now: moving && { ...moving, costs: costs.data && Object.fromEntries(costs.data.map((cost) => [cost.date, cost])) },
    start: (chip: string, at?: number) => setMoving({ chip, at }),
    cancel: () => setMoving(undefined),
    drop: (chip: string, date: string) => {
      setMoving(undefined)
      if (costs.data?.find((cost) => cost.date === date)?.verdict !== 'here') drop(chip, date)
    },
  }
}
