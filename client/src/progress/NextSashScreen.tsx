import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { peopleQuery, termsQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { counted, dayMonth } from '../ui/words'
import { ClassChoice } from './ClassChoice'
import { nextSashQuery } from './data'
import { Lacks } from './Lacks'
import { isReady, levelName, likelyWords } from './next-sash'
import { DaysAhead, WayToSash } from './WayToSash'

type Person = Schema['NextSashPerson']

/** The picture goes no farther: half a year. */
const LONGEST_DAYS = 182

const daysAfter = (date: string, days: number) =>
  new Date(Date.parse(date) + days * 86_400_000).toISOString().slice(0, 10)

/** Who of a class is ready for the next sash, who nearly, what is missing, and when it is likely. */
export function NextSashScreen() {
  const { classId } = useParams() as { classId: string }
  const { today, isHead } = useSignedIn()
  const navigate = useNavigate()
  const school = useQuery(peopleQuery())
  const terms = useQuery(termsQuery())
  const next = useQuery(nextSashQuery(classId))
  if (!school.data || !terms.data || !next.data)
    return <Opening of={[school, terms, next]} what="Working out who is ready" />
  const people = next.data.people
  const dates = people.map(({ next }) => next.likely).filter((date) => date !== null)
  const farthest = daysAfter(today, LONGEST_DAYS)
  const tests = [...new Set(terms.data.flatMap((term) => term.testDays))]
    .filter((date) => date >= today && date <= farthest)
    .toSorted()
  // There is room for the last of them, and for a test to come.
  const last = [...dates, tests[0] ?? today].toSorted().at(-1)!
  const until = dates.length > 0 && last < farthest ? last : farthest
  const ahead = { today, until, tests: tests.filter((date) => date <= until) }
  const byTest = (test: string, after: string) => (person: Person) =>
    person.next.likely !== null && person.next.likely <= test && person.next.likely > after
  const lastTest = tests.at(-1) ?? ''
  const groups = [
    { name: 'Ready', people: people.filter(({ next }) => isReady(next)) },
    ...tests.map((test, at) => ({
      name: `Likely by the test of ${dayMonth(test)}`,
      people: people.filter(byTest(test, tests[at - 1] ?? '')),
    })),
    {
      name: tests.length > 0 ? 'Later' : 'Not yet',
      people: people.filter(({ next }) => (next.likely ?? '') > lastTest),
    },
    {
      name: 'No date yet',
      people: people.filter(({ next }) => !isReady(next) && !next.isUnsaid && next.likely === null),
    },
    { name: 'With nothing to judge by yet', people: people.filter(({ next }) => next.isUnsaid) },
  ].filter((group) => group.people.length > 0)
  return (
    <>
      <Heading
        title="Ready for the next sash"
        facts={
          <>
            <Link to={`/progress/${classId}`} className="quiet-link">
              {next.data.class}
            </Link>{' '}
            ·{' '}
            {groups
              .map((group) => `${group.people.length} ${group.name[0]!.toLowerCase()}${group.name.slice(1)}`)
              .join(', ')}
            {isHead && (
              <>
                {' · '}
                <Link to="/people?view=ladder" className="quiet-link">
                  what the ladder asks
                </Link>
              </>
            )}
          </>
        }
      >
        <ClassChoice
          classes={school.data.classes}
          value={classId}
          onChange={(id) => void navigate(`/progress/${id}/next-sash`)}
        />
        <a className="quiet-link" href={`/api/classes/${classId}/readiness.csv`} download>
          As a table
        </a>
      </Heading>
      {groups.length === 0 && (
        <Empty next={isHead && [{ name: 'What the ladder asks', to: '/people?view=ladder' }]}>
          Nobody of this class has a next sash: whoever is in it is at the top of the ladder.
        </Empty>
      )}
      {groups.length > 0 && (
        <div className={COLUMNS}>
          <div className="lg:col-start-2">
            <DaysAhead ahead={ahead} />
          </div>
        </div>
      )}
      {groups.map((group) => (
        <section key={group.name}>
          <h2 className="px-5 pt-4 pb-1">
            {group.name}: {counted(group.people.length, 'person', 'people')}
          </h2>
          <ul className="grid border-t border-line bg-paper">
            {group.people.map((person) => (
              <PersonRow key={person.studentId} {...{ person, classId, today, ahead }} />
            ))}
          </ul>
        </section>
      ))}
      <p className="max-w-prose px-5 py-4 text-soft">
        What is likely is reckoned from how often somebody came, and how much of it they reached, in the last twelve
        weeks. A square is time, a red dot something to correct, a green one something to be seen. What somebody came
        with counts once it has been seen here. Whether somebody passes is yours to say.
      </p>
    </>
  )
}

interface PersonRowProps {
  person: Person
  classId: string
  today: string
  ahead: Parameters<typeof WayToSash>[0]['ahead']
}

const COLUMNS = 'grid items-start gap-x-6 gap-y-2 px-5 lg:grid-cols-[220px_320px_minmax(0,1fr)]'

function PersonRow({ person, classId, today, ahead }: PersonRowProps) {
  const { next } = person
  return (
    <li className={`${COLUMNS} border-b border-line py-3`}>
      <div>
        <Link to={`/progress/${classId}?student=${person.studentId}`} className="flex items-center gap-2 font-bold">
          <Ribbon colour={person.sashColour} half={person.half} size={22} />
          {person.name}
        </Link>
        <p className="text-soft">
          {levelName(person)}, since {dayMonth(person.since)} {person.since.slice(0, 4)}
          {person.cohort !== levelName(person) && ` · with ${person.cohort}`}
        </p>
      </div>
      <div>
        <WayToSash next={next} ahead={ahead} />
        <p>
          <b>For {levelName(next)}.</b> {likelyWords(next, today)}
        </p>
      </div>
      <Lacks next={next} today={today} />
    </li>
  )
}
