import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { FloorStage, type FloorHandle, type FloorView } from '../ui/FloorStage'
import { useKeys } from '../ui/keys'
import { PlayerBar } from '../ui/PlayerBar'
import { ToggleGroup } from '../ui/ToggleGroup'
import { usePlayer } from '../ui/use-player'
import { useWays } from '../shared/ways'
import { useEngine } from '../engine/engine'
import type { DraftStore } from './draft'
import type { Form, Position } from './data'
import { PlayingFigure, type FigureHandle } from './PlayingFigure'

/** How many positions back footprints are still shown. */
const MEMORY = 9

type Range = 'form' | 'section' | 'position'

/**
 * The form on the floor, played count by count. The chosen position leads: choosing another goes there, and playing chooses as it goes. While a way in is typed, everything
 * from there to the end of what is shown is walked anew at every keystroke.
 */
export function FloorMap({
  form,
  chosen,
  choose,
  drafts,
}: {
  form: Form
  chosen: Position | undefined
  choose: (position: Position) => void
  drafts: DraftStore
}) {
  const { text, study } = form
  const { ways, directions, pivots } = useWays()
  const engine = useEngine().data
  const draft = useSyncExternalStore(drafts.subscribe, drafts.read)
  const [view, setView] = useState<FloorView>('above')
  const [range, setRange] = useState<Range>('section')
  const stage = useRef<FloorHandle>(null)

  const place = text.positions.findIndex((position) => position.id === chosen?.id)
  const onBall = pivots.onBall
  const belongs = (position: Position | undefined) =>
    range === 'form' ? '' : range === 'section' ? position?.sectionId : position?.id
  const where = belongs(chosen)
  const inRange = useMemo(() => {
    const within = (at: number) => belongs(text.positions[at]) === where
    const first = study.floor.beats.findIndex((beat) => within(beat.at))
    const start =
      study.floor.beats
        .slice(0, Math.max(0, first))
        .findLast((beat) => beat.frames.length > 0)
        ?.frames.at(-1) ?? study.floor.start
    const kept = study.floor.beats.filter((beat) => within(beat.at))
    const typed = draft && engine ? text.positions.findIndex((position) => position.id === draft.positionId) : -1
    if (typed < 0 || !within(typed)) return { beats: kept, start }
    const before = kept.filter((beat) => beat.at < typed)
    const after = kept.filter((beat) => beat.at >= typed && !(beat.at === typed && beat.count === 0))
    const wayIn = {
      at: typed,
      repeat: 0,
      count: 0,
      steps: draft!.wayIn,
      says: engine!.steps.read(draft!.wayIn).says,
      frames: [],
    }
    const anew = draft!.wayIn.trim() ? [wayIn, ...after] : after
    const from = before.findLast((beat) => beat.frames.length > 0)?.frames.at(-1) ?? start
    const walked = engine!.walk(
      [...from],
      anew.map((beat) => beat.steps),
      { onBall, weighted: false },
    )
    return { beats: [...before, ...anew.map((beat, at) => ({ ...beat, frames: walked[at]! }))], start }
    // What belongs together follows from the range.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [study, text, range, where, draft, engine, onBall])
  const body = useRef<FigureHandle>(null)
  const player = usePlayer(inRange.start, inRange.beats, stage, (beat, part) =>
    body.current?.show({ count: inRange.beats[beat]?.count ?? 0, part }),
  )
  useEffect(() => {
    if (!player.playing) body.current?.show(null)
  }, [player.playing])

  // What is shown follows the choice from outside; playing chooses by itself.
  const shownAt = player.beat < 0 ? (inRange.beats[0]?.at ?? 0) : inRange.beats[player.beat]!.at
  const [told, setTold] = useState(place)
  if (told !== place) {
    setTold(place)
    if (!player.playing && shownAt !== place) {
      const last = inRange.beats.findLastIndex((beat) => beat.at === place)
      if (last >= 0) player.go(last)
    }
  }
  const leads = player.playing && shownAt !== place ? text.positions[shownAt] : undefined
  useEffect(() => {
    if (leads) choose(leads)
    // Choosing is asked for once for each position that is reached.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [leads])

  useKeys((event) => {
    if (event.key === ' ' && (event.target as HTMLElement).tagName !== 'BUTTON')
      (player.playing ? player.pause : player.play)()
    else if (event.key === '.') player.go(player.beat + 1)
    else if (event.key === ',') player.go(player.beat - 1)
    else return false
    return true
  })

  const ends = useMemo(() => {
    const frames = new Map<number, readonly number[]>()
    for (const beat of inRange.beats) if (beat.frames.length > 0) frames.set(beat.at, beat.frames.at(-1)!)
    return frames
  }, [inRange])
  const prints = [...ends]
    .filter(([at]) => at <= shownAt && at > shownAt - MEMORY)
    .map(([at, frame]) => ({
      key: text.positions[at]!.id,
      label: study.positions[at]!.number ?? null,
      frame,
      chosen: at === place,
      age: (shownAt - at) / MEMORY,
    }))
  const path = useMemo(() => inRange.beats.flatMap((beat) => beat.frames), [inRange])
  const need = study.floor.need
  const now = inRange.beats[player.beat]
  // While it plays, the beat that is on its way has the body.
  const danced = player.playing ? (inRange.beats[player.beat + 1]?.at ?? shownAt) : shownAt
  const footMetres = Number(ways?.footMetres ?? 0.26)
  const needed =
    range === 'form'
      ? need
      : range === 'section'
        ? study.sections.find((section) => section.id === text.positions[place]?.sectionId)?.need
        : undefined
  const area = useMemo(
    () => needed?.reach ?? around(path, inRange.start, footMetres),
    [needed, path, inRange, footMetres],
  )

  if (text.positions.length === 0)
    return (
      <p className="m-8 max-w-md text-soft">
        Write the first position and its steps appear here, on floorboards, true to scale.
      </p>
    )
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 border-b border-line bg-paper px-4 py-2">
        <ToggleGroup
          label="Seen"
          value={view}
          options={[
            { value: 'above', name: 'From above' },
            { value: 'behind', name: 'From behind' },
            { value: 'facing', name: 'Facing' },
          ]}
          onChange={setView}
        />
        <ToggleGroup
          label="How much"
          value={range}
          options={[
            { value: 'form', name: 'Form' },
            { value: 'section', name: 'Section' },
            { value: 'position', name: 'Position' },
          ]}
          onChange={(value) => {
            setRange(value)
            player.go(-1)
          }}
        />
        <span className="flex-1" />
        <a className="quiet-link" href={`/api/forms/${form.id}/floor.svg`} download>
          Picture (SVG)
        </a>
        <a className="quiet-link" href={`/api/forms/${form.id}/positions.csv`} download>
          Table (CSV)
        </a>
      </div>
      <div className="relative flex min-h-0 flex-1 flex-col">
        <FloorStage
          label={`Floor map of ${text.name}, ${study.positions[shownAt]?.name ?? 'the start'}`}
          view={view}
          area={area}
          needs={needed?.reach}
          footMetres={footMetres}
          prints={prints}
          path={path}
          frame={player.frame}
          front={`front · ${directions[0] ?? ''}`}
          handle={stage}
          choose={(key) => {
            const position = text.positions.find((one) => one.id === key)
            if (position) choose(position)
          }}
        />
        <PlayingFigure
          position={text.positions[danced]!}
          next={text.positions[danced + 1]}
          count={now?.count ?? 0}
          view={view}
          handle={body}
        />
      </div>
      <PlayerBar
        {...player}
        keys
        beats={inRange.beats.length}
        says={
          now
            ? `${study.positions[now.at]?.name}${now.count === 0 ? ', on the way in' : `, count ${now.count}`}: ${now.says || 'the feet stay'}`
            : 'Feet together, facing the front'
        }
      />
    </>
  )
}

/** Room for every sole of a walk and a little around it, metres. */
function around(path: readonly (readonly number[])[], start: readonly number[], footMetres: number) {
  const xs = [start, ...path].flatMap((frame) => [frame[0]!, frame[5]!])
  const ys = [start, ...path].flatMap((frame) => [frame[1]!, frame[6]!])
  const margin = 0.6
  return {
    left: Math.min(...xs) * footMetres - margin,
    right: Math.max(...xs) * footMetres + margin,
    back: Math.min(...ys) * footMetres - margin,
    front: Math.max(...ys) * footMetres + margin,
  }
}
