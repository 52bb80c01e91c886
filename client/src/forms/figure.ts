import type { Schema } from '../api/client'
import type { Counted, Seen } from '../engine/engine'
import type { Count } from './data'

export const views = {
  front: { name: 'front', around: 0, above: 10 },
  behind: { name: 'behind', around: 180, above: 10 },
  left: { name: 'left', around: -90, above: 10 },
  right: { name: 'right', around: 90, above: 10 },
  above: { name: 'above', around: 180, above: 90 },
} as const
export type View = keyof typeof views

/** The colour of a sash that is nobody's: the figure of the posture itself. */
export const NOBODYS_SASH = '#AE6A38'

export const seenFrom = (view: View, mirrored = false): Seen => ({
  ...views[view],
  mirrored,
  sash: NOBODYS_SASH,
  night: false,
})

/** The counts of a posture, or of one of its versions, as a body is drawn from them. */
export function countedOf(
  reads: Pick<Schema['PostureText'], 'entry' | 'start' | 'counts'>,
  version: Schema['AdaptedVersion'] | undefined,
  pivotOnBall: boolean,
): Counted {
  const counts: readonly Count[] = version?.counts ?? reads.counts
  return {
    entry: version?.mode === 'seated' ? '' : reads.entry,
    start: version?.start ?? reads.start,
    feet: counts.map((count) => count.feet),
    bodies: counts.map((count) => count.body),
    aid: !version ? '' : version.mode === 'seated' ? 'chair' : version.mode === 'supported' ? railOf(version) : '',
    pivotOnBall,
  }
}

const railOf = ({ rail }: Schema['AdaptedVersion']): Counted['aid'] =>
  rail === 'left' || rail === 'right' ? rail : 'front'

/** Whether anybody has written what the body does. */
export const hasBody = (counts: readonly Count[]) => counts.some((count) => count.body !== '')
