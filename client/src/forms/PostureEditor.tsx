import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { Choice, Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Lines, Rows } from '../ui/Rows'
import { Heading, Refusal, Tabs } from '../ui/states'
import { demandWords, weightWords } from '../ui/words'
import { FormsNav } from './FormsNav'
import { StepsPage } from './PostureSteps'
import { useRefreshMaterial, type PostureText, type Side } from './queries'
import { VersionsEditor } from './VersionsEditor'

const pages = [
  { value: 'steps', name: 'Counts and steps' },
  { value: 'about', name: 'About it' },
  { value: 'faults', name: 'Faults' },
  { value: 'aids', name: 'Aids' },
  { value: 'versions', name: 'Adapted versions' },
] as const

type Change = (part: Partial<PostureText>) => void

const names = {
  leadingFoot: 'the leading foot',
  leadingHand: 'the leading hand',
  standingLeg: 'the standing leg',
  steppingFoot: 'the stepping foot',
  nothing: 'nothing',
} as const

/** Everything a head writes about a posture. It is kept when the head says so; until then nothing changes for anybody. */
export function PostureEditor({
  posture,
  postures,
  done,
}: {
  posture: Schema['PostureResponse']
  postures: Schema['PostureItem'][]
  done: () => void
}) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const refresh = useRefreshMaterial()
  const [draft, setDraft] = useState(posture.text)
  const [search] = useSearchParams()
  const [page, setPage] = useState<(typeof pages)[number]['value']>(search.get('version') ? 'versions' : 'steps')
  const change: Change = (part) => setDraft((before) => ({ ...before, ...part }))
  const save = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/postures/{id}', {
          params: { path: { id: posture.id } },
          body: { text: draft, version: posture.version },
        }),
      ),
    onSuccess: async (saved) => {
      queries.setQueryData(['posture', posture.id, undefined], saved)
      await refresh()
      done()
    },
  })
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE('/api/postures/{id}', { params: { path: { id: posture.id } } })),
    onSuccess: async () => {
      void navigate('/forms/postures')
      await refresh()
    },
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const at = (field: string) => problem?.at(field)
  const changed = draft !== posture.text

  return (
    <>
      <FormsNav here="/forms/postures" />
      <Heading
        title={draft.name || 'A posture without a name'}
        facts={
          draft.writtenSide === 'symmetric'
            ? 'no left or right'
            : `written for the ${draft.writtenSide}; the other side is its mirror`
        }
      >
        <Tabs label="Part" value={page} options={[...pages]} onChange={setPage} />
        <button type="button" className="button" onClick={done}>
          {changed ? 'Leave it as it was' : 'Back'}
        </button>
        <button
          type="button"
          className="button button-primary"
          disabled={!changed || save.isPending}
          onClick={() => save.mutate()}
        >
          Keep the posture
        </button>
      </Heading>
      {(save.isError || remove.isError) && (
        <div className="px-5 pb-3">
          <Refusal error={(save.error ?? remove.error)!} />
        </div>
      )}
      <div className="flex-1 border-t border-line bg-paper p-5">
        {page === 'steps' && <StepsPage draft={draft} change={change} at={at} postures={postures} />}
        {page === 'about' && (
          <div className="grid max-w-3xl gap-4">
            <Field label="Name" value={draft.name} onChange={(name) => change({ name })} error={at('name')} />
            <Lines
              label="Other names, one to a line"
              value={draft.otherNames}
              onChange={(otherNames) => change({ otherNames })}
            />
            <Field
              label="Key point: the one thing kept when everything else gives way"
              value={draft.keyPoint}
              onChange={(keyPoint) => change({ keyPoint })}
              error={at('keyPoint')}
            />
            <div className="grid grid-cols-2 gap-4 md:grid-cols-3">
              <Field label="Family" value={draft.family} onChange={(family) => change({ family })} />
              <Choice
                label="Kind"
                value={draft.kind}
                onChange={(kind) => change({ kind: kind as PostureText['kind'] })}
              >
                <option value="posture">posture</option>
                <option value="drill">drill</option>
              </Choice>
              <Choice
                label="Difficulty"
                value={String(draft.difficulty)}
                onChange={(difficulty) => change({ difficulty: Number(difficulty) })}
              >
                <option value="1">1, easy</option>
                <option value="2">2, middling</option>
                <option value="3">3, hard</option>
              </Choice>
              <Choice
                label="Written for"
                value={draft.writtenSide}
                error={at('writtenSide')}
                onChange={(side) =>
                  change({
                    writtenSide: side as Side,
                    namedBy:
                      side === 'symmetric' ? 'nothing' : draft.namedBy === 'nothing' ? 'leadingFoot' : draft.namedBy,
                  })
                }
              >
                <option value="left">the left</option>
                <option value="right">the right</option>
                <option value="symmetric">no side</option>
              </Choice>
              {draft.writtenSide !== 'symmetric' && (
                <Choice
                  label="Its side is named by"
                  value={draft.namedBy}
                  error={at('namedBy')}
                  onChange={(namedBy) => change({ namedBy: namedBy as PostureText['namedBy'] })}
                >
                  {Object.entries(names)
                    .filter(([value]) => value !== 'nothing')
                    .map(([value, name]) => (
                      <option key={value} value={value}>
                        {name}
                      </option>
                    ))}
                </Choice>
              )}
            </div>
            <Demands label="What it asks of a body" value={draft.demands} onChange={(demands) => change({ demands })} />
            <Rows
              label="Needed before it"
              items={draft.needs}
              add="Add a posture or drill"
              make={() => postures.find((one) => one.kind === 'drill' && !draft.needs.includes(one.id))?.id ?? ''}
              onChange={(needs) => change({ needs })}
            >
              {(need, _, place) => (
                <Choice
                  label="Posture or drill"
                  value={need}
                  onChange={(value) => change({ needs: draft.needs.with(place, value) })}
                  error={at(`needs[${place}]`)}
                >
                  {postures
                    .filter((one) => one.id !== posture.id)
                    .map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                </Choice>
              )}
            </Rows>
            <Lines
              label="Cautions, one to a line"
              value={draft.cautions}
              onChange={(cautions) => change({ cautions })}
            />
            <Rows
              label="Done differently from a date on"
              items={draft.changes}
              add="Add a change of the standard"
              make={() => ({ id: newId(), from: new Date().toISOString().slice(0, 10), difference: '' })}
              onChange={(changes) => change({ changes })}
            >
              {(item, edit) => (
                <div className="grid grid-cols-[160px_1fr] gap-3">
                  <Field label="From" type="date" value={item.from} onChange={(from) => edit({ from })} />
                  <Field
                    label="Only the difference"
                    value={item.difference}
                    onChange={(difference) => edit({ difference })}
                  />
                </div>
              )}
            </Rows>
            <button type="button" className="quiet-link justify-self-start" onClick={() => remove.mutate()}>
              Take this posture out of the catalogue
            </button>
          </div>
        )}
        {page === 'faults' && <FaultsPage draft={draft} change={change} at={at} />}
        {page === 'aids' && <AidsPage draft={draft} change={change} />}
        {page === 'versions' && <VersionsEditor draft={draft} change={change} at={at} />}
      </div>
    </>
  )
}

function FaultsPage({
  draft,
  change,
  at,
}: {
  draft: PostureText
  change: Change
  at: (field: string) => string | undefined
}) {
  return (
    <div className="max-w-3xl">
      <FaultRows label="Usual faults" faults={draft.faults} onChange={(faults) => change({ faults })} at={at} />
    </div>
  )
}

/** Faults with their causes and mends; used for postures, links and principles alike. */
export function FaultRows({
  label,
  faults,
  onChange,
  at,
}: {
  label: string
  faults: Schema['Fault'][]
  onChange: (faults: Schema['Fault'][]) => void
  at: (field: string) => string | undefined
}) {
  return (
    <Rows
      label={label}
      items={faults}
      add="Add a fault"
      make={() => ({ id: newId(), seen: '', weight: 'shape' as const, causes: [{ why: '', mend: '' }], otherWays: [] })}
      onChange={onChange}
    >
      {(fault, edit, index) => (
        <>
          <div className="grid grid-cols-[1fr_140px] gap-3">
            <Field
              label="What is seen"
              value={fault.seen}
              onChange={(seen) => edit({ seen })}
              error={at(`faults[${index}].seen`)}
            />
            <Choice
              label="It weighs"
              value={fault.weight}
              onChange={(weight) => edit({ weight: weight as Schema['Weight'] })}
            >
              {Object.entries(weightWords).map(([value, name]) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </Choice>
          </div>
          <Rows
            label="Perhaps because"
            items={fault.causes}
            add="Add a cause"
            make={() => ({ why: '', mend: '' })}
            onChange={(causes) => edit({ causes })}
          >
            {(cause, editCause) => (
              <div className="grid grid-cols-2 gap-3">
                <Field label="Why" value={cause.why} onChange={(why) => editCause({ why })} />
                <Field label="Its mend" value={cause.mend} onChange={(mend) => editCause({ mend })} />
              </div>
            )}
          </Rows>
          <Lines label="Other ways to teach it" value={fault.otherWays} onChange={(otherWays) => edit({ otherWays })} />
        </>
      )}
    </Rows>
  )
}

function AidsPage({ draft, change }: { draft: PostureText; change: Change }) {
  return (
    <div className="grid max-w-3xl gap-5">
      <Lines label="Images, one to a line" value={draft.images} onChange={(images) => change({ images })} />
      <Field
        label="What the movement is for"
        value={draft.application}
        onChange={(application) => change({ application })}
      />
      <Rows
        label="Look at the end shape"
        items={draft.checkpoints}
        add="Add a checkpoint"
        make={() => ({ here: '', against: '', tolerance: '', seenFrom: '' })}
        onChange={(checkpoints) => change({ checkpoints })}
      >
        {(item, edit) => (
          <div className="grid grid-cols-2 gap-3">
            <Field label="This" value={item.here} onChange={(here) => edit({ here })} />
            <Field label="against that" value={item.against} onChange={(against) => edit({ against })} />
            <Field label="within" value={item.tolerance} onChange={(tolerance) => edit({ tolerance })} />
            <Field label="seen from" value={item.seenFrom} onChange={(seenFrom) => edit({ seenFrom })} />
          </div>
        )}
      </Rows>
      <Rows
        label="Not quite true, but helpful"
        items={draft.simplifications}
        add="Add a simplification"
        make={() => ({ says: '', getsWrong: '', replaceWhen: '' })}
        onChange={(simplifications) => change({ simplifications })}
      >
        {(item, edit) => (
          <>
            <Field label="It says" value={item.says} onChange={(says) => edit({ says })} />
            <Field label="What it gets wrong" value={item.getsWrong} onChange={(getsWrong) => edit({ getsWrong })} />
            <Field label="Replace it" value={item.replaceWhen} onChange={(replaceWhen) => edit({ replaceWhen })} />
          </>
        )}
      </Rows>
    </div>
  )
}

/** What is asked of a body, ticked. */
export function Demands({
  label,
  value,
  onChange,
}: {
  label: string
  value: Schema['Demand'][]
  onChange: (value: Schema['Demand'][]) => void
}) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{label}</legend>
      <div className="grid grid-cols-2 gap-x-4 md:grid-cols-3">
        {(Object.entries(demandWords) as [Schema['Demand'], string][]).map(([demand, name]) => (
          <label key={demand} className="flex items-center gap-2 py-0.5">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={value.includes(demand)}
              onChange={(event) =>
                onChange(event.target.checked ? [...value, demand] : value.filter((one) => one !== demand))
              }
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  )
}
