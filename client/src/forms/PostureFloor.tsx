import { useMemo, useRef } from 'react'
import type { Schema } from '../api/client'
import { useWays } from '../app/ways'
import { useEngine } from '../engine/engine'
import { START_FRAME } from '../ui/floor'
import { FloorStage, type FloorHandle } from '../ui/FloorStage'
import { PlayerBar } from '../ui/PlayerBar'
import { usePlayer } from '../ui/use-player'

/** A posture by itself on the floor, played count by count. */
export function PostureFloor({ entry, counts, cues, ends }: { entry: string; counts: string[]; cues: string[]; ends: Schema['Footing'] | null }) {
  const engine = useEngine()
  const { pivots, ways } = useWays()
  const stage = useRef<FloorHandle>(null)
  const foot = Number(ways?.footMetres ?? 0.26)
  const [onBall, weighted] = [pivots.onBall, pivots.weighted]
  const walked = useMemo(() => {
    if (!engine.data) return null
    const [entered, ...rest] = engine.data.walk(START_FRAME, [entry, ...counts], { onBall, weighted })
    const start = entered?.at(-1) ?? START_FRAME
    return { start, beats: rest.map((frames, at) => ({ at, count: at + 1, frames })) }
  }, [engine.data, entry, counts, onBall, weighted])
  const player = usePlayer(walked?.start ?? START_FRAME, walked?.beats ?? [], stage)
  if (!walked) return <div className="h-80 bg-floorboard" />
  const all = [walked.start, ...walked.beats.flatMap((beat) => beat.frames)]
  const area = {
    left: Math.min(...all.flatMap((frame) => [frame[0]!, frame[5]!])) * foot - 0.5,
    right: Math.max(...all.flatMap((frame) => [frame[0]!, frame[5]!])) * foot + 0.5,
    back: Math.min(...all.flatMap((frame) => [frame[1]!, frame[6]!])) * foot - 0.4,
    front: Math.max(...all.flatMap((frame) => [frame[1]!, frame[6]!])) * foot + 0.5,
  }
  return (
    <section aria-label="On the floor" className="overflow-hidden rounded-lg border border-line">
      <div className="flex h-80 flex-col">
        <FloorStage label="The posture from above" view="above" area={area} footMetres={foot} prints={[{ key: 'start', label: null, frame: walked.start, chosen: false, age: 0.2 }]} path={[]} frame={player.frame} front="where it starts facing" handle={stage} />
      </div>
      <PlayerBar {...player} beats={walked.beats.length} says={player.beat < 0 ? 'where it starts' : `${player.beat + 1} ${cues[player.beat] ?? ''}`} />
      {ends && <p className="bg-paper px-4 pb-2 text-soft">Ends in {engine.data!.endsIn([...(all.at(-1) ?? START_FRAME)])}.</p>}
    </section>
  )
}
