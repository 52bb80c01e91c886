import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Checkbox } from '../ui/Checkbox'
import { Choice, Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Option } from '../ui/Select'
import type { Arrangement, LessonEdit } from './arranging'
import { whoCouldJoinQuery, type Lesson } from './data'

type Joining = Arrangement['joining'][number]

interface WhoJoinsProps {
  lesson: Lesson
  arrangement: Arrangement
  /** Only with this cohort; all of them otherwise. */
  cohortId?: string
  busy?: boolean
  join: (edit: LessonEdit, says: string) => void
}

/** Who is with a cohort tonight that is not theirs, and somebody more. */
export function WhoJoins({ lesson, arrangement, cohortId, busy = false, join }: WhoJoinsProps) {
  const shown = arrangement.joining.filter((one) => cohortId === undefined || one.cohortId === cohortId)
  const nameOf = (id: string) => arrangement.cohorts.find((cohort) => cohort.id === id)?.name ?? ''
  return (
    <div className="grid gap-2">
      {shown.length > 0 && (
        <ul>
          {shown.map((one) => (
            <li key={one.who} className="flex flex-wrap items-center gap-x-3">
              <span>
                {cohortId === undefined && `${nameOf(one.cohortId)}: `}
                <b>{one.name}</b>
                {howOf(one)}
              </span>
              <button
                type="button"
                className="quiet-link"
                disabled={busy}
                onClick={() => join(joins(one, null), `${one.name} is not with ${nameOf(one.cohortId)} after all`)}
              >
                Not after all
              </button>
            </li>
          ))}
        </ul>
      )}
      {/* Begun anew once somebody has joined. */}
      <SomebodyMore
        key={arrangement.joining.length}
        {...{ lesson, arrangement, cohortId, busy }}
        join={(one) => join(joins(one, one.cohortId), `${one.name} is with ${nameOf(one.cohortId)}`)}
      />
    </div>
  )
}

const howOf = ({ mode, neverAlone }: Joining) =>
  `${mode === null ? ', a visitor' : `, ${mode}`}${neverAlone ? '; somebody stays with them' : ''}`

const joins = ({ who, name, neverAlone }: Joining, cohortId: string | null): LessonEdit => ({
  kind: 'joins',
  who,
  name,
  cohortId,
  from: null,
  neverAlone,
})

/** Why somebody is taken as a visitor, and what is asked of them then. */
function visitorWords(isListThere: boolean, severalMeant: boolean) {
  if (severalMeant) return 'More than one has this name: choose from the list, or they are taken as a visitor.'
  const why = isListThere
    ? 'A visitor: nobody the school keeps records of.'
    : 'Who learns here cannot be asked without the network: they are taken as a visitor.'
  return `${why} Ask what hurts and what they must not do before they move.`
}

function SomebodyMore({
  lesson,
  arrangement,
  cohortId,
  busy,
  join,
}: Omit<WhoJoinsProps, 'join'> & { join: (one: Joining) => void }) {
  const known = useQuery(whoCouldJoinQuery(lesson)).data
  const [typed, setName] = useState('')
  const [chosen, setCohort] = useState(arrangement.cohorts[0]?.id ?? '')
  const [needs, setNeeds] = useState(false)
  const cohort = arrangement.cohorts.find((one) => one.id === (cohortId ?? chosen))
  const name = typed.trim()
  const others = (known ?? [])
    .filter(({ group }) => group !== cohort?.name)
    .map((person) => ({ ...person, says: person.group ? `${person.name}, ${person.group}` : person.name }))
  const meant = others.filter((person) => person.says === name || person.name === name)
  const person = meant.length === 1 ? meant[0] : undefined
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!name || !cohort) return
        join({
          who: person?.studentId ?? newId(),
          name: person?.name ?? name,
          cohortId: cohort.id,
          mode: null,
          neverAlone: !person && needs,
        })
      }}
    >
      <div className={`grid gap-2 ${cohortId === undefined ? 'grid-cols-2' : ''}`}>
        <Field
          label="Who"
          value={typed}
          onChange={setName}
          maxLength={80}
          suggestions={others.map(({ says }) => says)}
        />
        {cohortId === undefined && (
          <Choice label="With" value={chosen} onChange={setCohort}>
            {arrangement.cohorts.map((one) => (
              <Option key={one.id} value={one.id}>
                {one.name}
              </Option>
            ))}
          </Choice>
        )}
      </div>
      {name && (
        <p className="text-soft">
          {person
            ? `${person.group || 'In no group yet'}. Done as they do it there.`
            : visitorWords(known !== undefined, meant.length > 1)}
        </p>
      )}
      {name && !person && (
        <Checkbox checked={needs} onChange={setNeeds}>
          Holds on, sits or is unsteady: somebody stays with them
        </Checkbox>
      )}
      <button type="submit" className="button justify-self-start" disabled={busy || !name || !cohort}>
        {cohort ? `Is with ${cohort.name} tonight` : 'Is there tonight'}
      </button>
    </form>
  )
}
