import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { Choice, Field } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { modeNames, useRefreshPeople, type Cohort, type Meeting, type School } from './queries'

/** The colours of adapted groups: neither of a sash nor of a correction. */
const groupColours = ['#3E7C86', '#A3566B', '#7A6A9B', '#8A7A3C', '#4F7F5F']

/** Who in a class works on the same material in the same mode. */
export function CohortPanel({
  cohort,
  meeting,
  school,
  close,
}: {
  cohort?: Cohort
  meeting: Meeting
  school: School
  close: () => void
}) {
  const refresh = useRefreshPeople()
  const [text, setText] = useState<Schema['CohortText']>(
    cohort ?? {
      name: school.sashes[0]?.name ?? '',
      order: Math.max(0, ...meeting.cohorts.map((one) => one.order)) + 1,
      sashId: school.sashes[0]?.id ?? null,
      half: 'none',
      mode: 'standing',
      colour: school.sashes[0]?.colour ?? groupColours[0]!,
      beginners: false,
      mustBeAttended: false,
    },
  )
  const change = (part: Partial<typeof text>) => setText((before) => ({ ...before, ...part }))
  const sash = school.sashes.find((one) => one.id === text.sashId)
  const done = () => {
    void refresh()
    close()
  }
  const save = useMutation({
    mutationFn: async () => {
      const { name, order, sashId, half, mode, colour, beginners, mustBeAttended } = text
      const body = { name, order, sashId, half, mode, colour, beginners, mustBeAttended }
      if (cohort)
        await answer(
          api.PUT('/api/cohorts/{id}', {
            params: { path: { id: cohort.id } },
            body: { text: body, version: cohort.version },
          }),
        )
      else
        await answer(
          api.POST('/api/classes/{classId}/cohorts', {
            params: { path: { classId: meeting.id } },
            body: { id: newId(), text: body },
          }),
        )
    },
    onSuccess: done,
  })
  const [into, setInto] = useState('')
  const remove = useMutation({
    mutationFn: () =>
      answer(
        api.DELETE('/api/cohorts/{id}', { params: { path: { id: cohort!.id }, query: { into: into || undefined } } }),
      ),
    onSuccess: done,
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const holds = text.mode === 'supported' || text.mode === 'seated'
  return (
    <Panel title={cohort?.name ?? 'New cohort'} facts={meeting.name} close={close}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Choice
          label="Made from"
          value={text.sashId ?? ''}
          onChange={(id) => {
            const chosen = school.sashes.find((one) => one.id === id)
            change(
              chosen
                ? { sashId: id, half: 'none', colour: chosen.colour, name: chosen.name }
                : {
                    sashId: null,
                    half: 'none',
                    name: 'Chair group',
                    mode: 'seated',
                    colour: groupColours[meeting.cohorts.length % groupColours.length]!,
                  },
            )
          }}
          error={problem?.at('sashId')}
        >
          {school.sashes.map((one) => (
            <option key={one.id} value={one.id}>
              the sash {one.name}
            </option>
          ))}
          <option value="">people of any sash: an adapted group</option>
        </Choice>
        {sash?.hasHalves && (
          <Choice
            label="Half"
            value={text.half}
            onChange={(value) =>
              change({ half: value as typeof text.half, name: value === 'none' ? sash.name : `${sash.name}, ${value}` })
            }
            error={problem?.at('half')}
          >
            <option value="none">the whole sash</option>
            <option value="newer">the newer half</option>
            <option value="senior">the senior half</option>
          </Choice>
        )}
        <Field label="Name" value={text.name} onChange={(name) => change({ name })} error={problem?.at('name')} />
        <Choice label="Mode" value={text.mode} onChange={(mode) => change({ mode: mode as typeof text.mode })}>
          {modeNames.map((mode) => (
            <option key={mode} value={mode}>
              {mode}
            </option>
          ))}
        </Choice>
        {!sash && (
          <Field
            label="Colour"
            type="color"
            value={text.colour}
            onChange={(colour) => change({ colour })}
            error={problem?.at('colour')}
          />
        )}
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1"
            checked={text.beginners}
            onChange={(event) => change({ beginners: event.target.checked })}
          />
          <span>
            Beginners
            <span className="block text-soft">
              One new posture a lesson, and somebody beside them in their first three lessons.
            </span>
          </span>
        </label>
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1"
            disabled={holds}
            checked={holds || text.mustBeAttended}
            onChange={(event) => change({ mustBeAttended: event.target.checked })}
          />
          <span>
            Never left alone
            <span className="block text-soft">
              {holds
                ? 'Somebody who can help stays with whoever holds on or sits.'
                : 'Without this they practise by themselves what they already can do.'}
            </span>
          </span>
        </label>
        {save.isError && (
          <Refusal error={save.error} shown={['name', 'sashId', 'half', 'colour']} reload={() => void refresh()} />
        )}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {cohort ? 'Save the cohort' : 'Add the cohort'}
        </button>
      </form>
      {cohort && (
        <section className="grid gap-3 border-t border-line pt-3">
          <div className="flex flex-wrap items-end gap-3">
            {cohort.students > 0 && (
              <Choice label="Its people to" value={into} onChange={setInto}>
                <option value="" disabled>
                  choose a cohort
                </option>
                {meeting.cohorts
                  .filter((one) => one.id !== cohort.id)
                  .map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
              </Choice>
            )}
            <button type="button" className="button" disabled={remove.isPending} onClick={() => remove.mutate()}>
              {cohort.students > 0 ? 'Move them there' : 'Take the cohort out'}
            </button>
          </div>
          {remove.isError && <Refusal error={remove.error} />}
        </section>
      )}
    </Panel>
  )
}
