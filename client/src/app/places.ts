import type { Schema } from '../api/client'

/** Where somebody learns: each of their cohorts with its class, their own first. What whoever asks may not see is left out. */
export function placesOf(school: Schema['PeopleResponse'], student: Pick<Schema['StudentItem'], 'cohortIds'>) {
  const places = school.classes.flatMap((meeting) => meeting.cohorts.map((cohort) => ({ meeting, cohort })))
  return student.cohortIds.flatMap((id) => places.find((place) => place.cohort.id === id) ?? [])
}
