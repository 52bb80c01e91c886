import { useQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { answer, api } from '../api/client'
import { Failure, Heading, Tabs, Waiting } from '../ui/states'
import { people } from '../ui/words'
import { ClassesView } from './ClassesView'
import { RosterView } from './RosterView'
import { SchoolParts } from './SchoolParts'

const views = [
  { value: 'classes', name: 'Classes' },
  { value: 'roster', name: 'Roster' },
  { value: 'school', name: 'Ladder, halls, staff' },
] as const

/** Who there is, where, in which class, working on what. */
export function PeopleScreen() {
  const [search, setSearch] = useSearchParams()
  const view = views.find((one) => one.value === search.get('view'))?.value ?? 'classes'
  const school = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })
  if (school.isError) return <Failure error={school.error} retry={() => void school.refetch()} />
  if (school.isPending) return <Waiting what="Opening the school" />
  const data = school.data
  const count = data.classes.flatMap((meeting) => meeting.cohorts).reduce((sum, cohort) => sum + cohort.students, 0)
  return (
    <>
      <Heading title="People" facts={`${people(count)} in ${data.classes.length} ${data.classes.length === 1 ? 'class' : 'classes'} · ${data.halls.length} halls · ${data.staff.length} staff`}>
        <Tabs label="View" value={view} options={[...views]} onChange={(value) => setSearch({ view: value })} />
      </Heading>
      {view === 'classes' && <ClassesView school={data} />}
      {view === 'roster' && <RosterView school={data} />}
      {view === 'school' && <SchoolParts school={data} />}
    </>
  )
}
