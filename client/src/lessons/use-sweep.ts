import { useState } from 'react'
import type { RegisterItem } from './data'
import type { Place } from './RegisterTable'

interface Numbered {
  item: RegisterItem
  /** Its place among all that was planned. */
  at: number
}

/** From what was chosen down to something: what is seen of all of it is said once. */
export interface Sweep {
  /** How far down it may go. */
  further: readonly Numbered[]
  downTo: RegisterItem | undefined
  setDownTo: (at: number) => void
  /** All of it, stops and all; nothing where only what was chosen is meant. */
  through: readonly Numbered[]
  /** Where it stopped on the way: nothing is said of those yet. */
  stops: readonly number[]
  setStops: (stops: readonly number[]) => void
}

/**
 * How far down a mark of the chosen place holds, and where it stopped.
 *
 * @param inRunThrough Whether it is seen in a run-through: one goes through the links, too, and elsewhere they are not seen.
 */
export function useSweep(
  items: readonly RegisterItem[],
  place: Place | undefined,
  inRunThrough: boolean,
): { sweep: Sweep; of: readonly RegisterItem[] } {
  const [to, setTo] = useState<Place & { to: number; stops: readonly number[] }>()
  const isHere = to !== undefined && to.student === place?.student && to.item === place.item
  const after = items
    .map((item, at) => ({ item, at }))
    .filter(({ item, at }) => place && at >= place.item && (at === place.item || inRunThrough || item.kind !== 'link'))
  const through = isHere ? after.filter(({ at }) => at <= to.to) : []
  const stops = isHere ? to.stops : []
  return {
    sweep: {
      further: after.slice(1),
      downTo: through.length > 1 ? through.at(-1)!.item : undefined,
      setDownTo: (at) => place && setTo({ ...place, to: at, stops: stops.filter((stop) => stop <= at) }),
      through,
      stops,
      setStops: (stops) => isHere && setTo({ ...to, stops }),
    },
    of: through.filter(({ at }) => !stops.includes(at)).map(({ item }) => item),
  }
}
