import type { Schema } from '../api/client'
import { blockWords } from '../ui/words'
import type { ArrangedBlock, Arrangement } from './arranging'

export interface OnPaper {
  sheet: Schema['LessonSheet']
  arrangement: Arrangement
}

/** What a block is about, of what the lesson's sheet knows. */
export const materialOf = (cohort: Schema['LessonCohortSheet'], block: ArrangedBlock) =>
  cohort.material.find((one) => one.postureId === block.material[0]?.postureId && one.side === block.material[0].side)

/** Who does it otherwise than their cohort, of what a block is about. */
export const careIn = (sheet: Schema['LessonSheet'], block: ArrangedBlock) =>
  sheet.care.filter(
    (care) =>
      care.cohortId === block.cohortId &&
      block.material.some((of) => of.postureId === care.postureId && of.side === care.side),
  )

/** A visit to those who are never alone is no visit: somebody stays while they practise. */
export const wordFor = (cohort: Schema['LessonCohortSheet'], block: ArrangedBlock) =>
  block.kind === 'visit' && cohort.attended ? 'own practice' : blockWords[block.kind].toLowerCase()
