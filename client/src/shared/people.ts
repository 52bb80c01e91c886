import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'

export type School = Schema['PeopleResponse']
export type SchoolClass = Schema['PeopleClassResponse']
export type Cohort = Schema['PeopleCohortResponse']

/** Classes with their cohorts, halls, staff and the ladder: what every room names things by. */
export const peopleQuery = () => queryOptions({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })

export const studentsQuery = () =>
  queryOptions({ queryKey: ['students'], queryFn: () => answer(api.GET('/api/students')) })

export const termsQuery = () => queryOptions({ queryKey: ['terms'], queryFn: () => answer(api.GET('/api/terms')) })

/** Every reading is written down, so it is read when somebody asks and not again by itself. */
export const limitsQuery = (studentId: string, asked = true) =>
  queryOptions({
    queryKey: ['limits', studentId],
    enabled: asked,
    queryFn: () => answer(api.GET('/api/students/{id}/limits', { params: { path: { id: studentId } } })),
    staleTime: Infinity,
  })

/** Where somebody learns: each of their cohorts with its class, their own first. What whoever asks may not see is left out. */
export function placesOf(school: School, student: Pick<Schema['StudentItem'], 'cohortIds'>) {
  const places = school.classes.flatMap((schoolClass) => schoolClass.cohorts.map((cohort) => ({ schoolClass, cohort })))
  return student.cohortIds.flatMap((id) => places.find((place) => place.cohort.id === id) ?? [])
}
