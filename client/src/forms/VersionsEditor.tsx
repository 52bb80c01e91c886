import { useDeferredValue, useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { useEngine } from '../engine/engine'
import { useWays } from '../shared/ways'
import { Checkbox } from '../ui/Checkbox'
import { Choice, Field } from '../ui/Field'
import { Option } from '../ui/Select'
import { Lines, Rows } from '../ui/Rows'
import { ToggleGroup } from '../ui/ToggleGroup'
import { emptyCount } from './empty-posture'
import { countedOf, freeWords, hasBody } from '../shared/counted'
import { NotationField } from './NotationField'
import { FigureStrip, PostureFigure } from './PostureFigure'
import { AskedOf } from './AskedOf'
import { PostureFindings, mended } from './PostureFindings'
import { withPicture, type PostureText } from './data'

const modes = ['short-step', 'no-step', 'supported', 'seated'] as const
type AdaptedMode = (typeof modes)[number]

/** The posture for other modes, each with its own counts, beside the standard cues they stand for. */
export function VersionsEditor({
  draft,
  change,
  at,
}: {
  draft: PostureText
  change: (part: Partial<PostureText>) => void
  at: (field: string) => string | undefined
}) {
  const engine = useEngine().data
  const [search] = useSearchParams()
  const [mode, setMode] = useState<AdaptedMode>(modes.find((one) => one === search.get('version')) ?? 'seated')
  const place = draft.versions.findIndex((version) => version.mode === mode)
  const version = draft.versions[place]
  const { pivots, checked } = useWays()
  const [chosen, setChosen] = useState(0)
  const drawn = useMemo(
    () => (version && hasBody(version.counts) ? countedOf(draft, version, pivots.onBall) : null),
    [draft, version, pivots.onBall],
  )
  // The figure follows every key within its frame; what the checks find may come a moment later.
  const written = useDeferredValue(draft)
  const [asks, findings] = useMemo(() => {
    const one = written.versions.find((each) => each.mode === mode)
    if (!one || !engine) return [undefined, []]
    const of = countedOf(written, one, pivots.onBall)
    return [
      engine.asks(of, one.counts.map(freeWords)),
      engine.check(
        of,
        one.counts.map((count) => count.breath),
        [],
        checked,
      ),
    ]
    // oxlint-disable-next-line react/exhaustive-deps -- the ways by what they say
  }, [engine, written, mode, pivots.onBall, checked.weighted, checked.handsSettle])
  const findingsAt = (count: number) =>
    version && (
      <PostureFindings
        findings={findings}
        count={count}
        mode={version.mode}
        ourWays={draft.ourWays}
        keep={(ourWays) => change({ ourWays })}
        mend={(edits) => edit({ counts: mended(version.counts, edits) })}
      />
    )
  const shown = Math.min(chosen, version?.counts.length ?? 0)
  const edit = (part: Partial<Schema['AdaptedVersion']>) =>
    change({ versions: draft.versions.map((one, index) => (index === place ? { ...one, ...part } : one)) })
  const begin = () =>
    change({
      versions: [
        ...draft.versions,
        {
          mode,
          counts: draft.counts.map((count) => ({
            ...emptyCount,
            cue: count.cue,
            body: count.body,
            waist: count.waist,
            hands: count.hands,
            shape: count.shape,
            gaze: count.gaze,
            breath: count.breath,
            pictured: count.pictured,
          })),
          cautions: [],
          replaces: '',
          keeps: draft.keyPoint,
          demands: [],
          notAsked: [],
          entry: '',
          progression: ['weight', 'turning', 'arms'],
          start: draft.start,
          rail: null,
        },
      ],
    })
  return (
    <div className="grid gap-5">
      <ToggleGroup
        label="Version"
        value={mode}
        options={modes.map((value) => ({
          value,
          name: `${value[0]!.toUpperCase()}${value.slice(1)}${draft.versions.some((one) => one.mode === value) ? ' ●' : ''}`,
        }))}
        onChange={setMode}
      />
      {!version ? (
        <div>
          <p className="max-w-xl text-soft">
            No {mode} version is written. It keeps the key point and the pattern of weight and turning, and says what
            replaces each step.
          </p>
          <button type="button" className="button mt-3" onClick={begin}>
            Begin one from the standard counts
          </button>
        </div>
      ) : (
        <div className="grid gap-4">
          <div className="grid max-w-3xl gap-3">
            <Field
              label="What replaces the steps"
              value={version.replaces}
              onChange={(replaces) => edit({ replaces })}
            />
            <Field label="What it keeps" value={version.keeps} onChange={(keeps) => edit({ keeps })} />
            {mode !== 'seated' && (
              <NotationField
                label="Entry, where its feet start closer together than the posture’s own"
                value={version.entry}
                onChange={(entry) => edit({ entry })}
                notation={engine?.steps}
                error={at(`versions[${place}].entry`)}
              />
            )}
            <NotationField
              label="Hands, trunk and gaze as it starts"
              value={version.start}
              onChange={(start) => edit({ start })}
              notation={engine?.body}
              error={at(`versions[${place}].start`)}
            />
            {findingsAt(0)}
            {mode === 'supported' && (
              <Choice
                label="Where the rail is"
                value={version.rail ?? ''}
                onChange={(rail) => edit({ rail: rail === '' ? null : rail })}
              >
                <Option value="">not said</Option>
                <Option value="left">on the left of the body</Option>
                <Option value="right">on the right of the body</Option>
                <Option value="symmetric">before the body</Option>
              </Choice>
            )}
          </div>
          {engine && drawn && (
            <div className="max-w-xl">
              <PostureFigure
                engine={engine}
                of={drawn}
                count={shown}
                part={1}
                says={engine.body.read(drawn.bodies[shown - 1] ?? drawn.start).says}
                hands={{
                  text: drawn.bodies[shown - 1] ?? drawn.start,
                  change: (body) =>
                    shown === 0
                      ? edit({ start: body })
                      : edit({
                          counts: version.counts.map((count, index) =>
                            index === shown - 1 ? { ...count, body } : count,
                          ),
                        }),
                }}
              />
              <FigureStrip engine={engine} of={drawn} chosen={shown} choose={setChosen} />
            </div>
          )}
          <Rows
            label="Counts"
            items={version.counts}
            add="Add a count"
            make={() => emptyCount}
            onChange={(counts) => edit({ counts })}
          >
            {(count, editCount, index) => (
              <div className="grid gap-2 lg:grid-cols-[220px_1fr]" onFocus={() => setChosen(index + 1)}>
                <p className="text-soft">
                  <b className="font-serif">{index + 1}</b> standing: {draft.counts[index]?.cue ?? '–'}
                </p>
                <div className="grid gap-2">
                  <Field
                    label="Cue"
                    value={count.cue}
                    onChange={(cue) => editCount({ cue })}
                    error={at(`versions[${place}].counts[${index}].cue`)}
                  />
                  <NotationField
                    label="Feet and seat"
                    value={count.feet}
                    onChange={(feet) => editCount({ feet })}
                    notation={engine?.steps}
                    error={at(`versions[${place}].counts[${index}].feet`)}
                  />
                  <NotationField
                    label="Hands, trunk and gaze"
                    value={count.body}
                    onChange={(body) => editCount({ body })}
                    notation={engine?.body}
                    error={at(`versions[${place}].counts[${index}].body`)}
                  />
                  {findingsAt(index + 1)}
                  <div className="grid grid-cols-2 gap-2 md:grid-cols-4">
                    <Field label="Waist" value={count.waist} onChange={(waist) => editCount({ waist })} />
                    <Field label="Hands" value={count.hands} onChange={(hands) => editCount({ hands })} />
                    <Field label="Gaze" value={count.gaze} onChange={(gaze) => editCount({ gaze })} />
                    <Field label="Breath" value={count.breath} onChange={(breath) => editCount({ breath })} />
                  </div>
                  <Checkbox
                    checked={count.pictured}
                    onChange={(pictured) => edit({ counts: withPicture(version.counts, index, pictured) })}
                  >
                    Small pictures show this count
                  </Checkbox>
                </div>
              </div>
            )}
          </Rows>
          <div className="grid max-w-3xl gap-3">
            <Lines
              label="Cautions, one to a line"
              value={version.cautions}
              onChange={(cautions) => edit({ cautions })}
            />
            <Lines
              label="How it grows, a step to a line"
              value={version.progression}
              onChange={(progression) => edit({ progression })}
            />
            {asks && (
              <AskedOf
                label="What it still asks of a body"
                asks={asks}
                added={version.demands}
                takenOff={version.notAsked}
                onChange={(demands, notAsked) => edit({ demands, notAsked })}
              />
            )}
            <button
              type="button"
              className="quiet-link justify-self-start"
              onClick={() => change({ versions: draft.versions.toSpliced(place, 1) })}
            >
              Remove the {mode} version
            </button>
          </div>
        </div>
      )}
    </div>
  )
}
