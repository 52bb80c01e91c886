import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useWays } from '../shared/ways'
import { Dial } from '../ui/Dial'
import { Kbd } from '../ui/Kbd'
import { Panel } from '../ui/Panel'
import { leave } from '../shared/leaving'
import { postureQuery } from '../shared/material'
import { Opening } from '../shared/Opening'
import { Choice } from '../ui/Field'
import { SavedField, SavedNumber } from '../ui/SavedField'
import { ToggleGroup } from '../ui/ToggleGroup'
import { Option } from '../ui/Select'
import { demandWords } from '../ui/words'
import type { Draft } from './draft'
import { PostureReading } from './PostureReading'
import { SegmentEditor } from './SegmentEditor'
import { WayInEditor } from './WayInEditor'
import type { Form, FormText, Position } from './data'
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
          <PostureReading reads={posture.data.reads} said={posture.data.said} short />
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
