import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useWays } from '../shared/ways'
import { useEngine } from '../engine/engine'
import { Dial } from '../ui/Dial'
import { START_FRAME } from '../ui/floor'
import { Kbd } from '../ui/Kbd'
import { newId } from '../ui/new-id'
import { Panel } from '../ui/Panel'
import { useDraft } from '../shared/draft'
import { leave } from '../shared/leaving'
import { postureQuery } from '../shared/material'
import { Opening } from '../shared/Opening'
import { Collapsible } from '../ui/Collapsible'
import { Choice } from '../ui/Field'
import { SavedField, SavedNumber } from '../ui/SavedField'
import { ToggleGroup } from '../ui/ToggleGroup'
import { Option, Select } from '../ui/Select'
import { demandWords } from '../ui/words'
import type { Draft } from './draft'
import { NotationField } from './NotationField'
import { PostureReading } from './PostureReading'
import type { Form, FormText, Position } from './data'
import { StepPicture } from './StepPicture'
import { Checkbox } from '../ui/Checkbox'

interface PositionPanelProps {
  form: Form
  position: Position
  postures: Schema['PostureItem'][]
  editable: boolean
  edit: (part: Partial<Position>, what: string) => void
  change: (what: string, wanted: FormText, then?: () => void) => void
  /** What is being typed and not yet kept, for the floor map; null when nothing is. */
  typing: (draft: Draft | null) => void
  close: () => void
}

const eighths = [0, 45, 90, 135, 180, 225, 270, 315]
const turns = [-270, -225, -180, -135, -90, -45, 0, 45, 90, 135, 180, 225, 270]

/** One position: its place, side, turn and facing, the way into it, and the posture as it reads here. */
export function PositionPanel({ form, position, postures, editable, edit, change, typing, close }: PositionPanelProps) {
  const { text, study } = form
  const { say } = useWays()
  const posture = useQuery(postureQuery(position.postureId, position.side))
  const at = text.positions.findIndex((one) => one.id === position.id)
  const about = study.positions[at]
  if (!about) return null

  const move = (by: -1 | 1) => {
    const neighbour = text.positions[at + by]
    if (!neighbour) return
    const positions =
      neighbour.sectionId === position.sectionId
        ? text.positions.with(at, neighbour).with(at + by, position)
        : text.positions.with(at, { ...position, sectionId: neighbour.sectionId })
    change(`moving ${about.name}`, { ...text, positions })
  }
  const remove = () =>
    change(
      `taking out ${about.name}`,
      {
        ...text,
        positions: text.positions.toSpliced(at, 1),
        accepted: text.accepted.filter((one) => one.positionId !== position.id),
        segments: text.segments.filter((one) => one.fromId !== position.id && one.toId !== position.id),
      },
      close,
    )
  const compounds = postures.filter((one) => one.isCompound)

  return (
    <Panel
      title={about.name}
      facts={[about.isRepeat && 'done before on this side', `${about.counts} counts`, `${about.seconds} s`]
        .filter(Boolean)
        .join(' · ')}
      close={() => leave(close)}
    >
      {editable && (
        <fieldset className="grid gap-3 rounded-lg border border-line bg-paper p-3">
          <legend className="px-1 font-semibold">This position</legend>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="button" disabled={at === 0} onClick={() => move(-1)}>
              Move up
            </button>
            <button
              type="button"
              className="button"
              disabled={at === text.positions.length - 1}
              onClick={() => move(1)}
            >
              Move down
            </button>
            {position.side !== 'symmetric' && (
              <button
                type="button"
                className="button"
                onClick={() => edit({ side: position.side === 'left' ? 'right' : 'left' }, `mirroring ${about.name}`)}
              >
                Do it on the {position.side === 'left' ? 'right' : 'left'} <Kbd>m</Kbd>
              </button>
            )}
            <button type="button" className="button" onClick={remove}>
              Take it out
            </button>
          </div>
          <div>
            <span className="font-semibold">Ends facing</span>
            <ToggleGroup
              bare
              label="Ends facing"
              className="mt-1"
              value={String(position.facing)}
              options={eighths.map((degrees) => ({
                value: String(degrees),
                says: say(degrees),
                name: <Dial facing={degrees} said={say(degrees)} size={24} />,
              }))}
              onChange={(degrees) => edit({ facing: Number(degrees) }, `facing ${about.facingSaid}`)}
            />
          </div>
          <div className="grid grid-cols-2 gap-3">
            <Choice
              label="Turn to get here"
              value={String(position.turn)}
              onChange={(turn) => edit({ turn: Number(turn) }, `turning ${position.turn}°`)}
            >
              {[...new Set([position.turn, ...turns])]
                .toSorted((a, b) => a - b)
                .map((turn) => (
                  <Option key={turn} value={String(turn)}>
                    {turn === 0 ? 'none' : `${Math.abs(turn)}° ${turn > 0 ? 'right' : 'left'}`}
                  </Option>
                ))}
            </Choice>
            <SavedNumber
              label="Times"
              value={position.repeats}
              save={(repeats) => edit({ repeats: Math.max(1, Math.round(repeats ?? 1)) }, `${position.repeats} times`)}
            />
            <Choice
              label="Part of"
              value={position.compoundId ?? ''}
              onChange={(id) => edit({ compoundId: id || null }, 'the compound')}
            >
              <Option value="">nothing larger</Option>
              {compounds.map((one) => (
                <Option key={one.id} value={one.id}>
                  {one.name}
                </Option>
              ))}
            </Choice>
            <Checkbox
              className="self-end pb-2"
              checked={position.isTransition}
              onChange={(isTransition) => edit({ isTransition }, 'the transition')}
            >
              Transition, unnumbered
            </Checkbox>
          </div>
          <SavedField
            label="Done differently here"
            value={position.note}
            maxLength={400}
            placeholder="only the difference"
            save={(note) => edit({ note }, 'the note')}
          />
          <WayInEditor key={position.id} form={form} at={at} editable={editable} edit={edit} typing={typing} />
          <SegmentEditor key={`segments of ${position.id}`} form={form} position={position} change={change} />
        </fieldset>
      )}
      {about.link && (
        <section>
          <h3>The link into it</h3>
          <p className="border-l-4 border-lacquer pl-3">
            <b>Key point</b> {about.link.text.keyPoint}
          </p>
          {about.link.text.cues.length > 0 && <p className="mt-1">{about.link.text.cues.join(' · ')}</p>}
          {about.link.text.faults.map((fault) => (
            <p key={fault.id} className="mt-1">
              <b>{fault.seen}.</b>{' '}
              <span className="text-soft">{fault.causes.map((cause) => `${cause.why}: ${cause.mend}`).join('; ')}</span>
            </p>
          ))}
        </section>
      )}
      {posture.data ? (
        <>
          <p>
            <Link className="quiet-link" to={`/forms/postures/${position.postureId}?side=${position.side}`}>
              Open {posture.data.text.name}: counts, versions, faults
            </Link>
          </p>
          <PostureReading reads={posture.data.reads} feetSaid={posture.data.feetSaid} short />
          {about.demands.length > 0 && (
            <p className="text-soft">Asks for {about.demands.map((demand) => demandWords[demand]).join(', ')}.</p>
          )}
        </>
      ) : (
        <Opening of={[posture]} what="Opening the posture" />
      )}
    </Panel>
  )
}

/** The feet between the end of the position before and the first count, in notation and on the picture. */
function WayInEditor({
  form,
  at,
  editable,
  edit,
  typing,
}: {
  form: Form
  at: number
  editable: boolean
  edit: PositionPanelProps['edit']
  typing: PositionPanelProps['typing']
}) {
  const { text, study } = form
  const { pivots } = useWays()
  const engine = useEngine().data
  const position = text.positions[at]!
  const draft = useDraft({
    about: ['way in', position.id],
    what: `the way into ${study.positions[at]?.name}`,
    text: { steps: position.wayIn },
    version: null,
  })
  const { steps } = draft.text
  const [drawing, setDrawing] = useState(false)
  const before =
    study.floor.beats
      .filter((beat) => beat.at < at && beat.frames.length > 0)
      .at(-1)
      ?.frames.at(-1) ?? START_FRAME
  const after = (drawing && engine?.walk([...before], [steps], pivots)[0]?.at(-1)) || before
  const type = (typed: string) => {
    draft.change({ steps: typed })
    typing(typed === position.wayIn ? null : { positionId: position.id, wayIn: typed })
  }
  // Whatever was typed and not kept is forgotten when the editor goes.
  useEffect(() => () => typing(null), [typing])
  return (
    <div className="grid gap-2">
      <NotationField
        label="Way in, from where the position before ends"
        value={steps}
        onChange={type}
        engine={engine}
      />
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="button"
          disabled={!draft.dirty || (engine?.read(steps).problems.length ?? 0) > 0}
          onClick={() => edit({ wayIn: steps }, 'the way in')}
        >
          Save the way in
        </button>
        <button type="button" className="quiet-link" onClick={() => setDrawing(!drawing)}>
          {drawing ? 'Hide the picture' : 'Do it on the picture'}
        </button>
      </div>
      {drawing && engine && (
        <StepPicture
          label="The way in from above"
          engine={engine}
          pivots={pivots}
          steps={steps}
          before={before}
          after={after}
          editable={editable}
          onChange={type}
        />
      )}
    </div>
  )
}

/** Runs of positions taught as one assignment: those that begin or end here. */
function SegmentEditor({
  form,
  position,
  change,
}: {
  form: Form
  position: Position
  change: PositionPanelProps['change']
}) {
  const { text, study } = form
  const engine = useEngine().data
  const [begins, setBegins] = useState<string | null>(null)
  const [to, setTo] = useState(position.id)
  const place = (id: string) => text.positions.findIndex((one) => one.id === id)
  const here = place(position.id)
  const around = text.segments.filter((segment) => place(segment.fromId) <= here && here <= place(segment.toId))
  return (
    <div className="grid gap-2">
      <span className="font-semibold">Segments through here</span>
      {around.map((segment) => (
        <Collapsible
          key={segment.id}
          name={
            <>
              {segment.name}: {study.positions[place(segment.fromId)]?.name} to{' '}
              {study.positions[place(segment.toId)]?.name}
            </>
          }
        >
          <SegmentSteps
            key={segment.id}
            segment={segment}
            engine={engine}
            keep={(wanted) =>
              change(`the segment ${segment.name}`, {
                ...text,
                segments: text.segments.map((one) => (one.id === segment.id ? { ...one, ...wanted } : one)),
              })
            }
          />
          <button
            type="button"
            className="quiet-link mt-1"
            onClick={() =>
              change(`removing the segment ${segment.name}`, {
                ...text,
                segments: text.segments.filter((one) => one.id !== segment.id),
              })
            }
          >
            Remove this segment
          </button>
        </Collapsible>
      ))}
      {begins === null ? (
        <button type="button" className="quiet-link justify-self-start" onClick={() => setBegins('')}>
          Begin a segment here
        </button>
      ) : (
        <form
          className="flex flex-wrap gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (begins.trim())
              change(
                `the segment ${begins.trim()}`,
                {
                  ...text,
                  segments: [
                    ...text.segments,
                    { id: newId(), name: begins.trim(), fromId: position.id, toId: to, entry: '', close: '' },
                  ],
                },
                () => setBegins(null),
              )
          }}
        >
          <input
            autoFocus
            className="field min-w-0 flex-1"
            aria-label="Name of the segment"
            placeholder="name"
            value={begins}
            maxLength={80}
            onChange={(event) => setBegins(event.target.value)}
          />
          <Select label="Last position of the segment" className="flex-1" value={to} onChange={setTo}>
            {text.positions.slice(here).map((one) => (
              <Option key={one.id} value={one.id}>
                to {study.positions[place(one.id)]?.name}
              </Option>
            ))}
          </Select>
          <button type="submit" className="button" disabled={!begins.trim()}>
            Make it
          </button>
        </form>
      )}
    </div>
  )
}

function SegmentSteps({
  segment,
  engine,
  keep,
}: {
  segment: Schema['Segment']
  engine: ReturnType<typeof useEngine>['data']
  keep: (wanted: { entry: string; close: string }) => void
}) {
  const draft = useDraft({
    about: ['segment', segment.id],
    what: `the segment ${segment.name}`,
    text: { entry: segment.entry, close: segment.close },
    version: null,
  })
  const { entry, close } = draft.text
  const unreadable = (engine?.read(entry).problems.length ?? 0) + (engine?.read(close).problems.length ?? 0) > 0
  return (
    <div className="mt-2 grid gap-2">
      <NotationField
        label="From feet together into its start"
        value={entry}
        onChange={(text) => draft.change({ entry: text })}
        engine={engine}
      />
      <NotationField
        label="A short close of its own"
        value={close}
        onChange={(text) => draft.change({ close: text })}
        engine={engine}
      />
      <button
        type="button"
        className="button justify-self-start"
        disabled={unreadable || !draft.dirty}
        onClick={() => keep({ entry, close })}
      >
        Save the segment
      </button>
    </div>
  )
}
