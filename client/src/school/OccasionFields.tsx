import { useState } from 'react'
import type { Schema } from '../api/client'
import type { Draft } from '../shared/draft'
import { ChoiceField, TextField } from '../shared/fields'
import { Checkbox } from '../ui/Checkbox'
import { FieldError } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Lines } from '../ui/Rows'
import { Option } from '../ui/Select'
import { demandWords } from '../ui/words'
import type { Teaching } from './data'

type Occasion = Teaching['occasions'][number]

const trainings: Record<Schema['Training'], string> = {
  shiftingWeight: 'shifting the weight',
  stepping: 'stepping',
  emptyingAFoot: 'emptying a foot',
  turningTheWaist: 'turning from the waist',
  carryingTheArms: 'carrying the arms',
  standingStill: 'being still',
}
const posed: Record<Schema['HouseholdOccasionPosed'], string> = {
  free: 'whoever stands freely',
  holding: 'whoever holds on',
  sitting: 'whoever sits',
}
const demands = Object.keys(demandWords) as Schema['Demand'][]

interface OccasionFieldsProps {
  draft: Draft<Teaching>
  /** What Zeitplan came with. */
  shipped: readonly Occasion[]
  readOnly: boolean
}

/** The moments of a day into which practice at home can be worked: the school's own beside what it began with. */
export function OccasionFields({ draft, shipped, readOnly }: OccasionFieldsProps) {
  const { occasions } = draft.text
  const [open, setOpen] = useState<string>()
  const set = (next: Occasion[]) => draft.change({ occasions: next })
  const gone = shipped.filter((one) => occasions.every((other) => other.id !== one.id))
  return (
    <fieldset disabled={readOnly} className="grid max-w-3xl gap-3">
      <legend className="mb-1 font-serif text-base">Moments of the day, for practice at home</legend>
      <p className="text-soft">
        Each sheet for home offers one: what trains most of what somebody practises, and asks nothing of them that they
        must not be asked for.
      </p>
      <ul className="border-t border-line bg-paper">
        {occasions.map((one, at) => (
          <li key={one.id} className="border-b border-fine px-3 py-2">
            <button
              type="button"
              className="quiet-link"
              aria-expanded={one.id === open}
              onClick={() => setOpen(one.id === open ? undefined : one.id)}
            >
              {one.when || 'No name yet'}
            </button>
            <span className="text-soft"> · {trainings[one.trains]}</span>
            {one.id === open && (
              <OccasionNow
                draft={draft}
                at={at}
                change={(part) => set(occasions.map((old) => (old.id === one.id ? { ...old, ...part } : old)))}
                takeOut={readOnly ? undefined : () => set(occasions.filter((old) => old.id !== one.id))}
              />
            )}
            {one.id !== open &&
              ['when', 'how', 'for'].map((field) => (
                <FieldError key={field} error={draft.at(`occasions[${at}].${field}`)} />
              ))}
          </li>
        ))}
        {occasions.length === 0 && <li className="px-3 py-2 text-soft">None: sheets for home offer no moment.</li>}
      </ul>
      {!readOnly && (
        <div className="flex flex-wrap gap-3">
          <button
            type="button"
            className="button"
            onClick={() => {
              const id = newId()
              set([...occasions, { id, when: '', how: '', trains: 'shiftingWeight', asks: [], for: ['free'] }])
              setOpen(id)
            }}
          >
            Add a moment
          </button>
          {gone.map((one) => (
            <button key={one.id} type="button" className="button" onClick={() => set([...occasions, one])}>
              Take back “{one.when}”
            </button>
          ))}
        </div>
      )}
      <FieldError error={draft.at('occasions')} />
    </fieldset>
  )
}

function OccasionNow({
  draft,
  at,
  change,
  takeOut,
}: {
  draft: Draft<Teaching>
  at: number
  change: (part: Partial<Occasion>) => void
  takeOut: (() => void) | undefined
}) {
  const one = draft.text.occasions[at]!
  return (
    <div className="mt-2 grid gap-3 border-l-4 border-pine py-2 pl-4">
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField draft={draft} name={`occasions.${at}.when`} label="When" placeholder="While the kettle boils" />
        <ChoiceField draft={draft} name={`occasions.${at}.trains`} label="What it trains">
          {Object.entries(trainings).map(([value, name]) => (
            <Option key={value} value={value}>
              {name}
            </Option>
          ))}
        </ChoiceField>
      </div>
      <Lines
        label="What is done then"
        value={[one.how]}
        error={draft.at(`occasions[${at}].how`)}
        readOnly={draft.saving}
        onChange={(lines) => change({ how: lines.join(' ') })}
      />
      <Several
        label="For"
        words={posed}
        all={Object.keys(posed) as Schema['HouseholdOccasionPosed'][]}
        value={one.for}
        onChange={(value) => change({ for: value })}
      />
      <FieldError error={draft.at(`occasions[${at}].for`)} />
      <Several
        label="It asks for"
        words={demandWords}
        all={demands}
        value={one.asks}
        onChange={(value) => change({ asks: value })}
      />
      {takeOut && (
        <button type="button" className="quiet-link justify-self-start" onClick={takeOut}>
          Take this moment out
        </button>
      )}
    </div>
  )
}

/** Some of a few, each for itself. */
function Several<T extends string>({
  label,
  words,
  all,
  value,
  onChange,
}: {
  label: string
  words: Record<T, string>
  all: readonly T[]
  value: readonly T[]
  onChange: (value: T[]) => void
}) {
  return (
    <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
      <legend className="mb-1 font-semibold">{label}</legend>
      {all.map((one) => (
        <Checkbox
          key={one}
          checked={value.includes(one)}
          onChange={(checked) => onChange(all.filter((other) => (other === one ? checked : value.includes(other))))}
        >
          {words[one]}
        </Checkbox>
      ))}
    </fieldset>
  )
}
