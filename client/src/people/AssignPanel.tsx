import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { Field, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal, Waiting } from '../ui/states'

interface AssignPanelProps {
  cohort: Schema['PeopleCohortResponse']
  close: () => void
  saved: () => void
}

/** Gives a cohort a segment: choose its first and last position on the form's strip, and the date by which all of it is to be met. */
export function AssignPanel({ cohort, close, saved }: AssignPanelProps) {
  const terms = useQuery({ queryKey: ['terms'], queryFn: () => answer(api.GET('/api/terms')) })
  const forms = useQuery({ queryKey: ['forms'], queryFn: () => answer(api.GET('/api/forms')) })
  const formId = cohort.assignment?.formId ?? forms.data?.[0]?.id
  const form = useQuery({ queryKey: ['form', formId], enabled: formId !== undefined, queryFn: () => answer(api.GET('/api/forms/{id}', { params: { path: { id: formId! } } })) })
  const term = terms.data?.find((one) => one.isCurrent)
  if (!term || !form.data) return <Waiting what="Opening the form" />
  return <Chooser cohort={cohort} term={term} form={form.data} close={close} saved={saved} />
}

function Chooser({ cohort, term, form, close, saved }: AssignPanelProps & { term: Schema['TermResponse']; form: Schema['FormResponse'] }) {
  const [from, setFrom] = useState(cohort.assignment?.fromPositionId)
  const [to, setTo] = useState(cohort.assignment?.toPositionId)
  const [target, setTarget] = useState(cohort.assignment?.target ?? term.end)
  const [next, setNext] = useState<'from' | 'to'>('from')
  const assign = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/terms/{termId}/cohorts/{cohortId}/assignment', {
          params: { path: { termId: term.id, cohortId: cohort.id } },
          body: { formId: form.id, fromPositionId: from ?? '', toPositionId: to ?? '', target, version: cohort.assignment?.version ?? null },
        }),
      ),
    onSuccess: saved,
  })
  const place = (id: string | undefined) => form.text.positions.findIndex((position) => position.id === id)
  const problem = assign.error instanceof Problem ? assign.error : undefined
  const shown = ['fromPositionId', 'toPositionId', 'target']
  const name = (at: number) => form.study.positions[at]!.name
  return (
    <Panel title={`Assign to ${cohort.name}`} facts={`${form.text.name}, ${term.name.toLowerCase()}`} close={close}>
      <p>{next === 'from' ? 'Choose the first position.' : 'Choose the last position.'}</p>
      <ol aria-label={form.text.name} className="grid grid-cols-2 gap-x-2 gap-y-0.5">
        {form.text.positions.map((position, at) => {
          const inside = at >= place(from) && at <= place(to) && place(from) >= 0
          return (
            <li key={position.id}>
              <button
                type="button"
                aria-pressed={inside}
                className={`flex w-full gap-2 rounded px-2 py-1 text-left ${inside ? 'bg-pine-tint font-semibold' : 'hover:bg-paper'}`}
                onClick={() => {
                  if (next === 'from') {
                    setFrom(position.id)
                    if (place(to) < at) setTo(position.id)
                  } else setTo(position.id)
                  setNext(next === 'from' ? 'to' : 'from')
                }}
              >
                <span className="w-5 text-right text-soft">{form.study.positions[at]!.number ?? '–'}</span> <span className="font-serif">{name(at)}</span>
              </button>
            </li>
          )
        })}
      </ol>
      <FieldError error={problem?.at('fromPositionId') ?? problem?.at('toPositionId')} />
      <Field label="All of it met by" type="date" value={target} onChange={setTarget} error={problem?.at('target')} />
      {assign.isError && shown.every((field) => !problem?.at(field)) && <Refusal error={assign.error} shown={shown} reload={saved} />}
      <button type="button" className="button button-primary" disabled={!from || !to || assign.isPending} onClick={() => assign.mutate()}>
        Assign the segment
      </button>
      {assign.data && (
        <section role="status" className="glow rounded border border-line bg-paper p-3">
          <p>
            <b>
              {assign.data.assignment.from} to {assign.data.assignment.to}
            </b>{' '}
            is assigned. {assign.data.newUnits.length} still to be introduced, {assign.data.minutes} minutes.
          </p>
          {assign.data.cannotBeTaught.map((left) => (
            <p key={left.name} className="mt-1 border-l-4 border-ochre-mark pl-2">
              {left.name}: {left.because}. It is left out of the plan until then.
            </p>
          ))}
          <Link to="/term" className="quiet-link">
            Plan the term
          </Link>
        </section>
      )}
    </Panel>
  )
}
