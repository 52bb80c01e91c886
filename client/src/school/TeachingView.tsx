import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useDraft, type Draft } from '../shared/draft'
import { ChoiceField, DraftProblem, DraftRows, NumberInput, SaveBar, TextField } from '../shared/fields'
import { Opening } from '../shared/Opening'
import { useSignedIn } from '../shared/session'
import { Checkbox } from '../ui/Checkbox'
import { newId } from '../ui/new-id'
import { Option } from '../ui/Select'
import { posturesQuery } from '../shared/material'
import { FieldError } from '../ui/Field'
import { OccasionFields } from './OccasionFields'
import { saveTeaching, teachingQuery, type Teaching } from './data'

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

const taughtBy = {
  standing: 'Whoever stands is taught by',
  supported: 'Whoever holds on or sits is taught by',
  again: 'What many share is taught again by',
} as const

/** How the school teaches: patterns of passes, who is taught by which, talks, the warm-up, and practice at home. */
export function TeachingView() {
  const { isHead } = useSignedIn()
  const kept = useQuery(teachingQuery())
  if (!kept.data) return <Opening of={[kept]} what="Opening the patterns" />
  return <Patterns kept={kept.data} readOnly={!isHead} />
}

function Patterns({ kept, readOnly }: { kept: Schema['TeachingResponse']; readOnly: boolean }) {
  const draft = useDraft<Teaching>({
    about: ['teaching'],
    what: 'how we teach',
    text: kept.teaching,
    version: kept.version,
  })
  const save = useMutation(saveTeaching)
  const { text, change: set } = draft
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
  const at = text.patterns.findIndex((pattern) => pattern.id === open)
  const pattern = text.patterns[at]
  return (
    <form
      className="grid gap-5"
      noValidate
      onSubmit={draft.submit((teaching, version) => save.mutateAsync({ teaching, version: version! }))}
    >
      <p className="max-w-3xl">
        A pattern is a list of passes through the counts: who moves, what is said, and how often, and so how long. A
        first lesson uses the whole pattern, a review half of it. Every posture of the term says what its pattern comes
        to.
      </p>
      <ul className="border-t border-line bg-paper">
        {text.patterns.map((one) => (
          <li key={one.id} className="border-b border-fine px-3 py-2">
            <button
              type="button"
              className="quiet-link font-serif text-base"
              aria-expanded={one.id === open}
              onClick={() => setOpen(one.id === open ? undefined : one.id)}
            >
              {one.name || 'No name yet'}
            </button>
            {one.id === text.standing && ' · for whoever stands'}
            {one.id === text.supported && ' · for whoever holds on or sits'}
            {one.id === text.again && ' · for what many share'}
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
              set({ patterns: [...text.patterns, made] })
              setOpen(made.id)
            }}
          >
            Add a pattern
          </button>
          {kept.shipped
            .filter((one) => text.patterns.every((other) => other.id !== one.id))
            .map((one) => (
              <button
                key={one.id}
                type="button"
                className="button"
                onClick={() => set({ patterns: [...text.patterns, one] })}
              >
                Take back “{one.name}”
              </button>
            ))}
        </div>
      )}
      {pattern && (
        <fieldset disabled={readOnly} className="grid max-w-3xl gap-3 border-l-4 border-pine bg-paper px-4 py-3">
          <TextField draft={draft} name={`patterns.${at}.name`} label="Name" />
          <DraftRows
            key={pattern.id}
            draft={draft}
            name={`patterns.${at}.passes`}
            label="Passes"
            add="Add a pass"
            make={newPass}
          >
            {(_, index, pass) => <PassFields draft={draft} at={[at, index]} pass={pass} secondsOf={secondsOf} />}
          </DraftRows>
          {![text.standing, text.supported, text.again].includes(pattern.id) && (
            <button
              type="button"
              className="quiet-link justify-self-start"
              onClick={() => set({ patterns: text.patterns.filter((one) => one.id !== pattern.id) })}
            >
              Take this pattern out
            </button>
          )}
        </fieldset>
      )}
      <fieldset disabled={readOnly} className="grid max-w-3xl gap-3 sm:grid-cols-2">
        {Object.entries(taughtBy).map(([who, label]) => (
          <ChoiceField key={who} draft={draft} name={who as keyof typeof taughtBy} label={label}>
            {text.patterns.map((one) => (
              <Option key={one.id} value={one.id}>
                {one.name}
              </Option>
            ))}
          </ChoiceField>
        ))}
        <NumberInput draft={draft} name="talkEvery" label="A talk every so many lessons, 0 for none" />
        <NumberInput draft={draft} name="talkMinutes" label="Minutes of a talk" />
      </fieldset>
      <WarmUpFields draft={draft} takes={kept.warmUpMinutes} readOnly={readOnly} />
      <fieldset disabled={readOnly} className="grid max-w-3xl gap-3 sm:grid-cols-2">
        <legend className="mb-1 font-serif text-base">While a cohort practises by itself</legend>
        <NumberInput draft={draft} name="eyes.longestAlone" label="Minutes without a teacher’s eye at most" />
        <NumberInput draft={draft} name="eyes.longestVisit" label="Minutes of a visit at most" />
        <NumberInput draft={draft} name="eyes.manyToVisit" label="A visit takes two minutes from so many people on" />
        <NumberInput draft={draft} name="eyes.noNewInLast" label="Nothing new is begun in the last minutes" />
      </fieldset>
      <OccasionFields draft={draft} shipped={kept.shippedOccasions} readOnly={readOnly} />
      <DraftProblem draft={draft} shown={(field) => !field.includes('passes') || field.startsWith(`patterns[${at}]`)} />
      {!readOnly && <SaveBar draft={draft} save="Save how we teach" cancel={draft.dirty ? draft.forget : undefined} />}
    </form>
  )
}

/** What every lesson begins with, joint by joint: in the school's own order, with drills of its catalogue. */
function WarmUpFields({ draft, takes, readOnly }: { draft: Draft<Teaching>; takes: number; readOnly: boolean }) {
  const drills = useQuery(posturesQuery()).data?.filter(({ kind }) => kind === 'drill') ?? []
  const minutes = draft.text.warmUp.reduce((sum, piece) => sum + piece.minutes, 0)
  const change = (at: number, part: Partial<Schema['WarmUpPiece']>) =>
    draft.change(({ warmUp }) => ({
      warmUp: warmUp.map((piece, place) => (place === at ? { ...piece, ...part } : piece)),
    }))
  return (
    <fieldset disabled={readOnly} className="grid max-w-3xl gap-2">
      <DraftRows
        draft={draft}
        name="warmUp"
        label="The warm-up, joint by joint, in this order"
        add="Add a piece"
        make={() => ({ what: '', minutes: 1, drillId: null })}
      >
        {(_, at, piece) => (
          <div className="grid gap-2 sm:grid-cols-[1fr_1fr_90px]">
            <TextField draft={draft} name={`warmUp.${at}.what`} label="Called" />
            <ChoiceField
              draft={draft}
              name={`warmUp.${at}.drillId`}
              label="Drill"
              nothing
              then={(id) => {
                const drill = drills.find((one) => one.id === id)
                if (drill && !piece.what) change(at, { what: drill.name })
              }}
            >
              <Option value="">none of the catalogue</Option>
              {drills.map((one) => (
                <Option key={one.id} value={one.id}>
                  {one.name}
                </Option>
              ))}
            </ChoiceField>
            <NumberInput draft={draft} name={`warmUp.${at}.minutes`} label="Minutes" />
          </div>
        )}
      </DraftRows>
      <p className="text-soft">
        {minutes} of {takes} minutes.
      </p>
      <FieldError error={draft.at('warmUp')} />
    </fieldset>
  )
}

function PassFields({
  draft,
  at: [pattern, index],
  pass,
  secondsOf,
}: {
  draft: Draft<Teaching>
  at: [pattern: number, pass: number]
  pass: Pass
  secondsOf: (said: Schema['Said']) => number
}) {
  const name = `patterns.${pattern}.passes.${index}` as const
  const change = (part: Partial<Pass>) =>
    draft.change({
      patterns: draft.text.patterns.map((one, place) =>
        place === pattern
          ? { ...one, passes: one.passes.map((old, which) => (which === index ? { ...old, ...part } : old)) }
          : one,
      ),
    })
  return (
    <>
      <div className="grid gap-2 sm:grid-cols-4">
        <TextField draft={draft} name={`${name}.name`} label="Called" />
        <ChoiceField draft={draft} name={`${name}.who`} label="Who moves">
          {options(movers)}
        </ChoiceField>
        <ChoiceField
          draft={draft}
          name={`${name}.said`}
          label="Said"
          then={(said) => change({ said: said as Pass['said'], secondsPerCount: secondsOf(said as Pass['said']) })}
        >
          {options(saids)}
        </ChoiceField>
        <ChoiceField draft={draft} name={`${name}.view`} label="Seen">
          {options(views)}
        </ChoiceField>
      </div>
      <div className="grid gap-2 sm:grid-cols-3">
        <NumberInput draft={draft} name={`${name}.repetitions`} label="Times" />
        <NumberInput draft={draft} name={`${name}.secondsPerCount`} label="Seconds a count" />
        <NumberInput draft={draft} name={`${name}.minutes`} label="Or minutes in all" mayBeEmpty />
      </div>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="sr-only">About which layers</legend>
        <span className="text-soft">About:</span>
        {layers.map((layer) => (
          <Checkbox
            key={layer}
            checked={pass.layers.includes(layer)}
            onChange={(about) =>
              change({ layers: layers.filter((one) => (one === layer ? about : pass.layers.includes(one))) })
            }
          >
            {layer}
          </Checkbox>
        ))}
        {pass.layers.length === 0 && <span className="text-soft">all of them</span>}
      </fieldset>
    </>
  )
}

const options = (words: Record<string, string>) =>
  Object.entries(words).map(([value, name]) => (
    <Option key={value} value={value}>
      {name}
    </Option>
  ))

/** What each kept pattern comes to. */
const examples = (kept: Schema['TeachingResponse']): Record<string, string | undefined> =>
  Object.fromEntries(
    kept.teaching.patterns.map((pattern, at) => [pattern.id, `Six counts, difficulty 2: ${kept.examples[at]}`]),
  )
