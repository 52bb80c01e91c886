import type { Schema } from '../api/client'

export type Arrangement = Schema['ArrangementResponse']
export type LessonEdit = Schema['LessonEdit']
export type ArrangedBlock = Schema['ArrangementBlockOf']

/** The same block through every arrangement. */
export const idOf = (block: ArrangedBlock) => `${block.cohortId} ${block.task ?? `${block.kind} ${block.start}`}`

/** The edits with a task fixed to a minute, to a teacher, or to both; what is said of it before no longer counts. */
export const pinned = (
  edits: LessonEdit[],
  block: ArrangedBlock,
  to: { start?: number | null; teacherId?: string | null },
): LessonEdit[] => {
  const key = block.task!
  const before = edits.findLast((edit) => (edit.kind === 'pin' || edit.kind === 'free') && edit.key === key)
  const now = before?.kind === 'pin' ? before : { start: null, teacherId: null }
  return [
    ...edits,
    {
      kind: 'pin',
      key,
      start: to.start === undefined ? now.start : to.start,
      teacherId: to.teacherId === undefined ? now.teacherId : to.teacherId,
    },
  ]
}

/** What the last edit did, to be said beside taking it back. */
export function editWords(edit: LessonEdit, arrangement: Arrangement): string {
  const of = (key: string) => arrangement.blocks.find((block) => block.task === key)?.what ?? 'what was asked'
  const cohort = (id: string) => arrangement.cohorts.find((one) => one.id === id)?.name ?? 'a cohort'
  switch (edit.kind) {
    case 'pin':
      return `${of(edit.key)} was fixed`
    case 'free':
      return `${of(edit.key)} was let go`
    case 'stretch':
      return `${of(edit.key)} takes ${edit.minutes} min`
    case 'split':
      return `${of(edit.key)} was split`
    case 'takeOut':
      return 'something was left for another lesson'
    case 'add':
      return `${edit.task.what} was added`
    case 'allowAlone':
      return `${cohort(edit.cohortId)} may be ${edit.minutes} min by itself`
    case 'teacher':
      return edit.who.until > edit.who.from ? `${edit.who.name} is there` : `${edit.who.name} is not there`
    case 'people':
      return `${cohort(edit.cohortId)}: ${edit.count} came`
  }
}
