import { useMutation, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import {
  ChoiceField,
  DateInput,
  DraftProblem,
  DraftRows,
  NumberInput,
  SaveBar,
  TextField,
  TimeInput,
} from '../shared/fields'
import { leave } from '../shared/leaving'
import { AlertDialog } from '../ui/AlertDialog'
import { Checkbox } from '../ui/Checkbox'
import { Choice, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { people, weekdayWords } from '../ui/words'
import { classCheckQuery, endClass, saveClass, useTerm, type School, type SchoolClass } from './data'
import { schoolWeek } from '../ui/writing'

type Text = Schema['ClassText']

const textOf = ({ name, weekday, start, minutes, hallId, staffIds, substitutes }: SchoolClass): Text => ({
  name,
  weekday,
  start,
  minutes,
  hallId,
  staffIds,
  substitutes,
})

const fresh = (school: School): Text => ({
  name: '',
  weekday: 'tuesday',
  start: '18:30:00',
  minutes: 90,
  hallId: school.halls[0]?.id ?? '',
  staffIds: [],
  substitutes: [],
})

const shown = (field: string) =>
  /^(name|weekday|start|minutes|hallId|staffIds)/.test(field) || /^substitutes\[\d+\]\./.test(field)

/** When and where a class meets and who teaches it. What collides is said while it is written, with ways out. */
export function ClassPanel({
  schoolClass,
  school,
  close,
}: {
  schoolClass?: SchoolClass
  school: School
  close: () => void
}) {
  const term = useTerm()
  const draft = useDraft<Text>({
    about: ['class', schoolClass?.id ?? 'new'],
    what: schoolClass ? `the class ${schoolClass.name}` : 'the new class',
    text: schoolClass ? textOf(schoolClass) : fresh(school),
    version: schoolClass?.version ?? null,
  })
  const save = useMutation(saveClass)
  const asked = useDeferredValue(draft.text)
  const check = useQuery(classCheckQuery(schoolClass?.id ?? null, asked))
  const { text, change } = draft
  const take = (way: Schema['WayOut']) =>
    change({
      ...(way.hallId && { hallId: way.hallId }),
      ...(way.start && { start: way.start }),
      ...(way.staffOutId && { staffIds: text.staffIds.map((id) => (id === way.staffOutId ? way.staffInId! : id)) }),
    })
  // Who teaches here no longer is not offered, and stays where they stand until somebody else does.
  const teachers = school.staff.filter(({ id, closed }) => !closed || text.staffIds.includes(id))
  const staffOptions = (ids: string[]) =>
    ids.map((id) => (
      <Option key={id} value={id}>
        {school.staff.find((member) => member.id === id)?.name}
      </Option>
    ))
  return (
    <Panel title={schoolClass?.name ?? 'New class'} close={() => leave(close)} forWriting>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit(
          (wanted, version) => save.mutateAsync({ id: schoolClass?.id ?? draft.made, text: wanted, version }),
          close,
        )}
      >
        <TextField draft={draft} name="name" label="Name" />
        <div className="grid grid-cols-3 gap-3">
          <ChoiceField draft={draft} name="weekday" label="Weekday">
            {schoolWeek().map((value) => (
              <Option key={value} value={value}>
                {weekdayWords[value]}
              </Option>
            ))}
          </ChoiceField>
          <TimeInput draft={draft} name="start" label="Starts at" />
          <NumberInput draft={draft} name="minutes" label="Minutes" />
        </div>
        <ChoiceField draft={draft} name="hallId" label="Hall" placeholder="choose a hall">
          {school.halls.map((hall) => (
            <Option key={hall.id} value={hall.id}>
              {hall.name}, {hall.width} × {hall.depth} m
            </Option>
          ))}
        </ChoiceField>
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 font-semibold">Staff</legend>
          {teachers.map((member) => (
            <Checkbox
              key={member.id}
              checked={text.staffIds.includes(member.id)}
              onChange={(here) =>
                change({
                  staffIds: here ? [...text.staffIds, member.id] : text.staffIds.filter((id) => id !== member.id),
                })
              }
            >
              {member.name} <span className="text-soft">{member.role}</span>
            </Checkbox>
          ))}
          <FieldError error={draft.at('staffIds')} />
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
        {schoolClass && (
          <DraftRows
            draft={draft}
            name="substitutes"
            label="Away on one date"
            add="Somebody is away"
            make={() => ({ date: term?.start ?? '', awayId: text.staffIds[0] ?? '', insteadId: null })}
          >
            {(_, at) => (
              <>
                <DateInput draft={draft} name={`substitutes.${at}.date`} label="Date" />
                <div className="grid grid-cols-2 gap-2">
                  <ChoiceField draft={draft} name={`substitutes.${at}.awayId`} label="Away">
                    {staffOptions(text.staffIds)}
                  </ChoiceField>
                  <ChoiceField draft={draft} name={`substitutes.${at}.insteadId`} label="Instead" nothing>
                    <Option value="">nobody</Option>
                    {staffOptions(teachers.map(({ id }) => id).filter((id) => !text.staffIds.includes(id)))}
                  </ChoiceField>
                </div>
              </>
            )}
          </DraftRows>
        )}
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save={schoolClass ? 'Save the class' : 'Add the class'} cancel={() => leave(close)} />
      </form>
      {schoolClass && <Removal schoolClass={schoolClass} school={school} close={close} />}
    </Panel>
  )
}

/** Ends a class: whoever learns in it goes to a cohort of another one first. */
function Removal({ schoolClass, school, close }: { schoolClass: SchoolClass; school: School; close: () => void }) {
  const [open, setOpen] = useState(false)
  const [sure, setSure] = useState(false)
  const [into, setInto] = useState<Record<string, string>>({})
  const end = useMutation(endClass)
  if (!open) {
    return (
      <button type="button" className="quiet-link justify-self-start" onClick={() => setOpen(true)}>
        End this class
      </button>
    )
  }
  const others = school.classes
    .filter((one) => one.id !== schoolClass.id)
    .flatMap((one) => one.cohorts.map((cohort) => ({ ...cohort, class: one.name })))
  return (
    <section className="grid gap-3 border-t border-line pt-3">
      <p>A class that has been taught is closed and keeps its history; one that never met goes altogether.</p>
      {schoolClass.cohorts
        .filter((cohort) => cohort.students > 0)
        .map((cohort) => (
          <Choice
            key={cohort.id}
            label={`${cohort.name}, ${people(cohort.students)}, to`}
            value={into[cohort.id] ?? ''}
            placeholder="choose a cohort"
            onChange={(id) => setInto({ ...into, [cohort.id]: id })}
          >
            {others.map((other) => (
              <Option key={other.id} value={other.id}>
                {other.class}: {other.name}
              </Option>
            ))}
          </Choice>
        ))}
      {end.isError && <Refusal error={end.error} />}
      <button type="button" className="button justify-self-start" onClick={() => setSure(true)}>
        End {schoolClass.name}
      </button>
      <AlertDialog
        open={sure}
        title={`End ${schoolClass.name}?`}
        act="End the class"
        leave="Keep it"
        busy={end.isPending}
        onLeave={() => setSure(false)}
        onAct={() => end.mutate({ id: schoolClass.id, into }, { onSuccess: close, onSettled: () => setSure(false) })}
      >
        <p>Its coming lessons are gone from the plan and from everybody’s calendar.</p>
      </AlertDialog>
    </section>
  )
}
