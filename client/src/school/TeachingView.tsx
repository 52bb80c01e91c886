import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useSignedIn } from '../app/session'
import { Choice, Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Rows } from '../ui/Rows'
import { Failure, Refusal, Waiting } from '../ui/states'

type Teaching = Schema['Teaching']
type Pass = Schema['Pass']

const movers: Record<Schema['Mover'], string> = {
  teacher: 'the teacher',
  all: 'everybody',
  students: 'the students alone',
  pairs: 'pairs',
}
const saids: Record<Schema['Said'], string> = {
  nothing: 'nothing',
  cues: 'cues only',
  explained: 'explained',
  faults: 'faults shown',
  questions: 'questions',
}
const views: Record<Schema['PassView'], string> = {
  asUsual: 'as usual',
  fromBehind: 'from behind',
  fromTheFront: 'from the front',
  fromTheSide: 'from the side',
}
const layers: Schema['Layer'][] = ['feet', 'waist', 'hands', 'gaze', 'breath']

/** How the school brings things in: patterns of passes, who is taught by which, and talks. */
export function TeachingView() {
  const { isHead } = useSignedIn()
  const kept = useQuery({ queryKey: ['teaching'], queryFn: () => answer(api.GET('/api/teaching')) })
  if (kept.isError) return <Failure error={kept.error} retry={() => void kept.refetch()} />
  if (!kept.data) return <Waiting what="Opening the patterns" />
  return <Patterns key={kept.data.version} kept={kept.data} readOnly={!isHead} />
}

function Patterns({ kept, readOnly }: { kept: Schema['TeachingResponse']; readOnly: boolean }) {
  const queries = useQueryClient()
  const [draft, setDraft] = useState<Teaching>(kept.teaching)
  const [open, setOpen] = useState<string>()
  const secondsOf = (said: Schema['Said']) => kept.paces.find((pace) => pace.said === said)!.secondsPerCount
  const newPass = (): Pass => ({
    name: '',
    repetitions: 2,
    secondsPerCount: secondsOf('cues'),
    who: 'all',
    view: 'asUsual',
    said: 'cues',
    layers: [],
    minutes: null,
  })
  const save = useMutation({
    mutationFn: () => answer(api.PUT('/api/teaching', { body: { teaching: draft, version: kept.version } })),
    onSuccess: (saved) => {
      queries.setQueryData(['teaching'], saved)
      void queries.invalidateQueries({
        predicate: ({ queryKey }) =>
          ['plan', 'today', 'assignment-check', 'compare', 'conventions'].includes(queryKey[0] as string),
      })
    },
  })
  const errors = save.error instanceof Problem ? save.error : undefined
  const at = draft.patterns.findIndex((pattern) => pattern.id === open)
  const pattern = draft.patterns[at]
  const change = (part: Partial<Schema['TeachingPattern']>) =>
    setDraft({ ...draft, patterns: draft.patterns.map((one, index) => (index === at ? { ...one, ...part } : one)) })
  const changed = draft !== kept.teaching
  return (
    <form
      className="grid gap-5"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <p className="max-w-3xl">
        A pattern is a list of passes through the counts: who moves, what is said, and how often, and so how long. A
        first lesson uses the whole pattern, a review half of it. Every chip of the term says what its pattern comes to.
      </p>
      <ul className="border-t border-line bg-paper">
        {draft.patterns.map((one) => (
          <li key={one.id} className="border-b border-fine px-3 py-2">
            <button
              type="button"
              className="quiet-link font-serif text-base"
              aria-expanded={one.id === open}
              onClick={() => setOpen(one.id === open ? undefined : one.id)}
            >
              {one.name || 'No name yet'}
            </button>
            {one.id === draft.standing && ' · for whoever stands'}
            {one.id === draft.supported && ' · for whoever holds on or sits'}
            <br />
            <span className="text-soft">{examples(kept)[one.id] ?? 'Save to see what it comes to.'}</span>
          </li>
        ))}
      </ul>
      {!readOnly && (
        <div className="flex flex-wrap gap-3">
          <button
            type="button"
            className="button"
            onClick={() => {
              const made = { id: newId(), name: '', passes: [newPass()] }
              setDraft({ ...draft, patterns: [...draft.patterns, made] })
              setOpen(made.id)
            }}
          >
            Add a pattern
          </button>
          {kept.shipped
            .filter((one) => draft.patterns.every((other) => other.id !== one.id))
            .map((one) => (
              <button
                key={one.id}
                type="button"
                className="button"
                onClick={() => setDraft({ ...draft, patterns: [...draft.patterns, one] })}
              >
                Take back “{one.name}”
              </button>
            ))}
        </div>
      )}
      {pattern && (
        <fieldset disabled={readOnly} className="grid max-w-3xl gap-3 border-l-4 border-pine bg-paper px-4 py-3">
          <Field
            label="Name"
            value={pattern.name}
            onChange={(name) => change({ name })}
            error={errors?.at(`patterns[${at}].name`)}
            required
          />
          <Rows
            label="Passes"
            items={pattern.passes}
            add="Add a pass"
            make={newPass}
            onChange={(passes) => change({ passes })}
          >
            {(pass, set, index) => (
              <PassFields
                pass={pass}
                set={set}
                secondsOf={secondsOf}
                error={(field) => errors?.at(`patterns[${at}].passes[${index}].${field}`)}
              />
            )}
          </Rows>
          {draft.patterns.length > 1 && pattern.id !== draft.standing && pattern.id !== draft.supported && (
            <button
              type="button"
              className="quiet-link justify-self-start"
              onClick={() => setDraft({ ...draft, patterns: draft.patterns.filter((one) => one.id !== pattern.id) })}
            >
              Take this pattern out
            </button>
          )}
        </fieldset>
      )}
      <fieldset disabled={readOnly} className="grid max-w-3xl gap-3 sm:grid-cols-2">
        {(['standing', 'supported'] as const).map((who) => (
          <Choice
            key={who}
            label={who === 'standing' ? 'Whoever stands is taught by' : 'Whoever holds on or sits is taught by'}
            value={draft[who]}
            onChange={(id) => setDraft({ ...draft, [who]: id })}
            error={errors?.at(who)}
          >
            {draft.patterns.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Choice>
        ))}
        <Field
          label="A talk every so many lessons, 0 for none"
          type="number"
          min={0}
          max={52}
          value={String(draft.talkEvery)}
          onChange={(talkEvery) => setDraft({ ...draft, talkEvery: Number(talkEvery) })}
          error={errors?.at('talkEvery')}
        />
        <Field
          label="Minutes of a talk"
          type="number"
          min={1}
          max={60}
          value={String(draft.talkMinutes)}
          onChange={(talkMinutes) => setDraft({ ...draft, talkMinutes: Number(talkMinutes) })}
          error={errors?.at('talkMinutes')}
        />
      </fieldset>
      {save.isError && <Refusal error={save.error} />}
      {!readOnly && (
        <button
          type="submit"
          className="button button-primary justify-self-start"
          disabled={!changed || save.isPending}
        >
          Save how we teach
        </button>
      )}
    </form>
  )
}

function PassFields({
  pass,
  set,
  secondsOf,
  error,
}: {
  pass: Pass
  set: (part: Partial<Pass>) => void
  secondsOf: (said: Schema['Said']) => number
  error: (field: string) => string | undefined
}) {
  return (
    <>
      <div className="grid gap-2 sm:grid-cols-4">
        <Field label="Called" value={pass.name} onChange={(name) => set({ name })} error={error('name')} required />
        <Choice label="Who moves" value={pass.who} onChange={(who) => set({ who: who as Pass['who'] })}>
          {options(movers)}
        </Choice>
        <Choice
          label="Said"
          value={pass.said}
          onChange={(said) => set({ said: said as Pass['said'], secondsPerCount: secondsOf(said as Pass['said']) })}
        >
          {options(saids)}
        </Choice>
        <Choice label="Seen" value={pass.view} onChange={(view) => set({ view: view as Pass['view'] })}>
          {options(views)}
        </Choice>
      </div>
      <div className="grid gap-2 sm:grid-cols-3">
        <Field
          label="Times"
          type="number"
          min={1}
          max={50}
          value={String(pass.repetitions)}
          onChange={(times) => set({ repetitions: Number(times) })}
          error={error('repetitions')}
        />
        <Field
          label="Seconds a count"
          type="number"
          min={1}
          max={60}
          value={String(pass.secondsPerCount)}
          onChange={(seconds) => set({ secondsPerCount: Number(seconds) })}
          error={error('secondsPerCount')}
        />
        <Field
          label="Or minutes in all"
          type="number"
          min={0}
          max={60}
          value={pass.minutes === null ? '' : String(pass.minutes)}
          onChange={(minutes) => set({ minutes: minutes === '' ? null : Number(minutes) })}
          error={error('minutes')}
        />
      </div>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="sr-only">About which layers</legend>
        <span className="text-soft">About:</span>
        {layers.map((layer) => (
          <label key={layer} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={pass.layers.includes(layer)}
              onChange={(event) =>
                set({
                  layers: layers.filter((one) => (one === layer ? event.target.checked : pass.layers.includes(one))),
                })
              }
            />{' '}
            {layer}
          </label>
        ))}
        {pass.layers.length === 0 && <span className="text-soft">all of them</span>}
      </fieldset>
    </>
  )
}

const options = (words: Record<string, string>) =>
  Object.entries(words).map(([value, name]) => (
    <option key={value} value={value}>
      {name}
    </option>
  ))

/** What each kept pattern comes to. */
const examples = (kept: Schema['TeachingResponse']): Record<string, string | undefined> =>
  Object.fromEntries(
    kept.teaching.patterns.map((pattern, at) => [pattern.id, `Six counts, difficulty 2: ${kept.examples[at]}`]),
  )
