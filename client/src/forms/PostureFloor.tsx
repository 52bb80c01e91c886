import { useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react'
import type { Schema } from '../api/client'
import { useWays } from '../shared/ways'
import { useEngine, type Counted, type Engine } from '../engine/engine'
import { START_FRAME } from '../ui/floor'
import { FloorStage, type FloorHandle } from '../ui/FloorStage'
import { PlayerBar } from '../ui/PlayerBar'
import { Failure } from '../ui/states'
import { usePlayer } from '../ui/use-player'
import { Checkbox } from '../ui/Checkbox'
import { FigureStrip, PostureFigure } from './PostureFigure'

interface PostureFloorProps {
  entry: string
  /** Hands, trunk and gaze before the first count, and in each of them. */
  start: string
  bodies: string[]
  counts: string[]
  cues: string[]
  ends: Schema['Footing'] | null
  loop: Schema['Loop'] | null
}

interface Moment {
  /** From 0; -1 where it starts. */
  beat: number
  part: number
}

/** Told frame by frame where the player is. */
interface BodyHandle {
  show: (moment: Moment) => void
}

/** The body while it plays: drawn sixty times a second, and nothing else with it. */
function MovingBody({
  engine,
  of,
  beat,
  playing,
  handle,
}: {
  engine: Engine
  of: Counted
  /** At which the player stands still. */
  beat: number
  playing: boolean
  handle: Ref<BodyHandle>
}) {
  const [moment, show] = useState<Moment>()
  useImperativeHandle(handle, () => ({ show }), [])
  const at = playing && moment ? moment : { beat, part: 1 }
  const text = (at.beat < 0 ? of.start : of.bodies[at.beat]) ?? ''
  const says = useMemo(() => engine.body.read(text).says, [engine, text])
  return <PostureFigure engine={engine} of={of} count={at.beat + 1} part={at.part} says={says} />
}

/** A posture by itself on the floor, played count by count: once, or as a loop from side to side by its own return. */
export function PostureFloor({ entry, start: hands, bodies, counts, cues, ends, loop }: PostureFloorProps) {
  const engine = useEngine()
  const { pivots, ways } = useWays()
  const stage = useRef<FloorHandle>(null)
  const foot = Number(ways?.footMetres ?? 0.26)
  const [onBall, weighted] = [pivots.onBall, pivots.weighted]
  const [looped, setLooped] = useState(false)
  const core = engine.data
  const played = useMemo<Counted>(() => {
    const once = { entry, start: hands, feet: counts, bodies, mode: 'standing', rail: '', pivotOnBall: onBall }
    return core && looped && loop ? core.round(once, loop) : once
  }, [core, entry, hands, counts, bodies, onBall, looped, loop])
  const walked = useMemo(() => {
    if (!core) return null
    const pivots = { onBall, weighted }
    const start = core.walk(START_FRAME, [entry], pivots)[0]?.at(-1) ?? START_FRAME
    return {
      start,
      beats: core.walk(start, played.feet, pivots).map((frames, at) => ({ at, count: at + 1, frames })),
    }
  }, [core, entry, played, onBall, weighted])
  const moving = useRef<BodyHandle>(null)
  // Where there is a body its end shape is what somebody comes to see.
  const player = usePlayer(
    walked?.start ?? START_FRAME,
    walked?.beats ?? [],
    stage,
    (beat, part) => moving.current?.show({ beat, part }),
    bodies.some(Boolean) ? counts.length - 1 : -1,
  )
  const body = bodies.some(Boolean) ? played : null
  const { beat: shown, go } = player
  const strip = useMemo(
    () => body && core && <FigureStrip engine={core} of={body} chosen={shown + 1} choose={(count) => go(count - 1)} />,
    // oxlint-disable-next-line react/exhaustive-deps -- go does the same whenever it was made
    [body, core, shown],
  )
  if (engine.isError)
    return <Failure error={new Error('The picture could not be opened.')} retry={() => void engine.refetch()} />
  if (!walked || !core) return <div className="h-80 bg-floorboard" />
  // A loop goes: this side, its return if it has one, and the other side alike where the return leads there.
  const side = loop?.return || loop?.body ? counts.length + 1 : counts.length
  const said = (beat: number) => {
    const at = beat % side
    if (at === counts.length) return loop?.cue ?? ''
    return beat < side ? `${at + 1} ${cues[at] ?? ''}` : `${at + 1}, on the other side`
  }
  const all = [walked.start, ...walked.beats.flatMap((beat) => beat.frames)]
  const area = {
    left: Math.min(...all.flatMap((frame) => [frame[0]!, frame[5]!])) * foot - 0.5,
    right: Math.max(...all.flatMap((frame) => [frame[0]!, frame[5]!])) * foot + 0.5,
    back: Math.min(...all.flatMap((frame) => [frame[1]!, frame[6]!])) * foot - 0.4,
    front: Math.max(...all.flatMap((frame) => [frame[1]!, frame[6]!])) * foot + 0.5,
  }
  return (
    <section aria-label="On the floor" className="overflow-hidden rounded-lg border border-line">
      {body && <MovingBody engine={core} of={body} beat={shown} playing={player.playing} handle={moving} />}
      {strip}
      <div className={`flex flex-col ${body ? 'h-56' : 'h-80'}`}>
        <FloorStage
          label="The posture from above"
          view="above"
          area={area}
          footMetres={foot}
          prints={[{ key: 'start', label: null, frame: walked.start, chosen: false, age: 0.2 }]}
          path={[]}
          frame={player.frame}
          front="where it starts facing"
          handle={stage}
        />
      </div>
      <PlayerBar
        {...player}
        beats={walked.beats.length}
        says={player.beat < 0 ? 'where it starts' : said(player.beat)}
      />
      {loop && (
        <Checkbox
          className="bg-paper px-4 pb-2"
          checked={looped}
          onChange={(checked) => {
            player.go(-1)
            setLooped(checked)
          }}
        >
          as a loop
        </Checkbox>
      )}
      {ends && !looped && (
        <p className="bg-paper px-4 pb-2 text-soft">Ends in {core.endsIn([...(all.at(-1) ?? START_FRAME)])}.</p>
      )}
    </section>
  )
}
