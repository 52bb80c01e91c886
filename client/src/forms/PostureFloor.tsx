import { useMemo, useRef, useState } from 'react'
import type { Schema } from '../api/client'
import { useWays } from '../shared/ways'
import { useEngine, type Counted } from '../engine/engine'
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
  const [moment, setMoment] = useState<{ beat: number; part: number }>()
  // Where there is a body its end shape is what somebody comes to see.
  const player = usePlayer(
    walked?.start ?? START_FRAME,
    walked?.beats ?? [],
    stage,
    (beat, part) => setMoment({ beat, part }),
    bodies.some(Boolean) ? counts.length - 1 : -1,
  )
  const body = bodies.some(Boolean) ? played : null
  // While it plays the body is drawn sixty times a second, and the row of its counts is not.
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
  const at = player.playing && moment ? moment : { beat: player.beat, part: 1 }
  return (
    <section aria-label="On the floor" className="overflow-hidden rounded-lg border border-line">
      {body && (
        <PostureFigure
          engine={core}
          of={body}
          count={at.beat + 1}
          part={at.part}
          says={core.body.read((at.beat < 0 ? hands : played.bodies[at.beat]) ?? '').says}
        />
      )}
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
