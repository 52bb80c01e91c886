import { useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'

export type School = Schema['PeopleResponse']
export type Meeting = Schema['PeopleClassResponse']
export type Cohort = Schema['PeopleCohortResponse']
export type Student = Schema['StudentItem']
export type AssignedSegment = Schema['AssignedSegment']
export type Form = Schema['FormResponse']

export const usePeople = () => useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })

export const useStudents = () => useQuery({ queryKey: ['students'], queryFn: () => answer(api.GET('/api/students')) })

/** The term that runs, or else the next one. */
export function useTerm() {
  const terms = useQuery({ queryKey: ['terms'], queryFn: () => answer(api.GET('/api/terms')) })
  return terms.data?.find((term) => term.isCurrent)
}

/** Whatever follows from people and what they have been given is asked for again. */
export function useRefreshPeople() {
  const queries = useQueryClient()
  return () =>
    queries.invalidateQueries({
      predicate: ({ queryKey }) =>
        [
          'people',
          'students',
          'student',
          'plan',
          'today',
          'coverage',
          'safety',
          'progress',
          'lesson',
          'lessons',
          'imports',
          'limits',
          'access-log',
          'compare',
        ].includes(queryKey[0] as string),
    })
}

export const modeNames = ['standing', 'short-step', 'no-step', 'supported', 'seated'] as const

export const purposeWords: Record<Schema['Purpose'], string> = { new: 'new', refine: 'refine', maintain: 'maintain' }
