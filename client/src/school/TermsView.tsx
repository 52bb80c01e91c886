import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useSignedIn } from '../app/session'
import { Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Rows } from '../ui/Rows'
import { Empty, Failure, Refusal, Waiting } from '../ui/states'
import { dayMonth, longDate } from '../ui/words'

type Term = Schema['TermResponse']

/** The school's terms: when they run, when nobody meets, when there are tests. */
export function TermsView() {
  const { isHead } = useSignedIn()
  const terms = useQuery({ queryKey: ['terms'], queryFn: () => answer(api.GET('/api/terms')) })
  const [open, setOpen] = useState<Term | 'new'>()
  if (terms.isError) return <Failure error={terms.error} retry={() => void terms.refetch()} />
  if (!terms.data) return <Waiting what="Opening the terms" />
  if (open)
    return (
      <TermForm
        key={open === 'new' ? 'new' : open.id}
        term={open === 'new' ? null : open}
        last={terms.data[0]}
        close={() => setOpen(undefined)}
      />
    )
  return (
    <div className="grid gap-4">
      {terms.data.length === 0 && (
        <Empty>
          No term yet. Add one, with the days the school is closed and its test days; then every cohort can be given a
          segment for it.
        </Empty>
      )}
      <ul className="border-t border-line bg-paper">
        {terms.data.map((term) => (
          <li key={term.id} className="border-b border-fine px-3 py-2">
            {isHead ? (
              <button type="button" className="quiet-link font-serif text-base" onClick={() => setOpen(term)}>
                {term.name}
              </button>
            ) : (
              <span className="font-serif text-base">{term.name}</span>
            )}
            {term.isCurrent && ' · running now'}
            <br />
            <span className="text-soft">
              {longDate(term.start)} to {longDate(term.end)}
              {term.closures.map((closure) => ` · ${closure.reason} on ${dayMonth(closure.date)}`)}
              {term.testDays.map((date) => ` · test on ${dayMonth(date)}`)}
            </span>
          </li>
        ))}
      </ul>
      {isHead && (
        <button type="button" className="button justify-self-start" onClick={() => setOpen('new')}>
          Add a term
        </button>
      )}
    </div>
  )
}

function TermForm({ term, last, close }: { term: Term | null; last: Term | undefined; close: () => void }) {
  const queries = useQueryClient()
  const [draft, setDraft] = useState(() => term ?? following(last))
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part })
  const save = useMutation({
    mutationFn: () => {
      const { name, start, end } = draft
      const body = { name, start, end, closures: draft.closures, testDays: draft.testDays.filter(Boolean).toSorted() }
      return term
        ? answer(
            api.PUT('/api/terms/{id}', { params: { path: { id: term.id } }, body: { ...body, version: term.version } }),
          )
        : answer(api.POST('/api/terms', { body: { ...body, id: draft.id } }))
    },
    onSuccess: async () => {
      await queries.invalidateQueries({
        predicate: ({ queryKey }) => ['terms', 'plan', 'today', 'lessons', 'people'].includes(queryKey[0] as string),
      })
      close()
    },
  })
  const errors = save.error instanceof Problem ? save.error : undefined
  return (
    <form
      className="grid max-w-3xl gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <h2 className="text-lg">{term ? term.name : 'A new term'}</h2>
      <Field label="Name" value={draft.name} onChange={(name) => set({ name })} error={errors?.at('name')} required />
      <div className="grid gap-3 sm:grid-cols-2">
        <Field
          label="First day"
          type="date"
          value={draft.start}
          onChange={(start) => set({ start })}
          error={errors?.at('start')}
          required
        />
        <Field
          label="Last day"
          type="date"
          value={draft.end}
          onChange={(end) => set({ end })}
          error={errors?.at('end')}
          required
        />
      </div>
      <Rows
        label="The whole school is closed"
        items={draft.closures}
        add="Add a closed day"
        make={() => ({ date: draft.start, reason: '' })}
        onChange={(closures) => set({ closures })}
      >
        {(closure, change, at) => (
          <div className="grid gap-2 sm:grid-cols-[180px_1fr]">
            <Field
              label="Day"
              type="date"
              value={closure.date}
              onChange={(date) => change({ date })}
              error={errors?.at(`closures[${at}].date`)}
              required
            />
            <Field
              label="Why"
              value={closure.reason}
              onChange={(reason) => change({ reason })}
              error={errors?.at(`closures[${at}].reason`)}
              required
            />
          </div>
        )}
      </Rows>
      <Rows
        label="Test days"
        items={draft.testDays.map((date) => ({ date }))}
        add="Add a test day"
        make={() => ({ date: draft.end })}
        onChange={(days) => set({ testDays: days.map((day) => day.date) })}
      >
        {(day, change, at) => (
          <Field
            label="Day"
            type="date"
            value={day.date}
            onChange={(date) => change({ date })}
            error={errors?.at(`testDays[${at}]`)}
            required
          />
        )}
      </Rows>
      <p className="text-soft">
        A lesson before a test, and the test itself, bring nothing new. A day on which only one class does not meet is
        closed in that class’s weave.
      </p>
      {save.isError && <Refusal error={save.error} shown={[...fields(draft)]} />}
      <div className="flex gap-3">
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {term ? 'Save the term' : 'Add the term'}
        </button>
        <button type="button" className="button" onClick={close}>
          Leave it
        </button>
      </div>
    </form>
  )
}

type Draft = Pick<Term, 'id' | 'name' | 'start' | 'end' | 'closures' | 'testDays'>

/** Begins on the day after the last term, a week of rest between them, and is as long. */
function following(last: Term | undefined): Draft {
  const start = last ? addDays(last.end, 8) : ''
  return {
    id: newId(),
    name: '',
    start,
    end: last ? addDays(start, days(last.start, last.end)) : '',
    closures: [],
    testDays: [],
  }
}

const DAY = 24 * 60 * 60 * 1000
const addDays = (date: string, count: number) =>
  new Date(Date.parse(`${date}T00:00:00Z`) + count * DAY).toISOString().slice(0, 10)
const days = (from: string, to: string) => (Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY

/** Fields that show what is wrong with them by themselves. */
const fields = (draft: Draft) => [
  'name',
  'start',
  'end',
  ...draft.closures.flatMap((_, at) => [`closures[${at}].date`, `closures[${at}].reason`]),
  ...draft.testDays.map((_, at) => `testDays[${at}]`),
]
