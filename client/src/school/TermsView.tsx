import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useDraft } from '../shared/draft'
import { DateInput, DraftProblem, DraftRows, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { useOpened } from '../shared/opened'
import { Opening } from '../shared/Opening'
import { termsQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { DateField } from '../ui/Field'
import { Rows } from '../ui/Rows'
import { Empty } from '../ui/states'
import { dayMonth, longDate } from '../ui/words'
import { saveTerm, type Term, type TermText } from './data'

/** The school's terms: when they run, when nobody meets, when there are tests. */
export function TermsView() {
  const { isHead } = useSignedIn()
  const terms = useQuery(termsQuery())
  const { opened, open, close } = useOpened<Term | 'new'>()
  if (!terms.data) return <Opening of={[terms]} what="Opening the terms" />
  if (opened)
    return (
      <TermForm
        key={opened === 'new' ? 'new' : opened.id}
        term={opened === 'new' ? null : opened}
        last={terms.data[0]}
        close={close}
      />
    )
  return (
    <div className="grid gap-4">
      {terms.data.length === 0 && (
        <Empty next={isHead && [{ name: 'Add the first term', act: () => open('new') }]}>
          No term yet. Add one, with the days the school is closed and its test days; then every cohort can be given a
          segment for it.
        </Empty>
      )}
      <ul className="border-t border-line bg-paper">
        {terms.data.map((term) => (
          <li key={term.id} className="border-b border-fine px-3 py-2">
            {isHead ? (
              <button type="button" className="quiet-link font-serif text-base" onClick={() => open(term)}>
                {term.name}
              </button>
            ) : (
              <span className="font-serif text-base">{term.name}</span>
            )}
            {term.isCurrent && ' · running now'}
            <br />
            <span className="text-soft">
              {longDate(term.start)} to {longDate(term.end)}
              {term.closures.map(
                (closure) =>
                  ` · ${closure.reason} ${closure.until ? `from ${dayMonth(closure.date)} to ${dayMonth(closure.until)}` : `on ${dayMonth(closure.date)}`}`,
              )}
              {term.testDays.map((date) => ` · test on ${dayMonth(date)}`)}
            </span>
          </li>
        ))}
      </ul>
      {isHead && terms.data.length > 0 && (
        <button type="button" className="button justify-self-start" onClick={() => open('new')}>
          Add a term
        </button>
      )}
    </div>
  )
}

function TermForm({ term, last, close }: { term: Term | null; last: Term | undefined; close: () => void }) {
  const [begun] = useState(() => (term ? null : following(last)))
  const draft = useDraft<TermText>({
    about: ['term', term?.id ?? 'new'],
    what: term ? `the term ${term.name}` : 'the new term',
    text: term ? textOf(term) : begun!,
    version: term?.version ?? null,
  })
  const save = useMutation(saveTerm)
  const { text } = draft
  return (
    <form
      className="grid max-w-3xl gap-4"
      noValidate
      onSubmit={draft.submit(async (wanted, version) => {
        const days = wanted.testDays.filter(Boolean).toSorted()
        await save.mutateAsync({ id: term?.id ?? draft.made, text: { ...wanted, testDays: days }, version })
      }, close)}
    >
      <h2 className="text-lg">{term ? term.name : 'A new term'}</h2>
      <TextField draft={draft} name="name" label="Name" />
      <div className="grid gap-3 sm:grid-cols-2">
        <DateInput draft={draft} name="start" label="First day" />
        <DateInput draft={draft} name="end" label="Last day" />
      </div>
      <DraftRows
        draft={draft}
        name="closures"
        label="The whole school is closed"
        add="Add closed days"
        make={() => ({ date: text.start, until: null, reason: '' })}
      >
        {(_, at) => (
          <div className="grid gap-2 sm:grid-cols-[200px_200px_1fr]">
            <DateInput draft={draft} name={`closures.${at}.date`} label="Day, or the first of several" />
            <DateInput draft={draft} name={`closures.${at}.until`} label="The last of several" mayBeEmpty />
            <TextField draft={draft} name={`closures.${at}.reason`} label="Why" />
          </div>
        )}
      </DraftRows>
      <Rows
        label="Test days"
        items={text.testDays}
        add="Add a test day"
        make={() => text.end}
        onChange={(testDays) => draft.change({ testDays })}
      >
        {(day, _, at) => (
          <DateField
            label="Day"
            value={day}
            onChange={(date) => draft.change({ testDays: text.testDays.with(at, date) })}
            error={draft.at(`testDays[${at}]`)}
          />
        )}
      </Rows>
      <p className="text-soft">
        A lesson before a test, and the test itself, bring nothing new. A day on which only one class does not meet is
        closed in that class’s term.
      </p>
      <DraftProblem draft={draft} shown={shown} />
      <SaveBar draft={draft} save={term ? 'Save the term' : 'Add the term'} cancel={() => leave(close)} />
    </form>
  )
}

const textOf = ({ name, start, end, closures, testDays }: Term): TermText => ({ name, start, end, closures, testDays })

const shown = (field: string) =>
  ['name', 'start', 'end'].includes(field) || /^closures\[\d+\]\.(date|until|reason)$|^testDays\[/.test(field)

/** Begins on the day after the last term, a week of rest between them, and is as long. */
function following(last: Term | undefined): TermText {
  const start = last ? addDays(last.end, 8) : ''
  return {
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
