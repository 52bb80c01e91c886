import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useDraft } from '../shared/draft'
import { ChoiceField, DraftProblem, SaveBar, TextField } from '../shared/fields'
import { Opening } from '../shared/Opening'
import { useSignedIn } from '../shared/session'
import { Choice } from '../ui/Field'
import { Option } from '../ui/Select'
import { weekdayWords } from '../ui/words'
import { saveSchool, schoolQuery, type SchoolText } from './data'
import { placeIn, regions, timeIn, zoneHere } from './zones'

const shown = (field: string) => ['name', 'place', 'timeZone'].includes(field)

/** What the school is called, where it is, and how it writes. */
export function NameForm() {
  const { isHead } = useSignedIn()
  const school = useQuery(schoolQuery())
  if (!school.data) return <Opening of={[school]} what="Opening the school" />
  return isHead ? (
    <Writing text={school.data.text} version={school.data.version} />
  ) : (
    <p className="max-w-prose">
      {school.data.text.name}
      {school.data.text.place && `, ${school.data.text.place}`}. Its lessons happen in the time zone{' '}
      {school.data.text.timeZone}. Your head of school can change this.
    </p>
  )
}

function Writing({ text, version }: { text: SchoolText; version: number }) {
  const [here] = useState(zoneHere)
  // Offered from the computer it is read on, and only kept once it has been read and saved.
  const offered = text.timeZone === null
  const draft = useDraft<SchoolText>({
    about: ['school'],
    what: 'the school’s name and place',
    text: offered ? { ...text, timeZone: here } : text,
    version,
  })
  const save = useMutation(saveSchool)
  return (
    <form
      className="grid max-w-3xl gap-4"
      noValidate
      onSubmit={draft.submit((wanted, from) => save.mutateAsync({ text: wanted, version: from! }))}
    >
      <h2 className="text-lg">What the school is called, and where it is</h2>
      <div className="grid gap-4 sm:grid-cols-2">
        <TextField draft={draft} name="name" label="Name of the school" maxLength={80} />
        <TextField draft={draft} name="place" label="Place" maxLength={80} />
      </div>
      <Zone
        zone={draft.text.timeZone ?? here}
        offered={offered}
        error={draft.at('timeZone')}
        choose={(timeZone) => draft.change({ timeZone })}
      />
      <h2 className="mt-2 text-lg">How it writes</h2>
      <div className="grid gap-4 sm:grid-cols-3">
        <ChoiceField draft={draft} name="weekStart" label="The week begins on">
          {(['monday', 'sunday', 'saturday'] as const).map((day) => (
            <Option key={day} value={day}>
              {weekdayWords[day]}
            </Option>
          ))}
        </ChoiceField>
        <ChoiceField draft={draft} name="dates" label="Dates">
          <Option value="dayMonthYear">24 Nov 2026</Option>
          <Option value="monthDayYear">Nov 24, 2026</Option>
          <Option value="yearMonthDay">2026-11-24</Option>
        </ChoiceField>
        <ChoiceField draft={draft} name="decimals" label="Numbers">
          <Option value="point">8.5 m</Option>
          <Option value="comma">8,5 m</Option>
        </ChoiceField>
      </div>
      <DraftProblem draft={draft} shown={shown} />
      <SaveBar draft={draft} save="Save the school" />
      {save.isSuccess && !draft.dirty && (
        <p role="status" className="text-pine">
          Saved. Dates, calendars and the day shown on Today follow it from now on.
        </p>
      )}
    </form>
  )
}

/** A zone by part of the world and place, with the time it is there: the surest sign that it is the right one. */
function Zone({
  zone,
  offered,
  error,
  choose,
}: {
  zone: string
  offered: boolean
  error?: string
  choose: (zone: string) => void
}) {
  const region = zone.split('/')[0]!
  const places = regions().get(region) ?? []
  return (
    <div className="grid gap-1">
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice
          label="Time zone: part of the world"
          value={regions().has(region) ? region : ''}
          placeholder="choose"
          onChange={(next) => choose(regions().get(next)![0]!)}
        >
          {[...regions().keys()].map((name) => (
            <Option key={name} value={name}>
              {placeIn(name)}
            </Option>
          ))}
        </Choice>
        <Choice label="Time zone: place" value={zone} error={error} onChange={choose}>
          {(places.includes(zone) ? places : [zone, ...places]).map((name) => (
            <Option key={name} value={name}>
              {placeIn(name)}
            </Option>
          ))}
        </Choice>
      </div>
      <p className="text-soft">
        It is {timeIn(zone)} there now.{' '}
        {offered && 'This is what the computer you sit at is set to; change it if the school is somewhere else.'}
      </p>
    </div>
  )
}
