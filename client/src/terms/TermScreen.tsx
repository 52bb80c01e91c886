import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { answer, api } from '../api/client'
import { Empty, Failure, Tabs, Waiting } from '../ui/states'
import { ClassTerm } from './ClassTerm'

const ALL = 'all'

/** The term as weaves: of one class, or of all classes of the week below one another. */
export function TermScreen() {
  const navigate = useNavigate()
  const { classId } = useParams()
  const [search, setSearch] = useSearchParams()
  const queries = useQueryClient()
  const terms = useQuery({ queryKey: ['terms'], queryFn: () => answer(api.GET('/api/terms')) })
  const school = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })

  const failed = terms.error ?? school.error
  if (failed) return <Failure error={failed} retry={() => void queries.invalidateQueries()} />
  if (!terms.data || !school.data) return <Waiting what="Opening the term" />
  const term = terms.data.find((candidate) => candidate.isCurrent)
  if (!term) return <Empty>There is no term yet. Add one, with its closures and test days, before planning.</Empty>
  const { classes } = school.data
  const meeting =
    classes.find((candidate) => candidate.id === classId) ??
    classes.toSorted((a, b) => b.cohorts.length - a.cohorts.length)[0]
  if (!meeting) return <Empty>There is no class yet. Add one under People, then assign each cohort a segment.</Empty>

  const whole = search.has('whole')
  const choices = classes.length > 1 && (
    <Tabs
      label="Class"
      value={classId === ALL ? ALL : meeting.id}
      options={[...classes.map((one) => ({ value: one.id, name: one.name })), { value: ALL, name: 'All' }]}
      onChange={(id) => void navigate(`/term/${id}`)}
    />
  )
  const shown = classId === ALL ? classes : [meeting]
  return shown.map((one, at) => (
    <ClassTerm
      key={one.id}
      term={term}
      meeting={one}
      school={school.data}
      alone={shown.length === 1}
      whole={whole}
      setWhole={(now) => setSearch(now ? { whole: '' } : {}, { replace: true })}
    >
      {at === 0 && choices}
    </ClassTerm>
  ))
}
