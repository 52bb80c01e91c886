import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { principlesQuery } from '../shared/material'
import { useSignedIn } from '../shared/session'
import { newId } from '../ui/new-id'
import { Choice, Field } from '../ui/Field'
import { Option } from '../ui/Select'
import { blockWords } from '../ui/words'
import type { Arrangement } from './arranging'
import type { Arranging } from './ArrangingByHand'
import { lessonQuery, type Lesson } from './data'
import { WhoJoins } from './WhoJoins'

interface OtherwiseProps {
  lesson: Lesson
  arrangement: Arrangement
  arranging: Arranging
}

/** So many minutes a press. */
const STEP = 5

/** What is otherwise than planned tonight: how long it lasts, how many came, and what is to be done besides. */
export function OtherwiseTonight({ lesson, arrangement, arranging }: OtherwiseProps) {
  const { isHead } = useSignedIn()
  const { minutes, cohorts } = arrangement
  return (
    <div className="grid gap-3 rounded-lg border border-line bg-paper p-4 lg:grid-cols-[auto_auto_1fr_1fr] lg:gap-8">
      <div className="grid content-start gap-4 lg:w-52">
        <section>
          <h3>How long it lasts</h3>
          <Stepper
            label="minutes"
            value={minutes}
            less={() => arranging.edit({ kind: 'length', minutes: minutes - STEP })}
            more={() => arranging.edit({ kind: 'length', minutes: minutes + STEP })}
            disabled={arranging.busy}
          />
          {isHead && (
            <Link to={`/term/${lesson.classId}?lesson=${lesson.date}`} className="quiet-link mt-2 inline-block">
              Another hall, time or day
            </Link>
          )}
        </section>
        <Focus arrangement={arrangement} arranging={arranging} />
      </div>
      <section>
        <h3>How many come</h3>
        <ul>
          {cohorts.map((cohort) => (
            <li key={cohort.id} className="flex items-center justify-between gap-2 py-0.5">
              {cohort.name}
              <Stepper
                label={`in ${cohort.name}`}
                value={cohort.people}
                less={() => arranging.edit({ kind: 'people', cohortId: cohort.id, count: cohort.people - 1 })}
                more={() => arranging.edit({ kind: 'people', cohortId: cohort.id, count: cohort.people + 1 })}
                disabled={arranging.busy}
              />
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Who else comes">
        <h3>Who else comes</h3>
        <WhoJoins {...{ lesson, arrangement }} busy={arranging.busy} join={(edit) => arranging.edit(edit)} />
      </section>
      <AddBlock {...{ lesson, arrangement, arranging }} />
    </div>
  )
}

const NO_FOCUS = 'none'

/** One principle the lesson is about above all; what else goes wrong is recorded, and not called. */
function Focus({ arrangement, arranging }: Omit<OtherwiseProps, 'lesson'>) {
  const principles = useQuery(principlesQuery()).data ?? []
  const now = principles.find(({ text }) => text.name === arrangement.focus)
  return (
    <section>
      <h3>The focus</h3>
      <div className="grid gap-1">
        <Choice
          label="Above all"
          value={now?.id ?? NO_FOCUS}
          onChange={(id) => {
            const chosen = principles.find((principle) => principle.id === id)
            arranging.edit({ kind: 'focus', principleId: chosen?.id ?? null, name: chosen?.text.name ?? '' })
          }}
        >
          <Option value={NO_FOCUS}>nothing in particular</Option>
          {principles.map(({ id, text }) => (
            <Option key={id} value={id}>
              {text.name}
            </Option>
          ))}
        </Choice>
        {now && (
          <p className="text-soft">
            Faults of other principles are recorded and not called, but for those of a key point.
          </p>
        )}
      </div>
    </section>
  )
}

function Stepper({
  label,
  value,
  less,
  more,
  disabled,
}: {
  label: string
  value: number
  less: () => void
  more: () => void
  disabled: boolean
}) {
  return (
    <span className="flex items-center gap-1">
      <button
        type="button"
        className="button"
        aria-label={`Fewer ${label}`}
        disabled={disabled || value < 1}
        onClick={less}
      >
        −
      </button>
      <span className="w-12 text-center" aria-live="polite">
        {value}
      </span>
      <button type="button" className="button" aria-label={`More ${label}`} disabled={disabled} onClick={more}>
        +
      </button>
    </span>
  )
}

const addable = ['review', 'reTeach', 'watch', 'partner', 'talk', 'rest'] as const

/** A block nobody has planned, for one cohort. */
function AddBlock({ lesson, arrangement, arranging }: OtherwiseProps) {
  const sheets = useQuery(lessonQuery(lesson)).data?.cohorts
  const [cohort, setCohort] = useState(arrangement.cohorts[0]?.id ?? '')
  const [kind, setKind] = useState<Schema['BlockKind']>('reTeach')
  const [what, setWhat] = useState('')
  const [minutes, setMinutes] = useState('5')
  const long = Number(minutes)
  const material = sheets?.find((one) => one.cohortId === cohort)?.material ?? []
  const meant = material.find((one) => one.name === what.trim())
  const fits = Number.isInteger(long) && long >= 1 && long <= 60
  return (
    <form
      className="grid content-start gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!fits || !what.trim()) return
        arranging.edit({
          kind: 'add',
          task: {
            key: newId(),
            kind,
            cohortIds: [cohort],
            minutes: long,
            what: what.trim(),
            because: 'Added by hand.',
            material: meant ? [{ postureId: meant.postureId, side: meant.side }] : [],
          },
        })
        setWhat('')
      }}
    >
      <h3>Add a block</h3>
      <div className="grid grid-cols-2 gap-2">
        <Choice label="For" value={cohort} onChange={setCohort}>
          {arrangement.cohorts.map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}
            </Option>
          ))}
        </Choice>
        <Choice label="Kind" value={kind} onChange={(value) => setKind(value)}>
          {addable.map((one) => (
            <Option key={one} value={one}>
              {blockWords[one]}
            </Option>
          ))}
        </Choice>
        <Field label="What" value={what} onChange={setWhat} suggestions={material.map(({ name }) => name)} />
        <Field label="Minutes" value={minutes} onChange={setMinutes} error={fits ? undefined : '1 to 60 minutes.'} />
      </div>
      <button type="submit" className="button justify-self-start" disabled={arranging.busy || !fits || !what.trim()}>
        Add it
      </button>
    </form>
  )
}
