import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { Choice, Field } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Rows } from '../ui/Rows'
import { Refusal } from '../ui/states'
import { clockTime, weekdayWords } from '../ui/words'
import { useRefreshPeople, type School } from './queries'

/** A hall: its size, what is in it, when it is open and how many it may hold. */
export function HallPanel({ hall, close }: { hall?: School['halls'][number]; close: () => void }) {
  const refresh = useRefreshPeople()
  const [text, setText] = useState<Schema['HallText']>(
    hall
      ? {
          name: hall.name,
          width: hall.width,
          depth: hall.depth,
          chairs: hall.chairs,
          rail: hall.rail,
          hours: hall.hours,
          allowed: hall.allowed,
        }
      : { name: '', width: 8, depth: 6, chairs: 0, rail: 0, hours: [], allowed: null },
  )
  const change = (part: Partial<typeof text>) => setText((before) => ({ ...before, ...part }))
  const done = () => {
    void refresh()
    close()
  }
  const save = useMutation({
    mutationFn: async () => {
      if (hall)
        await answer(
          api.PUT('/api/halls/{id}', { params: { path: { id: hall.id } }, body: { text, version: hall.version } }),
        )
      else await answer(api.POST('/api/halls', { body: { id: newId(), text } }))
    },
    onSuccess: done,
  })
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE('/api/halls/{id}', { params: { path: { id: hall!.id } } })),
    onSuccess: done,
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const number = (label: string, field: 'width' | 'depth' | 'chairs' | 'rail') => (
    <Field
      label={label}
      type="number"
      value={String(text[field])}
      onChange={(value) => change({ [field]: Number(value) })}
      error={problem?.at(field)}
    />
  )
  return (
    <Panel title={hall?.name ?? 'New hall'} close={close}>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Field label="Name" value={text.name} onChange={(name) => change({ name })} error={problem?.at('name')} />
        <div className="grid grid-cols-2 gap-3">
          {number('Width along the front, m', 'width')}
          {number('Depth, m', 'depth')}
          {number('Firm chairs', 'chairs')}
          {number('Rail, m', 'rail')}
          <Field
            label="People allowed"
            type="number"
            value={text.allowed === null ? '' : String(text.allowed)}
            onChange={(value) => change({ allowed: value === '' ? null : Math.trunc(Number(value)) })}
            error={problem?.at('allowed')}
          />
        </div>
        <Rows
          label="Open"
          items={text.hours}
          add="Add hours"
          make={() => ({ weekday: 'tuesday' as const, from: '17:00:00', to: '21:00:00' })}
          onChange={(hours) => change({ hours })}
        >
          {(open, edit, at) => (
            <div className="grid grid-cols-3 gap-2">
              <Choice
                label="Day"
                value={open.weekday}
                onChange={(weekday) => edit({ weekday: weekday as typeof open.weekday })}
              >
                {Object.entries(weekdayWords).map(([value, word]) => (
                  <option key={value} value={value}>
                    {word}
                  </option>
                ))}
              </Choice>
              <Field
                label="From"
                type="time"
                value={clockTime(open.from)}
                onChange={(from) => edit({ from: `${from}:00` })}
              />
              <Field
                label="To"
                type="time"
                value={clockTime(open.to)}
                onChange={(to) => edit({ to: `${to}:00` })}
                error={problem?.at(`hours[${at}].to`)}
              />
            </div>
          )}
        </Rows>
        {save.isError && (
          <Refusal
            error={save.error}
            shown={[
              'name',
              'width',
              'depth',
              'chairs',
              'rail',
              'allowed',
              ...text.hours.map((_, at) => `hours[${at}].to`),
            ]}
            reload={() => void refresh()}
          />
        )}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {hall ? 'Save the hall' : 'Add the hall'}
        </button>
      </form>
      {remove.isError && <Refusal error={remove.error} />}
      {hall && (
        <button
          type="button"
          className="quiet-link justify-self-start"
          disabled={remove.isPending}
          onClick={() => remove.mutate()}
        >
          Take the hall out
        </button>
      )}
    </Panel>
  )
}
