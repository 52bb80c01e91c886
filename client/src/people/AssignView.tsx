import { useMutation, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { Problem } from '../api/problem'
import { useDraft, type Draft } from '../shared/draft'
import { DraftProblem } from '../shared/fields'
import { formQuery, formsQuery } from '../shared/material'
import { Opening } from '../shared/Opening'
import { newId } from '../ui/new-id'
import { Choice, DateField, Field, FieldError } from '../ui/Field'
import { Ribbon } from '../ui/Ribbon'
import { Option } from '../ui/Select'
import { Empty } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { dayMonth, people, shortDay } from '../ui/words'
import { FormStrip, placesOf, type Run } from './FormStrip'
import {
  assignmentCheckQuery,
  assignmentsQuery,
  saveAssignment,
  useTerm,
  type AssignedSegment,
  type Assignment,
  type Cohort,
  type Form,
  type SchoolClass,
} from './data'

/** Gives a cohort segments of the school's forms: drag them on the form, in the order they are taught, and see at once what speaks against them. */
export function AssignView({ cohort, schoolClass }: { cohort: Cohort; schoolClass: SchoolClass }) {
  const term = useTerm()
  const [forms, given] = [useQuery(formsQuery()), useQuery(assignmentsQuery())]
  if (forms.data?.length === 0)
    return <Empty next={[{ name: 'Write or bring one', to: '/forms' }]}>There is no form to give yet.</Empty>
  if (!term || !forms.data || !given.data) return <Opening of={[forms, given]} what="Opening the forms" />
  return (
    <Writing
      cohort={cohort}
      schoolClass={schoolClass}
      term={term}
      forms={forms.data}
      assignment={given.data.find((its) => its.cohortId === cohort.id)}
    />
  )
}

interface WritingProps {
  cohort: Cohort
  schoolClass: SchoolClass
  term: { id: string; end: string }
  forms: ChooserProps['forms']
  assignment: Assignment | undefined
}

function Writing({ cohort, schoolClass, term, forms, assignment }: WritingProps) {
  const draft = useDraft<Written>({
    about: ['assignment', cohort.id],
    what: `what you assigned to ${cohort.name}`,
    text: { segments: assignment?.segments.map((one) => one.segment) ?? [] },
    version: assignment?.version ?? null,
  })
  const [at, setAt] = useState(0)
  const chosen = draft.text.segments[at]
  const [formId, setFormId] = useState(chosen?.formId)
  const form = useQuery(formQuery(formId ?? forms[0]!.id))
  if (!form.data) return <Opening of={[form]} what="Opening the forms" />
  return (
    <Chooser
      cohort={cohort}
      schoolClass={schoolClass}
      assignment={assignment}
      termId={term.id}
      termEnd={term.end}
      forms={forms}
      form={form.data}
      showForm={setFormId}
      draft={draft}
      at={at}
      setAt={(place) => {
        setAt(place)
        if (draft.text.segments[place]) setFormId(draft.text.segments[place].formId)
      }}
    />
  )
}

type Written = { segments: AssignedSegment[] }

interface ChooserProps {
  cohort: Cohort
  schoolClass: SchoolClass
  assignment: Assignment | undefined
  termId: string
  termEnd: string
  forms: { id: string; name: string; positions: number }[]
  form: Form
  showForm: (id: string) => void
  draft: Draft<Written>
  at: number
  setAt: (at: number) => void
}

function Chooser({
  cohort,
  schoolClass,
  assignment,
  termId,
  termEnd,
  forms,
  form,
  showForm,
  draft,
  at,
  setAt,
}: ChooserProps) {
  const { segments } = draft.text
  const setSegments = (wanted: AssignedSegment[]) => draft.change({ segments: wanted })
  const asked = useDeferredValue(segments)
  const check = useQuery(assignmentCheckQuery(termId, cohort.id, asked))
  const save = useMutation(saveAssignment)
  const places = useMemo(() => new Map(form.text.positions.map((position, place) => [position.id, place])), [form])
  const runs: Run[] = segments.map((one) =>
    one.formId === form.id
      ? { from: places.get(one.fromId) ?? -1, to: places.get(one.toId) ?? -2 }
      : { from: -1, to: -2 },
  )
  const chosen = segments[at]
  const notes = useMemo(
    () =>
      new Map(
        (check.data?.findings ?? []).flatMap((finding) =>
          finding.positionId ? [[finding.positionId, finding.message] as const] : [],
        ),
      ),
    [check.data],
  )
  const edit = (part: Partial<AssignedSegment>) =>
    setSegments(segments.map((one, place) => (place === at ? { ...one, ...part } : one)))
  const mark = (run: Run) => {
    const ends = {
      formId: form.id,
      fromId: form.text.positions[run.from]!.id,
      toId: form.text.positions[run.to]!.id,
      leftOut: [],
    }
    if (chosen && chosen.formId === form.id) edit(ends)
    else add(ends)
  }
  const add = (ends: Pick<AssignedSegment, 'formId' | 'fromId' | 'toId' | 'leftOut'>) => {
    setSegments([...segments, { id: newId(), target: segments.at(-1)?.target ?? termEnd, purpose: 'new', ...ends }])
    setAt(segments.length)
  }
  const problem = check.error instanceof Problem ? check.error : undefined
  const said = (field: string) => draft.at(field) ?? problem?.at(field)
  const saved = !draft.dirty
  const report = check.data
  const nameOf = (id: string) => form.study.positions[places.get(id) ?? -1]?.name ?? ''
  return (
    <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_410px]">
      <div className="min-w-0 bg-plaster px-5 py-4">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="flex items-center gap-2.5 text-xl">
            <Ribbon colour={cohort.colour} half={cohort.half} size={28} /> Assign to {cohort.name}
          </h2>
          <span className="text-soft">
            {schoolClass.name} · {people(cohort.students)} · {cohort.mode}
          </span>
          <ToggleGroup
            label="Form"
            value={form.id}
            options={forms.map((one) => ({ value: one.id, name: one.name }))}
            onChange={showForm}
          />
        </div>
        <FormStrip
          form={form}
          runs={runs}
          chosen={chosen?.formId === form.id ? at : -1}
          leftOut={new Set(chosen?.leftOut)}
          notes={notes}
          mode={cohort.mode}
          sash={cohort.colour}
          mark={mark}
        />
      </div>
      <aside
        aria-label="Segments"
        className="grid content-start gap-3 border-line bg-plaster px-5 py-4 max-lg:border-t lg:sticky lg:top-0 lg:max-h-screen lg:self-start lg:overflow-y-auto lg:border-l"
      >
        <ol className="grid gap-2">
          {segments.map((one, place) => (
            <li key={one.id}>
              <button
                type="button"
                aria-pressed={place === at}
                className={`w-full rounded border-l-4 px-3 py-2 text-left ${place === at ? 'border-pine bg-pine-tint' : 'border-line bg-paper'}`}
                onClick={() => setAt(place)}
              >
                <b className="font-serif text-base">
                  {place + 1}.{' '}
                  {one.formId === form.id
                    ? `${nameOf(one.fromId)} to ${nameOf(one.toId)}`
                    : assignment?.segments.find((known) => known.segment.id === one.id)?.form}
                </b>
                <span className="block text-soft">
                  {one.purpose}
                  {one.purpose !== 'maintain' && ` by ${dayMonth(one.target)}`}
                  {one.leftOut.length > 0 && ` · ${one.leftOut.length} left out`}
                </span>
              </button>
            </li>
          ))}
          {segments.length === 0 && <li className="text-soft">Nothing is given yet. Mark a run on the form.</li>}
        </ol>
        <DraftProblem draft={draft} shown={(field) => field.startsWith('segments[')} />
        <div className="flex flex-wrap items-center gap-4">
          <button
            type="button"
            className="button button-primary"
            disabled={draft.saving || saved}
            onClick={() =>
              draft.submit((wanted, version) =>
                save.mutateAsync({ termId, cohortId: cohort.id, segments: wanted.segments, version }),
              )()
            }
          >
            Save the assignment
          </button>
          <Link to={`/people?view=coverage&cohort=${cohort.id}`} className="quiet-link">
            Coverage
          </Link>
          {saved && segments.length > 0 && (
            <Link to={`/term/${schoolClass.id}`} className="quiet-link">
              Plan the term
            </Link>
          )}
        </div>
        <p role="status" className="text-soft">
          {saved ? (segments.length > 0 ? 'This is what the cohort has.' : '') : 'Not saved yet.'}
        </p>
        {chosen && (
          <section aria-label="The chosen segment" className="grid gap-3 rounded-lg border border-line bg-paper p-3">
            {chosen.formId === form.id && (
              <TypedEnds key={chosen.fromId + chosen.toId} form={form} run={runs[at]!} mark={mark} />
            )}
            <div className="grid grid-cols-2 gap-3">
              <Choice label="Purpose" value={chosen.purpose} onChange={(value) => edit({ purpose: value })}>
                <Option value="new">new, in form order</Option>
                <Option value="refine">refine chosen places</Option>
                <Option value="maintain">maintain what is known</Option>
              </Choice>
              {chosen.purpose === 'maintain' ? (
                <p className="self-end text-soft">
                  All term: the plan has it run through, or its postures refreshed, before they fade.
                </p>
              ) : (
                <DateField
                  label="All of it met by"
                  value={chosen.target}
                  onChange={(target) => edit({ target })}
                  error={said(`segments[${at}].target`)}
                />
              )}
            </div>
            <FieldError
              error={
                ['fromId', 'toId', 'leftOut', 'formId'].map((part) => said(`segments[${at}].${part}`)).find(Boolean) ??
                said(`segments[${at}]`)
              }
            />
            {chosen.formId === form.id && (
              <Choice
                label="Leave out"
                value=""
                placeholder="a position of it…"
                onChange={(id) => edit({ leftOut: [...chosen.leftOut, id] })}
              >
                {form.text.positions
                  .slice(runs[at]!.from, runs[at]!.to + 1)
                  .filter((position) => !chosen.leftOut.includes(position.id))
                  .map((position) => (
                    <Option key={position.id} value={position.id}>
                      {form.study.positions[places.get(position.id)!]!.number ?? '–'} {nameOf(position.id)}
                    </Option>
                  ))}
              </Choice>
            )}
            {chosen.leftOut.map((id) => (
              <p key={id} className="flex justify-between gap-3">
                <span className="text-soft line-through">{nameOf(id)}</span>
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() => edit({ leftOut: chosen.leftOut.filter((one) => one !== id) })}
                >
                  Take it in again
                </button>
              </p>
            ))}
            {report?.segments
              .find((one) => one.id === chosen.id)
              ?.changes.map((sentence) => (
                <p key={sentence} className="border-l-4 border-river pl-2">
                  {sentence}
                </p>
              ))}
            <div className="flex flex-wrap gap-4">
              <button
                type="button"
                className="quiet-link"
                disabled={at === 0}
                onClick={() => (setSegments(segments.toSpliced(at, 1).toSpliced(at - 1, 0, chosen)), setAt(at - 1))}
              >
                Teach it earlier
              </button>
              <button
                type="button"
                className="quiet-link"
                onClick={() => (setSegments(segments.toSpliced(at, 1)), setAt(Math.max(0, at - 1)))}
              >
                Take the segment out
              </button>
              <button type="button" className="quiet-link" onClick={() => setAt(segments.length)}>
                Mark another one
              </button>
            </div>
          </section>
        )}
        {report && segments.length > 0 && (
          <section aria-label="What it means" className="grid gap-2">
            <p>
              <b>
                {report.units.length === 0
                  ? 'Nothing of it is new.'
                  : `${report.units.length} new, ${Math.round(report.minutes)} min.`}
              </b>{' '}
              {report.units.length > 0 && (
                <>
                  The lessons up to the target hold {Math.round(report.minutesThere)} min for this cohort.{' '}
                  {report.finish ? `Likely finished on ${shortDay(report.finish)}.` : 'Not all of it fits.'}
                </>
              )}
            </p>
            {report.findings.map((finding) => (
              <p key={finding.message} className="border-l-4 border-ochre-mark pl-2">
                {finding.message}{' '}
                {finding.kind === 'noVersion' && finding.postureId && (
                  <Link
                    className="quiet-link"
                    to={`/forms/postures/${finding.postureId}?edit=1&version=${cohort.mode}&back=${encodeURIComponent(`/people?view=assign&cohort=${cohort.id}`)}`}
                  >
                    Write it
                  </Link>
                )}
              </p>
            ))}
          </section>
        )}
      </aside>
    </div>
  )
}

/** The ends of a run as numbers, for whoever types faster than they drag. */
function TypedEnds({ form, run, mark }: { form: Form; run: Run; mark: (run: Run) => void }) {
  const places = placesOf(form)
  const [from, setFrom] = useState(places[run.from] ?? '')
  const [to, setTo] = useState(places[run.to] ?? '')
  const [a, b] = [places.indexOf(from.trim()), places.indexOf(to.trim())]
  const wrong = (place: number, typed: string) => (place < 0 ? `There is no position ${typed}` : undefined)
  const isWrong = a < 0 || b < a
  return (
    <form
      className="grid grid-cols-[1fr_1fr_auto] items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (!isWrong) mark({ from: a, to: b })
      }}
    >
      <Field label="First position" value={from} onChange={setFrom} error={wrong(a, from)} />
      <Field
        label="Last position"
        value={to}
        onChange={setTo}
        error={wrong(b, to) ?? (a >= 0 && b < a ? 'It comes before the first' : undefined)}
      />
      <button type="submit" className="button" disabled={isWrong || (a === run.from && b === run.to)}>
        Mark
      </button>
    </form>
  )
}
