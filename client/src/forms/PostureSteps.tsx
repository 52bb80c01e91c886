import { useDeferredValue, useMemo, useState } from 'react'
import type { Schema } from '../api/client'
import { useEngine } from '../engine/engine'
import { useWays } from '../shared/ways'
import { Field, NumberField } from '../ui/Field'
import { START_FRAME } from '../ui/floor'
import { Rows } from '../ui/Rows'
import { useSteady } from '../ui/use-steady'
import { CountFields } from './CountFields'
import type { ChangePosture, Count, PostureText } from './data'
import { countedOf } from '../shared/counted'
import { useLent } from './lent'
import { NotationField } from './NotationField'
import { EndFields, LoopFields } from './PostureEnd'
import { PostureFigure } from './PostureFigure'
import { PostureFindings, mended } from './PostureFindings'
import { BuiltFrom, PartsPage } from './PostureParts'
import { StepPicture } from './StepPicture'

/** The counts with their layers; the feet in notation and on the picture, which follows every keystroke. */
export function StepsPage({
  draft,
  change,
  at,
  postures,
}: {
  draft: PostureText
  change: ChangePosture
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
    // oxlint-disable-next-line react/exhaustive-deps
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
    // oxlint-disable-next-line react/exhaustive-deps -- the ways by what they say
    [engine, written, pivots.onBall, checked.weighted, checked.handsSettle],
  )
  const edit = (index: number, part: Partial<Count>) =>
    change({ counts: draft.counts.map((count, place) => (place === index ? { ...count, ...part } : count)) })
  const shown = Math.min(chosen, draft.counts.length)
  const write = useSteady({
    entry: (entry: string) => change({ entry }),
    start: (start: string) => change({ start }),
    feet: (text: string) => (shown === 0 ? change({ entry: text }) : edit(shown - 1, { feet: text })),
  })
  const stand = shown === 0 ? walked && { before: START_FRAME, after: walked.start } : walked?.stands[shown - 1]

  if (draft.parts.length > 0) return <PartsPage draft={draft} change={change} at={at} postures={postures} />
  return (
    <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_440px]">
      <div className="grid content-start gap-4">
        <div onFocus={() => setChosen(0)}>
          <NotationField
            label="Entry: from feet together into where it starts"
            value={draft.entry}
            onChange={write.entry}
            notation={engine?.steps}
            error={at('entry')}
          />
          <NotationField
            label="Hands, trunk and gaze as it starts"
            value={draft.start}
            onChange={write.start}
            notation={engine?.body}
            error={at('start')}
          />
          <PostureFindings
            findings={findings}
            count={0}
            mode="standing"
            ourWays={draft.ourWays}
            keep={(ourWays) => change({ ourWays })}
            mend={(edits) => change({ counts: mended(draft.counts, edits) })}
          />
        </div>
        <BuiltFrom name={draft.name} builtFrom={draft.builtFrom} change={change} postures={postures} />
        {draft.counts.map((count, index) => (
          <CountFields
            key={index}
            count={count}
            index={index}
            chosen={shown === index + 1}
            choose={setChosen}
            takes={draft.builtFrom !== null}
            alone={draft.counts.length === 1}
            findings={findings}
            ourWays={draft.ourWays}
            at={at}
            change={change}
          />
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
        <LoopFields loop={draft.loop} change={change} at={at} />
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
            onChange={write.feet}
          />
        )}
        <p>
          {shown === 0 ? 'Where it starts.' : `Count ${shown}: ${draft.counts[shown - 1]?.cue}.`}{' '}
          {walked && <span className="text-soft">All of it ends in {walked.ends}.</span>}
        </p>
        <EndFields end={draft.end} writtenSide={draft.writtenSide} change={change} />
      </div>
    </div>
  )
}
