import { useSignedIn } from '../shared/session'
import { useSearch } from '../shared/search'
import { Heading } from '../ui/states'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { counted, people } from '../ui/words'
import { AccessLogView } from './AccessLogView'
import { AssignView } from './AssignView'
import { ClassesView } from './ClassesView'
import { CoverageView } from './CoverageView'
import { HallsView } from './HallsView'
import { ImportView } from './ImportView'
import { LadderView } from './LadderView'
import { useQuery } from '@tanstack/react-query'
import { leave } from '../shared/leaving'
import { peopleQuery } from '../shared/people'
import { Opening } from '../shared/Opening'
import { RosterView } from './RosterView'
import { SafetyView } from './SafetyView'

const views = [
  { value: 'classes', name: 'Classes' },
  { value: 'roster', name: 'Roster' },
  { value: 'safety', name: 'To settle' },
  { value: 'ladder', name: 'Ladder' },
  { value: 'halls', name: 'Halls and staff' },
] as const

/** Views that belong to one of the tabs and are reached from it. */
const within: Record<string, (typeof views)[number]['value']> = {
  assign: 'classes',
  coverage: 'classes',
  import: 'roster',
  log: 'safety',
}

/** Who there is, where, in which class, working on what. */
export function PeopleScreen() {
  const { isHead } = useSignedIn()
  const [search, set] = useSearch()
  const view = search.get('view') ?? 'classes'
  const tab = within[view] ?? views.find((one) => one.value === view)?.value ?? 'classes'
  const school = useQuery(peopleQuery())
  if (!school.data) return <Opening of={[school]} what="Opening the school" />
  const data = school.data
  const cohorts = data.classes.flatMap((schoolClass) => schoolClass.cohorts.map((cohort) => ({ schoolClass, cohort })))
  const chosen = cohorts.find(({ cohort }) => cohort.id === search.get('cohort')) ?? cohorts[0]
  const count = data.classes
    .flatMap((schoolClass) => schoolClass.cohorts)
    .reduce((sum, cohort) => sum + cohort.students, 0)
  return (
    <Tabs value={tab} onChange={(value) => leave(() => set({ view: value, cohort: null, student: null }))}>
      <Heading
        title="People"
        facts={`${people(count)} in ${counted(data.classes.length, 'class', 'classes')} · ${counted(data.halls.length, 'hall')} · ${data.staff.length} staff`}
      >
        <TabList label="View" options={views} />
      </Heading>
      <TabPanel value={tab} className="flex flex-1 flex-col outline-none">
        {view === 'assign' && isHead && chosen ? (
          <AssignView key={chosen.cohort.id} cohort={chosen.cohort} schoolClass={chosen.schoolClass} />
        ) : view === 'coverage' && chosen ? (
          <CoverageView key={chosen.cohort.id} cohort={chosen.cohort} schoolClass={chosen.schoolClass} />
        ) : view === 'import' && isHead ? (
          <ImportView />
        ) : view === 'log' && isHead ? (
          <AccessLogView />
        ) : tab === 'roster' ? (
          <RosterView school={data} />
        ) : tab === 'safety' ? (
          <SafetyView />
        ) : tab === 'ladder' ? (
          <LadderView school={data} />
        ) : tab === 'halls' ? (
          <HallsView school={data} />
        ) : (
          <ClassesView school={data} />
        )}
      </TabPanel>
    </Tabs>
  )
}
