import type { Schema } from '../api/client'
import { blockWords } from '../ui/words'

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

/** A task in two parts, as equal as minutes allow. */
export const halved = (block: ArrangedBlock): LessonEdit => ({
  kind: 'split',
  key: block.task!,
  minutes: Math.ceil((block.end - block.start) / 2),
})

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
    case 'everybody':
      return edit.minutes === 0
        ? `${blockWords[edit.does].toLowerCase()} is left out tonight`
        : `${blockWords[edit.does].toLowerCase()} takes ${edit.minutes} min`
    case 'makesUp':
      return 'somebody comes before class'
    case 'length':
      return `the lesson lasts ${edit.minutes} min`
    case 'pause':
      return `${edit.who} paused the lesson in minute ${edit.from}`
    case 'focus':
      return edit.principleId === null ? 'the lesson has no focus' : `the focus is ${edit.name}`
    case 'joins': {
      const name = arrangement.joining.find((one) => one.who === edit.who)?.name ?? (edit.name || 'somebody')
      return edit.cohortId === null ? `${name} does not join another group` : `${name} is with ${cohort(edit.cohortId)}`
    }
    case 'since':
      return edit.until > edit.from
        ? `${edit.until - edit.from} minutes were lost from minute ${edit.from} on`
        : `arranged anew from minute ${edit.from}`
  }
}

/** "18:30" and 15 minutes later: "18:45". */
export function clockAt(start: string, minute: number): string {
  const at = Number(start.slice(0, 2)) * 60 + Number(start.slice(3, 5)) + minute
  return `${String(Math.floor(at / 60) % 24).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`
}
