import type { Schema } from '../api/client'

/** How far the school's clocks are from this device's, in milliseconds: the moment, and what its wall shows. */
interface Offset {
  moment: number
  wall: number
}

const KEY = 'zeitplan clock'
let offset: Offset | undefined

const read = (): Offset =>
  (offset ??= (JSON.parse(localStorage.getItem(KEY) ?? 'null') as Offset | null) ?? {
    moment: 0,
    wall: -new Date().getTimezoneOffset() * 60_000,
  })

/** The school's clocks, whatever this device's says: a device that is wrong by twenty minutes is right in the hall. Kept for when there is no network. */
export const clock = {
  set({ at, wall }: Pick<Schema['SessionResponse'], 'at' | 'wall'>) {
    offset = { moment: Date.parse(at) - Date.now(), wall: Date.parse(`${wall.slice(0, 19)}Z`) - Date.now() }
    localStorage.setItem(KEY, JSON.stringify(offset))
  },
  now: () => new Date(Date.now() + read().moment),
  /** What the school's wall shows, as milliseconds that are read without a time zone. */
  wall: () => Date.now() + read().wall,
}

/** Seconds since a lesson began; less than nothing before. */
export const secondsInto = (date: string, start: string) =>
  Math.floor((clock.wall() - Date.parse(`${date}T${start.slice(0, 5)}:00Z`)) / 1000)
