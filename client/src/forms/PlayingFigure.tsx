import { useQuery } from '@tanstack/react-query'
import { useImperativeHandle, useMemo, useState, type Ref } from 'react'
import { useEngine } from '../engine/engine'
import { postureQuery } from '../shared/material'
import { useWays } from '../shared/ways'
import { Figure } from '../ui/Figure'
import type { FloorView } from '../ui/FloorStage'
import type { Position } from './data'
import { countedOf, hasBody } from '../shared/counted'

/** Where the player is, told frame by frame. */
export interface FigureHandle {
  show: (moment: { count: number; part: number } | null) => void
}

/** The body of whatever the player shows on the floor, seen from where the floor is seen: from behind as the class sees it, or facing it. */
export function PlayingFigure({
  position,
  next,
  count,
  view,
  handle,
}: {
  position: Position
  /** What comes after it, to be here in time. */
  next: Position | undefined
  /** The count at which the player stands still. */
  count: number
  view: FloorView
  handle: Ref<FigureHandle>
}) {
  const engine = useEngine().data
  const { pivots } = useWays()
  const reads = useQuery(postureQuery(position.postureId, position.side)).data?.reads
  useQuery({ ...postureQuery(next?.postureId, next?.side), enabled: next !== undefined })
  const [moment, setMoment] = useState<{ count: number; part: number } | null>(null)
  useImperativeHandle(handle, () => ({ show: setMoment }), [])
  const of = useMemo(
    () => (reads && hasBody(reads.counts) ? countedOf(reads, undefined, pivots.onBall) : null),
    [reads, pivots.onBall],
  )
  if (!engine || !of) return null
  const at = moment ?? { count, part: 1 }
  // Turned with the form: front is the front of the hall, wherever the posture faces.
  const seen = {
    view: view === 'facing' ? ('front' as const) : ('behind' as const),
    turned: -position.facing,
    mirrored: false,
    sash: '',
    night: false,
  }
  return (
    <div className="pointer-events-none absolute right-3 bottom-3 z-10 rounded-md border border-line bg-paper/90 p-1.5">
      <Figure
        {...engine.figure(of, at.count, at.part, seen)}
        className="h-44 w-36"
        label={`The body in ${reads!.name}, ${at.count === 0 ? 'where it starts' : `count ${at.count}`}, ${view === 'facing' ? 'facing' : 'from behind'}`}
      />
    </div>
  )
}
