import { useDeferredValue, useMemo, useState } from 'react'
import type { Schema } from '../api/client'
import { useWays } from '../shared/ways'
import { useEngine } from '../engine/engine'
import { Choice, Field, NumberField } from '../ui/Field'
import { Option } from '../ui/Select'
import { START_FRAME } from '../ui/floor'
import { Rows } from '../ui/Rows'
import { emptyCount } from './empty-posture'
import { NotationField } from './NotationField'
import type { Count, PostureText } from './data'
import { countedOf } from './figure'
import { useLent } from './lent'
import { PostureFigure } from './PostureFigure'
import { PostureFindings, mended } from './PostureFindings'
import { StepPicture } from './StepPicture'
import { Checkbox } from '../ui/Checkbox'

type Change = (part: Partial<PostureText>) => void

/** The counts with their layers; the feet in notation and on the picture, which follows every keystroke. */
export function StepsPage({
  draft,
  change,
  at,
  postures,
}: {
  draft: PostureText
  change: Change
  at: (field: string) => string | undefined
  postures: Schema['PostureItem'][]
}) {
  const engine = useEngine().data
  const { pivots, checked } = useWays()
  const [chosen, setChosen] = useState(0)
  const whole = useLent(draft)
  const drawn = useMemo(() => countedOf(whole, undefined, pivots.onBall), [whole, pivots.onBall])
  const { feet } = drawn
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
    return {
      start: entry?.at(-1) ?? START_FRAME,
      stands,
      ends: engine.endsIn(last),
    }
    // The key holds everything that is walked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [engine, key])
  // The figure follows every key within its frame; what the checks find may come a moment later.
  const written = useDeferredValue(whole)
  const findings = useMemo(
    () =>
      engine
        ? engine.check(
            countedOf(written, undefined, pivots.onBall),
            written.counts.map((count) => count.breath),
            written.checkpoints.map((point) => point.measure),
            checked,
          )
        : [],
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the ways by what they say
    [engine, written, pivots.onBall, checked.weighted, checked.handsSettle],
  )
  const findingsAt = (count: number) => (
    <PostureFindings
      findings={findings}
      count={count}
      mode="standing"
      ourWays={draft.ourWays}
      keep={(ourWays) => change({ ourWays })}
      mend={(edits) => change({ counts: mended(draft.counts, edits) })}
    />
  )
  const edit = (index: number, part: Partial<Count>) =>
    change({ counts: draft.counts.map((count, place) => (place === index ? { ...count, ...part } : count)) })
  const shown = Math.min(chosen, draft.counts.length)
  const stand = shown === 0 ? walked && { before: START_FRAME, after: walked.start } : walked?.stands[shown - 1]

  if (draft.parts.length > 0) return <PartsPage draft={draft} change={change} at={at} postures={postures} />
  return (
    <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_440px]">
      <div className="grid content-start gap-4">
        <div onFocus={() => setChosen(0)}>
          <NotationField
            label="Entry: from feet together into where it starts"
            value={draft.entry}
            onChange={(entry) => change({ entry })}
            notation={engine?.steps}
            error={at('entry')}
          />
          <NotationField
            label="Hands, trunk and gaze as it starts"
            value={draft.start}
            onChange={(start) => change({ start })}
            notation={engine?.body}
            error={at('start')}
          />
          {findingsAt(0)}
        </div>
        <BuiltFrom draft={draft} change={change} postures={postures} />
        {draft.counts.map((count, index) => (
          <fieldset
            key={index}
            className={`grid gap-2 rounded-lg border p-3 ${shown === index + 1 ? 'border-pine' : 'border-line'}`}
            onFocus={() => setChosen(index + 1)}
          >
            <legend className="px-1 font-serif text-base font-semibold">Count {index + 1}</legend>
            <Field
              label="Cue, the few words called"
              value={count.cue}
              onChange={(cue) => edit(index, { cue })}
              error={at(`counts[${index}].cue`)}
            />
            <NotationField
              label="Feet"
              value={count.feet}
              onChange={(text) => edit(index, { feet: text })}
              notation={engine?.steps}
              error={at(`counts[${index}].feet`)}
            />
            <NotationField
              label="Hands, trunk and gaze"
              value={count.body}
              onChange={(body) => edit(index, { body })}
              notation={engine?.body}
              error={at(`counts[${index}].body`)}
            />
            <p className="text-soft">Remarks beside it, where the notation does not say enough:</p>
            <div className="grid grid-cols-2 gap-2 md:grid-cols-3">
              <Field label="Waist" value={count.waist} onChange={(waist) => edit(index, { waist })} />
              <Field label="Hands" value={count.hands} onChange={(hands) => edit(index, { hands })} />
              <Field label="Hand shape" value={count.shape} onChange={(shape) => edit(index, { shape })} />
              <Field label="Gaze" value={count.gaze} onChange={(gaze) => edit(index, { gaze })} />
              <Field label="Breath" value={count.breath} onChange={(breath) => edit(index, { breath })} />
              <Field label="Only if" value={count.onlyIf} onChange={(onlyIf) => edit(index, { onlyIf })} />
            </div>
            {draft.builtFrom && (
              <NumberField
                label="Takes what is empty from its count"
                value={count.as}
                onChange={(as) => edit(index, { as: as ?? 0 })}
                error={at(`counts[${index}].as`)}
              />
            )}
            {findingsAt(index + 1)}
            <div className="flex gap-4">
              <button
                type="button"
                className="quiet-link"
                onClick={() => change({ counts: draft.counts.toSpliced(index + 1, 0, emptyCount) })}
              >
                Add a count after it
              </button>
              {draft.counts.length > 1 && (
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() => change({ counts: draft.counts.toSpliced(index, 1) })}
                >
                  Take it out
                </button>
              )}
            </div>
          </fieldset>
        ))}
        {at('counts') && <p className="text-lacquer">{at('counts')}</p>}
        <Rows
          label="A coarser calling"
          items={draft.merged}
          add="Add a merged cue"
          make={() => ({ cue: '', counts: 1 })}
          onChange={(merged) => change({ merged })}
        >
          {(item, editItem) => (
            <div className="grid grid-cols-[1fr_100px] gap-3">
              <Field label="Cue" value={item.cue} onChange={(cue) => editItem({ cue })} />
              <NumberField
                label="for counts"
                value={item.counts}
                onChange={(counts) => editItem({ counts: counts ?? 0 })}
              />
            </div>
          )}
        </Rows>
        {at('merged') && <p className="text-lacquer">{at('merged')}</p>}
        <LoopFields draft={draft} change={change} error={at('loop.return')} />
      </div>
      <div className="grid content-start gap-3 xl:sticky xl:top-4 xl:self-start">
        {engine && drawn && (
          <PostureFigure
            engine={engine}
            of={drawn}
            count={shown}
            part={1}
            says={engine.body.read(shown === 0 ? draft.start : draft.counts[shown - 1]!.body).says}
            hands={{
              text: shown === 0 ? draft.start : draft.counts[shown - 1]!.body,
              change: (body) => (shown === 0 ? change({ start: body }) : edit(shown - 1, { body })),
            }}
          />
        )}
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
          {shown === 0 ? 'Where it starts.' : `Count ${shown}: ${draft.counts[shown - 1]?.cue}.`}{' '}
          {walked && <span className="text-soft">All of it ends in {walked.ends}.</span>}
        </p>
        <EndFields draft={draft} change={change} />
      </div>
    </div>
  )
}

function BuiltFrom({
  draft,
  change,
  postures,
}: {
  draft: PostureText
  change: Change
  postures: Schema['PostureItem'][]
}) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Choice
        label="Built from"
        value={draft.builtFrom?.postureId ?? ''}
        onChange={(id) =>
          change({ builtFrom: id ? { postureId: id, mirrored: draft.builtFrom?.mirrored ?? false } : null })
        }
      >
        <Option value="">nothing: all of it is written here</Option>
        {postures
          .filter((one) => !one.isCompound && one.name !== draft.name)
          .map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}
            </Option>
          ))}
      </Choice>
      {draft.builtFrom && (
        <Checkbox
          checked={draft.builtFrom.mirrored}
          onChange={(checked) => change({ builtFrom: { ...draft.builtFrom!, mirrored: checked } })}
        >
          its other side
        </Checkbox>
      )}
      {!draft.builtFrom && (
        <button
          type="button"
          className="quiet-link pb-2"
          onClick={() =>
            change({
              counts: [],
              merged: [],
              parts: [{ postureId: postures.find((one) => !one.isCompound)!.id, side: 'left' }],
            })
          }
        >
          Make it a compound of other postures
        </button>
      )}
    </div>
  )
}

function PartsPage({
  draft,
  change,
  at,
  postures,
}: {
  draft: PostureText
  change: Change
  at: (field: string) => string | undefined
  postures: Schema['PostureItem'][]
}) {
  return (
    <div className="grid max-w-2xl gap-4">
      <p className="text-soft">
        A compound posture is its parts. In a form its parts stand as positions that say they belong to it, and the
        school’s numbering counts them as one or one by one.
      </p>
      <Rows<Schema['Part']>
        label="Parts"
        items={draft.parts}
        add="Add a part"
        make={() => ({ postureId: postures.find((one) => !one.isCompound)!.id, side: 'left' })}
        onChange={(parts) => change(parts.length === 0 ? { parts, counts: [emptyCount] } : { parts })}
      >
        {(item, edit, index) => (
          <div className="grid grid-cols-2 gap-3">
            <Choice
              label="Posture"
              value={item.postureId}
              error={at(`parts[${index}].postureId`)}
              onChange={(postureId) =>
                edit({ postureId, side: postures.find((one) => one.id === postureId)?.writtenSide ?? 'left' })
              }
            >
              {postures
                .filter((one) => !one.isCompound)
                .map((one) => (
                  <Option key={one.id} value={one.id}>
                    {one.name}
                  </Option>
                ))}
            </Choice>
            <Choice
              label="Side"
              value={item.side}
              error={at(`parts[${index}].side`)}
              onChange={(side) => edit({ side: side })}
            >
              <Option value="left">left</Option>
              <Option value="right">right</Option>
              <Option value="symmetric">no side</Option>
            </Choice>
          </div>
        )}
      </Rows>
    </div>
  )
}

const stances = {
  bow: 'bow',
  empty: 'empty',
  horse: 'horse',
  tStep: 'T-step',
  oneLeg: 'one leg',
  drop: 'drop',
  crossed: 'crossed',
  v: 'V',
  parallel: 'parallel',
  followStep: 'follow-step',
} as const

/** How it is meant to end; the steps have to bear it out. */
function EndFields({ draft, change }: { draft: PostureText; change: Change }) {
  const end = draft.end
  return (
    <fieldset className="grid grid-cols-3 gap-3">
      <legend className="mb-1 font-semibold">It is meant to end in</legend>
      <Choice
        label="Stance"
        value={end?.stance ?? ''}
        onChange={(stance) =>
          change({
            end: stance
              ? {
                  stance: stance,
                  leading: end?.leading ?? draft.writtenSide,
                  leftLoad: end?.leftLoad ?? 50,
                }
              : null,
          })
        }
      >
        <Option value="">not said</Option>
        {Object.entries(stances).map(([value, name]) => (
          <Option key={value} value={value}>
            {name}
          </Option>
        ))}
      </Choice>
      {end && (
        <>
          <Choice
            label="Leading foot"
            value={end.leading}
            onChange={(leading) => change({ end: { ...end, leading: leading } })}
          >
            <Option value="left">left</Option>
            <Option value="right">right</Option>
            <Option value="symmetric">neither</Option>
          </Choice>
          <NumberField
            label="% on the left"
            value={end.leftLoad}
            onChange={(load) => change({ end: { ...end, leftLoad: load ?? 0 } })}
          />
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
      <Field
        label="What is called in between"
        value={draft.loop.cue}
        onChange={(cue) => change({ loop: { ...draft.loop!, cue } })}
      />
      <NotationField
        label="The return: from its end to its other side’s beginning"
        value={draft.loop.return}
        onChange={(text) => change({ loop: { ...draft.loop!, return: text } })}
        notation={engine?.steps}
        error={error}
      />
      <button type="button" className="quiet-link justify-self-start" onClick={() => change({ loop: null })}>
        It is not practised as a loop
      </button>
    </fieldset>
  ) : (
    <button
      type="button"
      className="button justify-self-start"
      onClick={() => change({ loop: { cue: 'the other side', return: '' } })}
    >
      Practise it as a loop
    </button>
  )
}
