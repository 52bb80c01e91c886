import { useMutation, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { answer, api } from '../api/client'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { Choice, Field, FieldError } from '../ui/Field'
import { Ribbon } from '../ui/Ribbon'
import { Refusal, Tabs, Waiting } from '../ui/states'
import { dayMonth, people, shortDay } from '../ui/words'
import { FormStrip, placesOf, type Run } from './FormStrip'
import {
  useRefreshPeople,
  useTerm,
  type AssignedSegment,
  type Cohort,
  type Form,
  type Meeting,
  type School,
} from './queries'

/** Gives a cohort segments of the school's forms: drag them on the form, in the order they are taught, and see at once what speaks against them. */
export function AssignView({ school, cohort, meeting }: { school: School; cohort: Cohort; meeting: Meeting }) {
  const term = useTerm()
  const forms = useQuery({ queryKey: ['forms'], queryFn: () => answer(api.GET('/api/forms')) })
  const [segments, setSegments] = useState<AssignedSegment[]>(
    () => cohort.assignment?.segments.map((one) => one.segment) ?? [],
  )
  const [at, setAt] = useState(0)
  const chosen = segments[at]
  const [formId, setFormId] = useState(chosen?.formId)
  const shownForm = formId ?? forms.data?.[0]?.id
  const form = useQuery({
    queryKey: ['form', shownForm],
    enabled: shownForm !== undefined,
    queryFn: () => answer(api.GET('/api/forms/{id}', { params: { path: { id: shownForm! } } })),
  })
  if (!term || !forms.data) return <Waiting what="Opening the forms" />
  if (forms.data.length === 0) {
    return (
      <p className="m-8 text-soft">
        There is no form to give yet.{' '}
        <Link className="quiet-link" to="/forms">
          Write one down
        </Link>
      </p>
    )
  }
  if (!form.data) return <Waiting what="Opening the form" />
  return (
    <Chooser
      school={school}
      cohort={cohort}
      meeting={meeting}
      termId={term.id}
      termEnd={term.end}
      forms={forms.data}
      form={form.data}
      showForm={setFormId}
      segments={segments}
      setSegments={setSegments}
      at={at}
      setAt={(place) => {
        setAt(place)
        if (segments[place]) setFormId(segments[place].formId)
      }}
    />
  )
}

interface ChooserProps {
  school: School
  cohort: Cohort
  meeting: Meeting
  termId: string
  termEnd: string
  forms: { id: string; name: string; positions: number }[]
  form: Form
  showForm: (id: string) => void
  segments: AssignedSegment[]
  setSegments: (segments: AssignedSegment[]) => void
  at: number
  setAt: (at: number) => void
}

function Chooser({
  cohort,
  meeting,
  termId,
  termEnd,
  forms,
  form,
  showForm,
  segments,
  setSegments,
  at,
  setAt,
}: ChooserProps) {
  const refresh = useRefreshPeople()
  const asked = useDeferredValue(segments)
  const check = useQuery({
    queryKey: ['assignment-check', termId, cohort.id, asked],
    enabled: asked.length > 0,
    queryFn: () =>
      answer(
        api.POST('/api/terms/{termId}/cohorts/{cohortId}/assignment/check', {
          params: { path: { termId, cohortId: cohort.id } },
          body: { segments: asked },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  })
  const save = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/terms/{termId}/cohorts/{cohortId}/assignment', {
          params: { path: { termId, cohortId: cohort.id } },
          body: { segments, version: cohort.assignment?.version ?? null },
        }),
      ),
    onSuccess: refresh,
  })
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
  const problem = (save.error ?? check.error) instanceof Problem ? ((save.error ?? check.error) as Problem) : undefined
  const saved = JSON.stringify(cohort.assignment?.segments.map((one) => one.segment) ?? []) === JSON.stringify(segments)
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
            {meeting.name} · {people(cohort.students)} · {cohort.mode}
          </span>
          <Tabs
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
                    : cohort.assignment?.segments.find((known) => known.segment.id === one.id)?.form}
                </b>
                <span className="block text-soft">
                  {one.purpose} by {dayMonth(one.target)}
                  {one.leftOut.length > 0 && ` · ${one.leftOut.length} left out`}
                </span>
              </button>
            </li>
          ))}
          {segments.length === 0 && <li className="text-soft">Nothing is given yet. Mark a run on the form.</li>}
        </ol>
        {save.isError && (
          <Refusal
            error={save.error}
            shown={segments.flatMap((_, place) =>
              ['', '.target', '.fromId', '.toId', '.formId', '.leftOut'].map((part) => `segments[${place}]${part}`),
            )}
            reload={() => void refresh()}
          />
        )}
        <div className="flex flex-wrap items-center gap-4">
          <button
            type="button"
            className="button button-primary"
            disabled={save.isPending || saved}
            onClick={() => save.mutate()}
          >
            Save the assignment
          </button>
          <Link to={`/people?view=coverage&cohort=${cohort.id}`} className="quiet-link">
            Coverage
          </Link>
          {saved && segments.length > 0 && (
            <Link to={`/term/${meeting.id}`} className="quiet-link">
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
              <Choice
                label="Purpose"
                value={chosen.purpose}
                onChange={(value) => edit({ purpose: value as AssignedSegment['purpose'] })}
              >
                <option value="new">new, in form order</option>
                <option value="refine">refine chosen places</option>
                <option value="maintain">maintain what is known</option>
              </Choice>
              <Field
                label="All of it met by"
                type="date"
                value={chosen.target}
                onChange={(target) => edit({ target })}
                error={problem?.at(`segments[${at}].target`)}
              />
            </div>
            <FieldError
              error={
                ['fromId', 'toId', 'leftOut', 'formId']
                  .map((part) => problem?.at(`segments[${at}].${part}`))
                  .find(Boolean) ?? problem?.at(`segments[${at}]`)
              }
            />
            {chosen.formId === form.id && (
              <Choice label="Leave out" value="" onChange={(id) => edit({ leftOut: [...chosen.leftOut, id] })}>
                <option value="">a position of it…</option>
                {form.text.positions
                  .slice(runs[at]!.from, runs[at]!.to + 1)
                  .filter((position) => !chosen.leftOut.includes(position.id))
                  .map((position) => (
                    <option key={position.id} value={position.id}>
                      {form.study.positions[places.get(position.id)!]!.number ?? '–'} {nameOf(position.id)}
                    </option>
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
