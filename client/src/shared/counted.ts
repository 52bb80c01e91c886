import type { Schema } from '../api/client'
import type { Counted } from '../engine/engine'

type Count = Schema['Count']

/** The counts of a posture, or of one of its versions, as a body is drawn from them. */
export function countedOf(
  reads: Pick<Schema['PostureText'], 'entry' | 'start' | 'counts'>,
  version: Schema['AdaptedVersion'] | undefined,
  pivotOnBall: boolean,
): Counted {
  const { start, counts } = version ?? reads
  return {
    entry: version?.entry || reads.entry,
    start,
    feet: counts.map((count) => count.feet),
    bodies: counts.map((count) => count.body),
    mode: version?.mode ?? 'standing',
    rail: version?.rail ?? '',
    pivotOnBall,
  }
}

/** With its way back as the count after the last, where it is practised as a loop. */
export const withReturn = (of: Counted, loop: Schema['Loop'] | null): Counted =>
  loop ? { ...of, feet: [...of.feet, loop.return], bodies: [...of.bodies, loop.body] } : of

/** Whether anybody has written what the body does. */
export const hasBody = (counts: readonly Count[]) => counts.some((count) => count.body !== '')

/** What a count says in free words, which tell nobody what a body has to do. */
export const freeWords = (count: Count) => `${count.waist}${count.hands}${count.gaze}`
