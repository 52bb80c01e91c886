import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { Opening } from '../shared/Opening'
import { peopleQuery, termsQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { Empty } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { ClassTerm } from './ClassTerm'

const ALL = 'all'

/** The term: of one class, or of all classes of the week below one another. */
export function TermScreen() {
  const navigate = useNavigate()
  const { classId } = useParams()
  const [search, setSearch] = useSearchParams()
  const { isHead } = useSignedIn()
  const terms = useQuery(termsQuery())
  const school = useQuery(peopleQuery())

  if (!terms.data || !school.data) return <Opening of={[terms, school]} what="Opening the term" />
  const term = terms.data.find((candidate) => candidate.isCurrent)
  if (!term)
    return (
      <Empty next={isHead && [{ name: 'Add the first term', to: '/school?view=terms' }]}>
        There is no term yet: when it runs, when nobody meets, when there are tests.
      </Empty>
    )
  const { classes } = school.data
  const schoolClass =
    classes.find((candidate) => candidate.id === classId) ??
    classes.toSorted((a, b) => b.cohorts.length - a.cohorts.length)[0]
  if (!schoolClass)
    return <Empty next={isHead && [{ name: 'Add the first class', to: '/people' }]}>There is no class yet.</Empty>

  const whole = search.has('whole')
  const choices = classes.length > 1 && (
    <ToggleGroup
      label="Class"
      value={classId === ALL ? ALL : schoolClass.id}
      options={[...classes.map((one) => ({ value: one.id, name: one.name })), { value: ALL, name: 'All' }]}
      onChange={(id) => void navigate(`/term/${id}`)}
    />
  )
  const shown = classId === ALL ? classes : [schoolClass]
  return shown.map((one, at) => (
    <ClassTerm
      key={one.id}
      term={term}
      schoolClass={one}
      school={school.data}
      alone={shown.length === 1}
      whole={whole}
      setWhole={(now) => setSearch(now ? { whole: '' } : {}, { replace: true })}
    >
      {at === 0 && choices}
    </ClassTerm>
  ))
}
