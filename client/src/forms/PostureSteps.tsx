import { useDeferredValue, useMemo, useState } from 'react'
import type { Schema } from '../api/client'
import { useEngine } from '../engine/engine'
import { useWays } from '../shared/ways'
import { Field, NumberField } from '../ui/Field'
import { START_FRAME } from '../ui/floor'
import { Rows } from '../ui/Rows'
import { useShared } from '../ui/use-shared'
import { useSteady } from '../ui/use-steady'
import { CountFields } from './CountFields'
import type { ChangePosture, Count, PostureText } from './data'
import { countedOf, withReturn } from '../shared/counted'
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
  const last = draft.counts.length
  const drawn = useMemo(
    () => withReturn(countedOf(whole, undefined, pivots.onBall), whole.loop),
    [whole, pivots.onBall],
  )
  const { feet } = drawn
  const key = JSON.stringify([draft.entry, feet, pivots])
  const walked = useMemo(() => {
    if (!engine) return null
    const [entry, ...counts] = engine.walk(START_FRAME, [draft.entry, ...feet], pivots)
    const start = entry?.at(-1) ?? START_FRAME
    let stand = start
    const stands = counts.map((frames) => {
      const before = stand
      stand = frames.at(-1) ?? stand
      return { before, after: stand }
    })
    return {
      stands: [{ before: START_FRAME, after: start }, ...stands],
      ends: engine.endsIn(stands[last - 1]?.after ?? start),
    }
    // The key holds everything that is walked.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [engine, key])
  // The figure follows every key within its frame; what the checks find may come a moment later.
  const written = useDeferredValue(whole)
  const found = useMemo(
    () => {
      if (!engine) return []
      const counted = countedOf(written, undefined, pivots.onBall)
      return [
        ...engine.check(
          counted,
          written.counts.map((count) => count.breath),
          written.checkpoints.map((point) => point.measure),
          checked,
        ),
        ...(written.loop ? engine.checkLoop(counted, written.loop, checked) : []),
      ]
    },
    // oxlint-disable-next-line react/exhaustive-deps -- the ways by what they say
    [engine, written, pivots.onBall, checked.weighted, checked.handsSettle],
  )
  const findings = useShared(found)
  const shown = Math.min(chosen, draft.loop ? last + 1 : last)
  const { name, cue, body, writeBody, ...moment } = momentOf(draft, change, shown)
  const { writeEntry, writeStart, writeFeet } = useSteady({
    writeEntry: (entry: string) => change({ entry }),
    writeStart: (start: string) => change({ start }),
    writeFeet: moment.writeFeet,
  })
  const stand = walked?.stands[shown]

  if (draft.parts.length > 0) return <PartsPage draft={draft} change={change} at={at} postures={postures} />
  return (
    <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_440px]">
      <div className="grid content-start gap-4">
        <div onFocus={() => setChosen(0)}>
          <NotationField
            label="Entry: from feet together into where it starts"
            value={draft.entry}
            onChange={writeEntry}
            notation={engine?.steps}
            error={at('entry')}
          />
          <NotationField
            label="Hands, trunk and gaze as it starts"
            value={draft.start}
            onChange={writeStart}
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
        <LoopFields
          loop={draft.loop}
          after={last}
          chosen={shown > last}
          choose={setChosen}
          findings={findings}
          ourWays={draft.ourWays}
          change={change}
          at={at}
        />
      </div>
      <div className="grid content-start gap-3 xl:sticky xl:top-4 xl:self-start">
        {engine && drawn && (
          <PostureFigure
            engine={engine}
            of={drawn}
            count={shown}
            part={1}
            name={name}
            says={engine.body.read(body).says}
            hands={{ text: body, change: writeBody }}
          />
        )}
        {engine && stand && (
          <StepPicture
            key={shown}
            label={`${name}, from above`}
            engine={engine}
            pivots={pivots}
            steps={[draft.entry, ...feet][shown]!}
            before={stand.before}
            after={stand.after}
            editable
            onChange={writeFeet}
          />
        )}
        <p>
          {cue ? `${name}: ${cue}.` : `${name}.`}{' '}
          {walked && <span className="text-soft">All of it ends in {walked.ends}.</span>}
        </p>
        <EndFields end={draft.end} writtenSide={draft.writtenSide} change={change} />
      </div>
    </div>
  )
}

/** One moment of a posture, what is written of it and how that is written anew: where it starts, a count, or after the last one its way back. */
function momentOf({ counts, loop, start }: PostureText, change: ChangePosture, shown: number) {
  if (shown > counts.length && loop)
    return {
      name: 'The way back',
      cue: loop.cue,
      body: loop.body,
      writeFeet: (text: string) => change({ loop: { ...loop, return: text } }),
      writeBody: (body: string) => change({ loop: { ...loop, body } }),
    }
  const count = counts[shown - 1]
  if (!count)
    return {
      name: 'Where it starts',
      cue: '',
      body: start,
      writeFeet: (entry: string) => change({ entry }),
      writeBody: (text: string) => change({ start: text }),
    }
  const edit = (part: Partial<Count>) => change({ counts: counts.with(shown - 1, { ...count, ...part }) })
  return {
    name: `Count ${shown}`,
    cue: count.cue,
    body: count.body,
    writeFeet: (feet: string) => edit({ feet }),
    writeBody: (body: string) => edit({ body }),
  }
}
