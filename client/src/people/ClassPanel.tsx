import { useMutation, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { Choice, Field, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Rows } from '../ui/Rows'
import { Refusal } from '../ui/states'
import { clockTime, people, weekdayWords } from '../ui/words'
import { useRefreshPeople, useTerm, type Meeting, type School } from './queries'

type Text = Schema['ClassText']

/** When and where a class meets and who teaches it. What collides is said while it is written, with ways out. */
export function ClassPanel({ meeting, school, close }: { meeting?: Meeting; school: School; close: () => void }) {
  const refresh = useRefreshPeople()
  const term = useTerm()
  const [text, setText] = useState<Text>(() =>
    meeting
      ? {
          name: meeting.name,
          weekday: meeting.weekday,
          start: meeting.start,
          minutes: meeting.minutes,
          hallId: meeting.hallId,
          staffIds: meeting.staffIds,
          substitutes: meeting.substitutes,
        }
      : {
          name: '',
          weekday: 'tuesday',
          start: '18:30:00',
          minutes: 90,
          hallId: school.halls[0]?.id ?? '',
          staffIds: [],
          substitutes: [],
        },
  )
  const change = (part: Partial<Text>) => setText((before) => ({ ...before, ...part }))
  const asked = useDeferredValue(text)
  const check = useQuery({
    queryKey: ['class-check', meeting?.id ?? null, asked],
    enabled: asked.hallId !== '' && asked.minutes > 0,
    queryFn: () => answer(api.POST('/api/classes/check', { body: { classId: meeting?.id ?? null, text: asked } })),
    placeholderData: (before) => before,
  })
  const save = useMutation({
    mutationFn: async () => {
      if (meeting)
        await answer(
          api.PUT('/api/classes/{id}', {
            params: { path: { id: meeting.id } },
            body: { text, version: meeting.version },
          }),
        )
      else await answer(api.POST('/api/classes', { body: { id: newId(), text } }))
    },
    onSuccess: () => {
      void refresh()
      close()
    },
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const shown = [
    'name',
    'weekday',
    'start',
    'minutes',
    'hallId',
    'staffIds',
    ...text.staffIds.map((_, at) => `staffIds[${at}]`),
    ...text.substitutes.flatMap((_, at) => ['date', 'awayId', 'insteadId'].map((part) => `substitutes[${at}].${part}`)),
  ]
  const take = (way: Schema['WayOut']) =>
    change({
      ...(way.hallId && { hallId: way.hallId }),
      ...(way.start && { start: way.start }),
      ...(way.staffOutId && { staffIds: text.staffIds.map((id) => (id === way.staffOutId ? way.staffInId! : id)) }),
    })
  return (
    <Panel title={meeting?.name ?? 'New class'} close={close}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Field label="Name" value={text.name} onChange={(name) => change({ name })} error={problem?.at('name')} />
        <div className="grid grid-cols-3 gap-3">
          <Choice
            label="Weekday"
            value={text.weekday}
            onChange={(value) => change({ weekday: value as Text['weekday'] })}
            error={problem?.at('weekday')}
          >
            {Object.entries(weekdayWords).map(([value, word]) => (
              <option key={value} value={value}>
                {word}
              </option>
            ))}
          </Choice>
          <Field
            label="Starts at"
            type="time"
            required
            value={clockTime(text.start)}
            onChange={(start) => change({ start: `${start}:00` })}
            error={problem?.at('start')}
          />
          <Field
            label="Minutes"
            type="number"
            required
            value={String(text.minutes)}
            onChange={(minutes) => change({ minutes: Math.trunc(Number(minutes)) })}
            error={problem?.at('minutes')}
          />
        </div>
        <Choice
          label="Hall"
          value={text.hallId}
          onChange={(hallId) => change({ hallId })}
          error={problem?.at('hallId')}
        >
          {school.halls.map((hall) => (
            <option key={hall.id} value={hall.id}>
              {hall.name}, {hall.width} × {hall.depth} m
            </option>
          ))}
        </Choice>
        <fieldset>
          <legend className="font-semibold">Staff</legend>
          {school.staff.map((member) => (
            <label key={member.id} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                checked={text.staffIds.includes(member.id)}
                onChange={(event) =>
                  change({
                    staffIds: event.target.checked
                      ? [...text.staffIds, member.id]
                      : text.staffIds.filter((id) => id !== member.id),
                  })
                }
              />
              {member.name} <span className="text-soft">{member.role}</span>
            </label>
          ))}
          <FieldError error={problem?.at('staffIds')} />
        </fieldset>
        {(check.data ?? []).map((concern) => (
          <div
            key={concern.field + concern.message}
            role={concern.blocks ? 'alert' : 'status'}
            className={`border-l-4 pl-3 ${concern.blocks ? 'border-lacquer' : 'border-ochre-mark'}`}
          >
            <p className="font-semibold">{concern.message}</p>
            <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
              {concern.ways.length > 0 ? (
                <span className="text-soft">Instead:</span>
              ) : (
                <span className="text-soft">No hall, time or teacher is free for it that day.</span>
              )}
              {concern.ways.map((way) => (
                <button key={way.label} type="button" className="quiet-link" onClick={() => take(way)}>
                  {way.label}
                </button>
              ))}
            </p>
          </div>
        ))}
        {meeting && (
          <Rows
            label="Away on one date"
            items={text.substitutes}
            add="Somebody is away"
            make={() => ({ date: term?.start ?? '', awayId: text.staffIds[0] ?? '', insteadId: null })}
            onChange={(substitutes) => change({ substitutes })}
          >
            {(one, edit, at) => (
              <>
                <Field
                  label="Date"
                  type="date"
                  value={one.date}
                  onChange={(date) => edit({ date })}
                  error={problem?.at(`substitutes[${at}].date`)}
                />
                <div className="grid grid-cols-2 gap-2">
                  <StaffChoice
                    label="Away"
                    ids={text.staffIds}
                    value={one.awayId}
                    school={school}
                    onChange={(awayId) => edit({ awayId })}
                    error={problem?.at(`substitutes[${at}].awayId`)}
                  />
                  <StaffChoice
                    label="Instead"
                    none="nobody"
                    ids={school.staff.map((member) => member.id).filter((id) => !text.staffIds.includes(id))}
                    value={one.insteadId ?? ''}
                    school={school}
                    onChange={(insteadId) => edit({ insteadId: insteadId || null })}
                    error={problem?.at(`substitutes[${at}].insteadId`)}
                  />
                </div>
              </>
            )}
          </Rows>
        )}
        {save.isError && <Refusal error={save.error} shown={shown} reload={() => void refresh()} />}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {meeting ? 'Save the class' : 'Add the class'}
        </button>
      </form>
      {meeting && <Removal meeting={meeting} school={school} close={close} />}
    </Panel>
  )
}

function StaffChoice({
  label,
  ids,
  value,
  school,
  onChange,
  none,
  error,
}: {
  label: string
  ids: string[]
  value: string
  school: School
  onChange: (id: string) => void
  none?: string
  error?: string
}) {
  return (
    <Choice label={label} value={value} onChange={onChange} error={error}>
      {none && <option value="">{none}</option>}
      {ids.map((id) => (
        <option key={id} value={id}>
          {school.staff.find((member) => member.id === id)?.name}
        </option>
      ))}
    </Choice>
  )
}

/** Ends a class: whoever learns in it goes to a cohort of another one first. */
function Removal({ meeting, school, close }: { meeting: Meeting; school: School; close: () => void }) {
  const refresh = useRefreshPeople()
  const [open, setOpen] = useState(false)
  const [into, setInto] = useState<Record<string, string>>({})
  const remove = useMutation({
    mutationFn: () =>
      answer(api.POST('/api/classes/{id}/removal', { params: { path: { id: meeting.id } }, body: { into } })),
    onSuccess: () => {
      void refresh()
      close()
    },
  })
  if (!open) {
    return (
      <button type="button" className="quiet-link justify-self-start" onClick={() => setOpen(true)}>
        End this class
      </button>
    )
  }
  const others = school.classes
    .filter((one) => one.id !== meeting.id)
    .flatMap((one) => one.cohorts.map((cohort) => ({ ...cohort, class: one.name })))
  return (
    <section className="grid gap-3 border-t border-line pt-3">
      <p>A class that has been taught is closed and keeps its history; one that never met goes altogether.</p>
      {meeting.cohorts
        .filter((cohort) => cohort.students > 0)
        .map((cohort) => (
          <Choice
            key={cohort.id}
            label={`${cohort.name}, ${people(cohort.students)}, to`}
            value={into[cohort.id] ?? ''}
            onChange={(id) => setInto({ ...into, [cohort.id]: id })}
          >
            <option value="" disabled>
              choose a cohort
            </option>
            {others.map((other) => (
              <option key={other.id} value={other.id}>
                {other.class}: {other.name}
              </option>
            ))}
          </Choice>
        ))}
      {remove.isError && <Refusal error={remove.error} />}
      <button
        type="button"
        className="button justify-self-start"
        disabled={remove.isPending}
        onClick={() => remove.mutate()}
      >
        End {meeting.name}
      </button>
    </section>
  )
}
