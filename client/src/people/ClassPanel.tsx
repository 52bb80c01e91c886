import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { Choice, Field, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { clockTime, weekdayWords } from '../ui/words'

interface ClassPanelProps {
  meeting: Schema['PeopleClassResponse']
  school: Schema['PeopleResponse']
  close: () => void
  saved: () => void
}

/** When and where a class meets, and who teaches it. */
export function ClassPanel({ meeting, school, close, saved }: ClassPanelProps) {
  const [name, setName] = useState(meeting.name)
  const [weekday, setWeekday] = useState(meeting.weekday)
  const [start, setStart] = useState(clockTime(meeting.start))
  const [minutes, setMinutes] = useState(String(meeting.minutes))
  const [hallId, setHallId] = useState(meeting.hallId)
  const [staffIds, setStaffIds] = useState(meeting.staffIds)
  const save = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/classes/{id}', {
          params: { path: { id: meeting.id } },
          body: { name, weekday, start: `${start}:00`, minutes: Math.trunc(Number(minutes)), hallId, staffIds, version: meeting.version },
        }),
      ),
    onSuccess: () => {
      saved()
      close()
    },
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const staffProblems = staffIds.map((_, at) => problem?.at(`staffIds[${at}]`)).filter((message) => message !== undefined)
  const shown = ['name', 'weekday', 'start', 'minutes', 'hallId', 'staffIds', ...staffIds.map((_, at) => `staffIds[${at}]`)]
  const placed = shown.some((field) => problem?.at(field))
  return (
    <Panel title={meeting.name} close={close}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Field label="Name" value={name} onChange={setName} error={problem?.at('name')} />
        <Choice label="Weekday" value={weekday} onChange={(value) => setWeekday(value as Schema['DayOfWeek'])} error={problem?.at('weekday')}>
          {Object.entries(weekdayWords).map(([value, word]) => (
            <option key={value} value={value}>
              {word}
            </option>
          ))}
        </Choice>
        <Field label="Starts at" type="time" required value={start} onChange={setStart} error={problem?.at('start')} />
        <Field label="Minutes" type="number" required value={minutes} onChange={setMinutes} error={problem?.at('minutes')} />
        <Choice label="Hall" value={hallId} onChange={setHallId} error={problem?.at('hallId')}>
          {school.halls.map((hall) => (
            <option key={hall.id} value={hall.id}>
              {hall.name}
            </option>
          ))}
        </Choice>
        <fieldset>
          <legend className="font-semibold">Staff</legend>
          {school.staff.map((member) => (
            <label key={member.id} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                checked={staffIds.includes(member.id)}
                onChange={(event) => setStaffIds(event.target.checked ? [...staffIds, member.id] : staffIds.filter((id) => id !== member.id))}
              />
              {member.name}
            </label>
          ))}
          <FieldError error={[problem?.at('staffIds'), ...staffProblems].filter(Boolean).join(' ') || undefined} />
        </fieldset>
        {save.isError && !placed && <Refusal error={save.error} reload={saved} />}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          Save the class
        </button>
      </form>
    </Panel>
  )
}
