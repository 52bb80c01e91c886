import type { Schema } from '../api/client'
import type { Arrangement } from './arranging'
import type { RegisterItem } from './data'

export const howWords: Record<Schema['TaughtHow'], string> = {
  introduced: 'new',
  reviewed: 'review',
  runThrough: 'run-through',
}

/** One item of one cohort among all of a lesson. */
export const keyOf = (cohortId: string, item: RegisterItem) =>
  `${cohortId} ${item.kind} ${item.postureId} ${item.side} ${item.from?.postureId} ${item.how}`

/** The minutes an arrangement has for an item of a cohort; nothing where it has no block of its own. */
export function minutesOf(arrangement: Arrangement, cohortId: string, item: RegisterItem): number | null {
  const minutes = arrangement.blocks
    .filter(
      (block) =>
        (block.cohortId === cohortId || block.with.includes(cohortId)) &&
        block.material.length === 1 &&
        block.material[0]!.postureId === item.postureId &&
        block.material[0]!.side === item.side &&
        block.kind === (item.how === 'introduced' ? 'new' : 'review'),
    )
    .reduce((sum, block) => sum + block.end - block.start, 0)
  return minutes || null
}

/** Whether an item was in the lesson as it went, and for how long. */
export function wentOf(arrangement: Arrangement, cohortId: string, item: RegisterItem) {
  const minutes = minutesOf(arrangement, cohortId, item)
  return item.how === 'runThrough'
    ? { taught: ranThrough(arrangement, cohortId), minutes: null }
    : { taught: minutes !== null, minutes }
}

const ranThrough = (arrangement: Arrangement, cohortId: string) =>
  arrangement.blocks.some(
    (block) =>
      ['together', 'runThrough', 'test'].includes(block.kind) &&
      (block.cohortId === null || block.cohortId === cohortId),
  )
