import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { peopleQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { useWaiting } from '../shared/waiting'
import { WaitingNote } from '../shared/WaitingNote'
import { Kbd } from '../ui/Kbd'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { counted } from '../ui/words'
import { ClassChoice } from './ClassChoice'
import { CorrectionCard } from './CorrectionCard'
import { correctionsQuery } from './data'
import { AgainstCard, HabitCard } from './HabitCards'
import { useAgainst, useTried } from './use-tried'

type Person = ReturnType<typeof withParts>
type Show = 'all' | 'stuck' | 'keyPoint'

/** Everything that is to be corrected in a class, person by person: what is stuck, what was tried, and what could be tried next. */
export function CorrectionsScreen() {
  const { classId } = useParams() as { classId: string }
  const { isHead, person } = useSignedIn()
  const teaches = person.role !== 'assistant'
  const navigate = useNavigate()
  const [show, setShow] = useState<Show>('all')
  const school = useQuery(peopleQuery())
  const corrections = useQuery(correctionsQuery(classId))
  const tried = useTried(classId)
  const seen = useAgainst(classId)
  const waiting = useWaiting()
  const { last, undo } = useUndo()
  if (!school.data || !corrections.data) return <Opening of={[school, corrections]} what="Opening the corrections" />
  const people = corrections.data.people.map(withParts)
  const all = people.flatMap((person) => [...person.against, ...person.corrections])
  const count = (of: Show) => all.filter((about) => isShown(about, of)).length
  const shown = people
    .map((person) => ({
      ...person,
      against: person.against.filter((about) => isShown(about, show)),
      corrections: person.corrections.filter((about) => isShown(about, show)),
    }))
    .filter((person) => person.against.length + person.corrections.length > 0)
  const habits = people.reduce((sum, person) => sum + person.habits.length, 0)
  return (
    <>
      <Heading
        title="What to correct"
        facts={
          <>
            <Link to={`/progress/${classId}`} className="quiet-link">
              {corrections.data.class}
            </Link>{' '}
            · {counted(all.length, 'correction')} open, {count('stuck')} stuck
            {habits > 0 && ` · ${counted(habits, 'habit')}`}
            {teaches && (
              <>
                {' · '}
                <Link to="/progress/patterns" className="quiet-link">
                  over the years
                </Link>
              </>
            )}
          </>
        }
      >
        <ToggleGroup
          label="Show"
          value={show}
          options={[
            { value: 'all', name: `All ${all.length}` },
            { value: 'keyPoint', name: `Key points ${count('keyPoint')}` },
            { value: 'stuck', name: `Stuck ${count('stuck')}` },
          ]}
          onChange={setShow}
        />
        <ClassChoice
          classes={school.data.classes}
          value={classId}
          onChange={(id) => void navigate(`/progress/${id}/corrections`)}
        />
        <button type="button" className="button" disabled={!last} onClick={undo}>
          Undo <Kbd>z</Kbd>
        </button>
        <a className="quiet-link" href="/api/corrections.csv" download>
          As a table
        </a>
      </Heading>
      {all.length === 0 ? (
        <Empty next={isHead && [{ name: 'Who can do what', to: `/progress/${classId}` }]}>
          Nothing is open: nobody has a correction that is not cleared.
        </Empty>
      ) : (
        <ul className="grid border-t border-line bg-paper">
          {shown.map((person) => (
            <PersonRow key={person.studentId} person={person} classId={classId} tried={tried} seen={seen} />
          ))}
          {shown.length === 0 && <li className="p-5 text-soft">None of them.</li>}
        </ul>
      )}
      <div className="sticky bottom-0 max-md:bottom-14">
        <WaitingNote entries={waiting.filter((entry) => entry.kind === 'register')} />
      </div>
    </>
  )
}

/** What is part of a correction against a principle is no correction by itself. */
const withParts = ({ against, corrections, ...person }: Schema['CorrectionsPerson']) => {
  const partOf = (about: Schema['CorrectionsAbout']) =>
    against.find(({ principleId }) => principleId === about.correction.principleId)
  return {
    ...person,
    against: against.map((one) => ({ ...one, parts: corrections.filter((about) => partOf(about) === one) })),
    corrections: corrections.filter((about) => !partOf(about)),
  }
}

const isShown = ({ correction }: Pick<Person['corrections'][number], 'correction'>, show: Show) =>
  show === 'all' || (show === 'stuck' ? correction.stuck : correction.weight === 'keyPoint')

function PersonRow({
  person,
  classId,
  tried,
  seen,
}: {
  person: Person
  classId: string
  tried: ReturnType<typeof useTried>
  seen: ReturnType<typeof useAgainst>
}) {
  const { studentId, name: student } = person
  return (
    <li className="grid gap-3 border-b border-line px-5 py-3 lg:grid-cols-[200px_minmax(0,1fr)]">
      <div>
        <Link to={`/progress/${classId}?student=${studentId}`} className="flex items-center gap-2 font-bold">
          <Ribbon colour={person.sashColour} half={person.half} size={22} />
          {student}
        </Link>
        <p className="text-soft">{person.cohort}</p>
      </div>
      <div className="grid gap-3">
        {person.habits.map((habit) => (
          <HabitCard key={habit.principleId} habit={habit} student={{ studentId, student }} seen={seen} />
        ))}
        <div className="grid gap-4">
          {person.against.map((against) => (
            <AgainstCard
              key={against.principleId}
              wide
              against={against}
              parts={against.parts}
              student={{ studentId, student }}
              seen={seen}
              tried={tried}
            />
          ))}
          {person.corrections.map(({ correction, ...of }) => (
            <CorrectionCard
              key={of.postureId + of.side + (of.from?.postureId ?? '') + correction.words}
              about={of.name}
              wide
              correction={correction}
              tried={tried?.({ studentId, student, ...of }, correction)}
            />
          ))}
        </div>
      </div>
    </li>
  )
}
