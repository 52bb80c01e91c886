import { useSignedIn } from '../app/session'
import { useSearch } from '../app/use-search'
import { Failure, Heading, Tabs, Waiting } from '../ui/states'
import { people } from '../ui/words'
import { AccessLogView } from './AccessLogView'
import { AssignView } from './AssignView'
import { ClassesView } from './ClassesView'
import { CoverageView } from './CoverageView'
import { HallsView } from './HallsView'
import { ImportView } from './ImportView'
import { LadderView } from './LadderView'
import { usePeople } from './queries'
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
  const school = usePeople()
  if (school.isError) return <Failure error={school.error} retry={() => void school.refetch()} />
  if (school.isPending) return <Waiting what="Opening the school" />
  const data = school.data
  const cohorts = data.classes.flatMap((meeting) => meeting.cohorts.map((cohort) => ({ meeting, cohort })))
  const chosen = cohorts.find(({ cohort }) => cohort.id === search.get('cohort')) ?? cohorts[0]
  const count = data.classes.flatMap((meeting) => meeting.cohorts).reduce((sum, cohort) => sum + cohort.students, 0)
  return (
    <>
      <Heading
        title="People"
        facts={`${people(count)} in ${data.classes.length} ${data.classes.length === 1 ? 'class' : 'classes'} · ${data.halls.length} halls · ${data.staff.length} staff`}
      >
        <Tabs
          label="View"
          value={tab}
          options={[...views]}
          onChange={(value) => set({ view: value, cohort: null, student: null })}
        />
      </Heading>
      {view === 'assign' && isHead && chosen ? (
        <AssignView
          key={chosen.cohort.id + (chosen.cohort.assignment?.version ?? 0)}
          school={data}
          cohort={chosen.cohort}
          meeting={chosen.meeting}
        />
      ) : view === 'coverage' && chosen ? (
        <CoverageView key={chosen.cohort.id} cohort={chosen.cohort} meeting={chosen.meeting} />
      ) : view === 'import' && isHead ? (
        <ImportView />
      ) : view === 'log' && isHead ? (
        <AccessLogView />
      ) : tab === 'roster' ? (
        <RosterView school={data} />
      ) : tab === 'safety' ? (
        <SafetyView />
      ) : tab === 'ladder' ? (
        <LadderView key={data.sashes.map((sash) => sash.id).join()} school={data} />
      ) : tab === 'halls' ? (
        <HallsView school={data} />
      ) : (
        <ClassesView school={data} />
      )}
    </>
  )
}
