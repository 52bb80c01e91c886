import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useWays } from '../app/ways'
import { useEngine } from '../engine/engine'
import { Choice, Field } from '../ui/Field'
import { START_FRAME } from '../ui/floor'
import { newId } from '../ui/new-id'
import { Lines, Rows } from '../ui/Rows'
import { Heading, Refusal, Tabs } from '../ui/states'
import { demandWords, weightWords } from '../ui/words'
import { emptyCount } from './empty-posture'
import { FormsNav } from './FormsNav'
import { NotationField } from './NotationField'
import { useRefreshMaterial, type Count, type PostureText, type Side } from './queries'
import { StepPicture } from './StepPicture'
import { VersionsEditor } from './VersionsEditor'

const pages = [
  { value: 'steps', name: 'Counts and steps' },
  { value: 'about', name: 'About it' },
  { value: 'faults', name: 'Faults' },
  { value: 'aids', name: 'Aids' },
  { value: 'versions', name: 'Adapted versions' },
] as const

type Change = (part: Partial<PostureText>) => void

const names = { leadingFoot: 'the leading foot', leadingHand: 'the leading hand', standingLeg: 'the standing leg', steppingFoot: 'the stepping foot', nothing: 'nothing' } as const

/** Everything a head writes about a posture. It is kept when the head says so; until then nothing changes for anybody. */
export function PostureEditor({ posture, postures, done }: { posture: Schema['PostureResponse']; postures: Schema['PostureItem'][]; done: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const refresh = useRefreshMaterial()
  const [draft, setDraft] = useState(posture.text)
  const [search] = useSearchParams()
  const [page, setPage] = useState<(typeof pages)[number]['value']>(search.get('version') ? 'versions' : 'steps')
  const change: Change = (part) => setDraft((before) => ({ ...before, ...part }))
  const save = useMutation({
    mutationFn: () => answer(api.PUT('/api/postures/{id}', { params: { path: { id: posture.id } }, body: { text: draft, version: posture.version } })),
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
      <Heading title={draft.name || 'A posture without a name'} facts={draft.writtenSide === 'symmetric' ? 'no left or right' : `written for the ${draft.writtenSide}; the other side is its mirror`}>
        <Tabs label="Part" value={page} options={[...pages]} onChange={setPage} />
        <button type="button" className="button" onClick={done}>
          {changed ? 'Leave it as it was' : 'Back'}
        </button>
        <button type="button" className="button button-primary" disabled={!changed || save.isPending} onClick={() => save.mutate()}>
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
            <Lines label="Other names, one to a line" value={draft.otherNames} onChange={(otherNames) => change({ otherNames })} />
            <Field label="Key point: the one thing kept when everything else gives way" value={draft.keyPoint} onChange={(keyPoint) => change({ keyPoint })} error={at('keyPoint')} />
            <div className="grid grid-cols-2 gap-4 md:grid-cols-3">
              <Field label="Family" value={draft.family} onChange={(family) => change({ family })} />
              <Choice label="Kind" value={draft.kind} onChange={(kind) => change({ kind: kind as PostureText['kind'] })}>
                <option value="posture">posture</option>
                <option value="drill">drill</option>
              </Choice>
              <Choice label="Difficulty" value={String(draft.difficulty)} onChange={(difficulty) => change({ difficulty: Number(difficulty) })}>
                <option value="1">1, easy</option>
                <option value="2">2, middling</option>
                <option value="3">3, hard</option>
              </Choice>
              <Choice label="Written for" value={draft.writtenSide} error={at('writtenSide')} onChange={(side) => change({ writtenSide: side as Side, namedBy: side === 'symmetric' ? 'nothing' : draft.namedBy === 'nothing' ? 'leadingFoot' : draft.namedBy })}>
                <option value="left">the left</option>
                <option value="right">the right</option>
                <option value="symmetric">no side</option>
              </Choice>
              {draft.writtenSide !== 'symmetric' && (
                <Choice label="Its side is named by" value={draft.namedBy} error={at('namedBy')} onChange={(namedBy) => change({ namedBy: namedBy as PostureText['namedBy'] })}>
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
            <Rows label="Needed before it" items={draft.needs} add="Add a posture or drill" make={() => postures.find((one) => one.kind === 'drill' && !draft.needs.includes(one.id))?.id ?? ''} onChange={(needs) => change({ needs })}>
              {(need, _, place) => (
                <Choice label="Posture or drill" value={need} onChange={(value) => change({ needs: draft.needs.with(place, value) })} error={at(`needs[${place}]`)}>
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
            <Lines label="Cautions, one to a line" value={draft.cautions} onChange={(cautions) => change({ cautions })} />
            <Rows label="Done differently from a date on" items={draft.changes} add="Add a change of the standard" make={() => ({ id: newId(), from: new Date().toISOString().slice(0, 10), difference: '' })} onChange={(changes) => change({ changes })}>
              {(item, edit) => (
                <div className="grid grid-cols-[160px_1fr] gap-3">
                  <Field label="From" type="date" value={item.from} onChange={(from) => edit({ from })} />
                  <Field label="Only the difference" value={item.difference} onChange={(difference) => edit({ difference })} />
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

/** The counts with their layers; the feet in notation and on the picture, which follows every keystroke. */
function StepsPage({ draft, change, at, postures }: { draft: PostureText; change: Change; at: (field: string) => string | undefined; postures: Schema['PostureItem'][] }) {
  const engine = useEngine().data
  const { pivots } = useWays()
  const [chosen, setChosen] = useState(0)
  const feet = draft.counts.map((count) => count.feet)
  const key = JSON.stringify([draft.entry, feet, pivots])
  const walked = useMemo(() => {
    if (!engine) return null
    const [entry, ...counts] = engine.walk(START_FRAME, [draft.entry, ...feet], pivots)
    let last: number[] = entry?.at(-1) ?? START_FRAME
    const stands = counts.map((frames) => {
      const before = last
      last = frames.at(-1) ?? last
      return { before, after: last }
    })
    return { start: entry?.at(-1) ?? START_FRAME, stands, ends: engine.endsIn(last), findings: engine.check(draft.entry, feet, pivots) }
    // The key holds everything that is walked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [engine, key])
  const edit = (index: number, part: Partial<Count>) => change({ counts: draft.counts.map((count, place) => (place === index ? { ...count, ...part } : count)) })
  const shown = Math.min(chosen, draft.counts.length)
  const stand = shown === 0 ? walked && { before: START_FRAME, after: walked.start } : walked?.stands[shown - 1]

  if (draft.parts.length > 0) return <PartsPage draft={draft} change={change} at={at} postures={postures} />
  return (
    <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_440px]">
      <div className="grid content-start gap-4">
        <div onFocus={() => setChosen(0)}>
          <NotationField label="Entry: from feet together into where it starts" value={draft.entry} onChange={(entry) => change({ entry })} engine={engine} error={at('entry')} />
        </div>
        <BuiltFrom draft={draft} change={change} postures={postures} />
        {draft.counts.map((count, index) => (
          <fieldset key={index} className={`grid gap-2 rounded-lg border p-3 ${shown === index + 1 ? 'border-pine' : 'border-line'}`} onFocus={() => setChosen(index + 1)}>
            <legend className="px-1 font-serif text-base font-semibold">Count {index + 1}</legend>
            <Field label="Cue, the few words called" value={count.cue} onChange={(cue) => edit(index, { cue })} error={at(`counts[${index}].cue`)} />
            <NotationField label="Feet" value={count.feet} onChange={(text) => edit(index, { feet: text })} engine={engine} error={at(`counts[${index}].feet`)} />
            <div className="grid grid-cols-2 gap-2 md:grid-cols-3">
              <Field label="Waist" value={count.waist} onChange={(waist) => edit(index, { waist })} />
              <Field label="Hands" value={count.hands} onChange={(hands) => edit(index, { hands })} />
              <Field label="Hand shape" value={count.shape} onChange={(shape) => edit(index, { shape })} />
              <Field label="Gaze" value={count.gaze} onChange={(gaze) => edit(index, { gaze })} />
              <Field label="Breath" value={count.breath} onChange={(breath) => edit(index, { breath })} />
              <Field label="Only if" value={count.onlyIf} onChange={(onlyIf) => edit(index, { onlyIf })} />
            </div>
            {draft.builtFrom && (
              <Field label="Takes what is empty from its count" type="number" min={0} max={30} value={String(count.as)} onChange={(as) => edit(index, { as: Number(as) || 0 })} error={at(`counts[${index}].as`)} />
            )}
            {walked?.findings
              .filter((finding) => finding.count === index + 1)
              .map((finding) => (
                <p key={finding.message} role="note" className={`border-l-4 pl-3 ${finding.severity === 'Impossible' ? 'border-lacquer' : 'border-ochre-mark'}`}>
                  {finding.message}
                </p>
              ))}
            <div className="flex gap-4">
              <button type="button" className="quiet-link" onClick={() => change({ counts: draft.counts.toSpliced(index + 1, 0, emptyCount) })}>
                Add a count after it
              </button>
              {draft.counts.length > 1 && (
                <button type="button" className="quiet-link" onClick={() => change({ counts: draft.counts.toSpliced(index, 1) })}>
                  Take it out
                </button>
              )}
            </div>
          </fieldset>
        ))}
        {at('counts') && <p className="text-lacquer">{at('counts')}</p>}
        <Rows label="A coarser calling" items={draft.merged} add="Add a merged cue" make={() => ({ cue: '', counts: 1 })} onChange={(merged) => change({ merged })}>
          {(item, editItem) => (
            <div className="grid grid-cols-[1fr_100px] gap-3">
              <Field label="Cue" value={item.cue} onChange={(cue) => editItem({ cue })} />
              <Field label="for counts" type="number" min={1} max={20} value={String(item.counts)} onChange={(counts) => editItem({ counts: Number(counts) || 1 })} />
            </div>
          )}
        </Rows>
        {at('merged') && <p className="text-lacquer">{at('merged')}</p>}
        <LoopFields draft={draft} change={change} error={at('loop.return')} />
      </div>
      <div className="grid content-start gap-3 xl:sticky xl:top-4 xl:self-start">
        {engine && stand && (
          <StepPicture
            key={shown}
            label={shown === 0 ? 'Where it starts, from above' : `Count ${shown} from above`}
            engine={engine}
            pivots={pivots}
            steps={shown === 0 ? draft.entry : feet[shown - 1]!}
            before={stand.before}
            after={stand.after}
            editable
            onChange={(text) => (shown === 0 ? change({ entry: text }) : edit(shown - 1, { feet: text }))}
          />
        )}
        <p>
          {shown === 0 ? 'Where it starts.' : `Count ${shown}: ${draft.counts[shown - 1]?.cue}.`} {walked && <span className="text-soft">All of it ends in {walked.ends}.</span>}
        </p>
        <EndFields draft={draft} change={change} />
      </div>
    </div>
  )
}

function BuiltFrom({ draft, change, postures }: { draft: PostureText; change: Change; postures: Schema['PostureItem'][] }) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Choice label="Built from" value={draft.builtFrom?.postureId ?? ''} onChange={(id) => change({ builtFrom: id ? { postureId: id, mirrored: draft.builtFrom?.mirrored ?? false } : null })}>
        <option value="">nothing: all of it is written here</option>
        {postures
          .filter((one) => !one.isCompound && one.name !== draft.name)
          .map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
      </Choice>
      {draft.builtFrom && (
        <label className="flex items-center gap-2 pb-2">
          <input type="checkbox" className="size-4 accent-pine" checked={draft.builtFrom.mirrored} onChange={(event) => change({ builtFrom: { ...draft.builtFrom!, mirrored: event.target.checked } })} />
          its other side
        </label>
      )}
      {!draft.builtFrom && (
        <button type="button" className="quiet-link pb-2" onClick={() => change({ counts: [], merged: [], parts: [{ postureId: postures.find((one) => !one.isCompound)!.id, side: 'left' }] })}>
          Make it a compound of other postures
        </button>
      )}
    </div>
  )
}

function PartsPage({ draft, change, at, postures }: { draft: PostureText; change: Change; at: (field: string) => string | undefined; postures: Schema['PostureItem'][] }) {
  return (
    <div className="grid max-w-2xl gap-4">
      <p className="text-soft">A compound posture is its parts. In a form its parts stand as positions that say they belong to it, and the school’s numbering counts them as one or one by one.</p>
      <Rows<Schema['Part']> label="Parts" items={draft.parts} add="Add a part" make={() => ({ postureId: postures.find((one) => !one.isCompound)!.id, side: 'left' })} onChange={(parts) => change(parts.length === 0 ? { parts, counts: [emptyCount] } : { parts })}>
        {(item, edit, index) => (
          <div className="grid grid-cols-2 gap-3">
            <Choice label="Posture" value={item.postureId} error={at(`parts[${index}].postureId`)} onChange={(postureId) => edit({ postureId, side: postures.find((one) => one.id === postureId)?.writtenSide ?? 'left' })}>
              {postures
                .filter((one) => !one.isCompound)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
            </Choice>
            <Choice label="Side" value={item.side} error={at(`parts[${index}].side`)} onChange={(side) => edit({ side: side as Side })}>
              <option value="left">left</option>
              <option value="right">right</option>
              <option value="symmetric">no side</option>
            </Choice>
          </div>
        )}
      </Rows>
    </div>
  )
}

const stances = { bow: 'bow', empty: 'empty', horse: 'horse', tStep: 'T-step', oneLeg: 'one leg', drop: 'drop', crossed: 'crossed', v: 'V', parallel: 'parallel', followStep: 'follow-step' } as const

/** How it is meant to end; the steps have to bear it out. */
function EndFields({ draft, change }: { draft: PostureText; change: Change }) {
  const end = draft.end
  return (
    <fieldset className="grid grid-cols-3 gap-3">
      <legend className="mb-1 font-semibold">It is meant to end in</legend>
      <Choice label="Stance" value={end?.stance ?? ''} onChange={(stance) => change({ end: stance ? { stance: stance as Schema['Stance'], leading: end?.leading ?? draft.writtenSide, leftLoad: end?.leftLoad ?? 50 } : null })}>
        <option value="">not said</option>
        {Object.entries(stances).map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </Choice>
      {end && (
        <>
          <Choice label="Leading foot" value={end.leading} onChange={(leading) => change({ end: { ...end, leading: leading as Side } })}>
            <option value="left">left</option>
            <option value="right">right</option>
            <option value="symmetric">neither</option>
          </Choice>
          <Field label="% on the left" type="number" min={0} max={100} value={String(end.leftLoad)} onChange={(load) => change({ end: { ...end, leftLoad: Number(load) || 0 } })} />
        </>
      )}
    </fieldset>
  )
}

function LoopFields({ draft, change, error }: { draft: PostureText; change: Change; error?: string }) {
  const engine = useEngine().data
  return draft.loop ? (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-serif text-base font-semibold">As a loop, from side to side</legend>
      <Field label="What is called in between" value={draft.loop.cue} onChange={(cue) => change({ loop: { ...draft.loop!, cue } })} />
      <NotationField label="The return: from its end to its other side’s beginning" value={draft.loop.return} onChange={(text) => change({ loop: { ...draft.loop!, return: text } })} engine={engine} error={error} />
      <button type="button" className="quiet-link justify-self-start" onClick={() => change({ loop: null })}>
        It is not practised as a loop
      </button>
    </fieldset>
  ) : (
    <button type="button" className="button justify-self-start" onClick={() => change({ loop: { cue: 'the other side', return: '' } })}>
      Practise it as a loop
    </button>
  )
}

function FaultsPage({ draft, change, at }: { draft: PostureText; change: Change; at: (field: string) => string | undefined }) {
  return (
    <div className="max-w-3xl">
      <FaultRows label="Usual faults" faults={draft.faults} onChange={(faults) => change({ faults })} at={at} />
    </div>
  )
}

/** Faults with their causes and mends; used for postures, links and principles alike. */
export function FaultRows({ label, faults, onChange, at }: { label: string; faults: Schema['Fault'][]; onChange: (faults: Schema['Fault'][]) => void; at: (field: string) => string | undefined }) {
  return (
    <Rows label={label} items={faults} add="Add a fault" make={() => ({ id: newId(), seen: '', weight: 'shape' as const, causes: [{ why: '', mend: '' }], otherWays: [] })} onChange={onChange}>
      {(fault, edit, index) => (
        <>
          <div className="grid grid-cols-[1fr_140px] gap-3">
            <Field label="What is seen" value={fault.seen} onChange={(seen) => edit({ seen })} error={at(`faults[${index}].seen`)} />
            <Choice label="It weighs" value={fault.weight} onChange={(weight) => edit({ weight: weight as Schema['Weight'] })}>
              {Object.entries(weightWords).map(([value, name]) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </Choice>
          </div>
          <Rows label="Perhaps because" items={fault.causes} add="Add a cause" make={() => ({ why: '', mend: '' })} onChange={(causes) => edit({ causes })}>
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
      <Field label="What the movement is for" value={draft.application} onChange={(application) => change({ application })} />
      <Rows label="Look at the end shape" items={draft.checkpoints} add="Add a checkpoint" make={() => ({ here: '', against: '', tolerance: '', seenFrom: '' })} onChange={(checkpoints) => change({ checkpoints })}>
        {(item, edit) => (
          <div className="grid grid-cols-2 gap-3">
            <Field label="This" value={item.here} onChange={(here) => edit({ here })} />
            <Field label="against that" value={item.against} onChange={(against) => edit({ against })} />
            <Field label="within" value={item.tolerance} onChange={(tolerance) => edit({ tolerance })} />
            <Field label="seen from" value={item.seenFrom} onChange={(seenFrom) => edit({ seenFrom })} />
          </div>
        )}
      </Rows>
      <Rows label="Not quite true, but helpful" items={draft.simplifications} add="Add a simplification" make={() => ({ says: '', getsWrong: '', replaceWhen: '' })} onChange={(simplifications) => change({ simplifications })}>
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
export function Demands({ label, value, onChange }: { label: string; value: Schema['Demand'][]; onChange: (value: Schema['Demand'][]) => void }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{label}</legend>
      <div className="grid grid-cols-2 gap-x-4 md:grid-cols-3">
        {(Object.entries(demandWords) as [Schema['Demand'], string][]).map(([demand, name]) => (
          <label key={demand} className="flex items-center gap-2 py-0.5">
            <input type="checkbox" className="size-4 accent-pine" checked={value.includes(demand)} onChange={(event) => onChange(event.target.checked ? [...value, demand] : value.filter((one) => one !== demand))} />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  )
}
