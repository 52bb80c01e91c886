import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useEngine, type Engine } from '../../engine/engine'
import { useSignedIn } from '../../shared/session'
import { useWaiting, waiting } from '../../shared/waiting'
import { newId } from '../../ui/new-id'
import type { ArrangedBlock, Arrangement, LessonEdit } from '../arranging'
import { arrangementQuery, type Lesson } from '../data'
import { KIND, type Happening } from './sending'

/** The lesson as it goes on, with everything that has been said of it here and not been answered yet; and the ways to say more. */
export function useHappenings(lesson: Lesson) {
  const { person } = useSignedIn()
  const engine = useEngine().data
  // Two devices in one hall: each sees before long what the other has said.
  const arrangement = useQuery({ ...arrangementQuery(lesson), refetchInterval: 5_000 })
  const everything = useWaiting()
  const entries = useMemo(
    () =>
      everything.filter((entry) => {
        const { lesson: its } = entry.variables as Happening
        return entry.kind === KIND && its.classId === lesson.classId && its.date === lesson.date
      }),
    [everything, lesson.classId, lesson.date],
  )
  const shown = useMemo(
    () =>
      arrangement.data &&
      entries
        .filter((entry) => entry.refused === undefined)
        .flatMap((entry) => (entry.variables as Happening).edits)
        .reduce((now, edit) => withEdit(now, edit, engine), arrangement.data),
    [arrangement.data, entries, engine],
  )
  const happen = (edits: LessonEdit[], says: string) => {
    const id = newId()
    const variables: Happening = { lesson, id, edits, version: arrangement.data?.version ?? null }
    void waiting.add({ id, kind: KIND, variables, by: person.id, says })
  }
  return { query: arrangement, shown, entries, happen }
}

/** As it looks until the server has arranged it anew: what is still to come comes later. */
export function withEdit(arrangement: Arrangement, edit: LessonEdit, engine: Engine | undefined): Arrangement {
  const edits = [...arrangement.edits, edit]
  if (edit.kind === 'since') {
    const stood = edit.stood as ArrangedBlock[]
    const blocks = stood.length > 0 ? stood : arrangement.blocks
    return {
      ...arrangement,
      edits,
      blocks: edit.until > edit.from && engine ? engine.laterBlocks(blocks, edit.from, edit.until) : blocks,
    }
  }
  if (edit.kind === 'joins') return withJoining(arrangement, edit, edits)
  if (edit.kind !== 'stretch' || !engine) return { ...arrangement, edits }
  const block = arrangement.blocks.findLast((one) => one.task === edit.key)
  const since = arrangement.edits.findLast((one) => one.kind === 'since')
  if (!block) return { ...arrangement, edits }
  const end = Math.max(block.start, since?.kind === 'since' ? since.until : 0) + edit.minutes
  return {
    ...arrangement,
    edits,
    blocks: end > block.end ? engine.laterBlocks(arrangement.blocks, block.end, end) : arrangement.blocks,
  }
}

/** Whoever joins is there at once; how they take part the server knows. */
function withJoining(
  arrangement: Arrangement,
  { who, name, cohortId, neverAlone }: Extract<LessonEdit, { kind: 'joins' }>,
  edits: LessonEdit[],
): Arrangement {
  const before = arrangement.joining.find((one) => one.who === who)
  const more = (id: string) => Number(id === cohortId) - Number(id === before?.cohortId)
  return {
    ...arrangement,
    edits,
    cohorts: arrangement.cohorts.map((one) => ({
      ...one,
      people: one.people + more(one.id),
      neverAlone: one.neverAlone || (neverAlone && one.id === cohortId),
    })),
    joining: [
      ...arrangement.joining.filter((one) => one !== before),
      ...(cohortId === null ? [] : [{ who, name, cohortId, mode: null, neverAlone }]),
    ],
  }
}

/** Who has paused the lesson, and since when; undefined while it goes on. */
export function pausedIn(edits: LessonEdit[]) {
  let paused: Extract<LessonEdit, { kind: 'pause' }> | undefined
  for (const edit of edits) {
    if (edit.kind === 'pause') paused ??= edit
    else if (edit.kind === 'since' && paused && edit.until >= paused.from) paused = undefined
  }
  return paused
}

const since = (arrangement: Arrangement, from: number, until = from, what = ''): LessonEdit => ({
  kind: 'since',
  from,
  until,
  what,
  stood: arrangement.blocks.map((block) => ({ ...block, with: [...block.with] })),
})

/** Nothing was taught from one minute to another. */
export const lost = (arrangement: Arrangement, from: number, until: number, what: string): LessonEdit[] => [
  since(arrangement, from, Math.max(until, from), what),
]

/** What is said now counts from now on: what has happened stands. */
export const fromNow = (arrangement: Arrangement, minute: number, edit: LessonEdit): LessonEdit[] =>
  minute > 0 ? [since(arrangement, minute), edit] : [edit]

/** What is led now is done, and what comes next begins. */
export const over = (arrangement: Arrangement, block: ArrangedBlock, minute: number): LessonEdit[] => [
  since(
    {
      ...arrangement,
      blocks: arrangement.blocks.map((one) =>
        one.start < minute && one.end > minute && one.task !== null && one.task === block.task
          ? { ...one, end: minute }
          : one,
      ),
    },
    minute,
  ),
]

/** What is led now takes so many minutes more. */
export const longer = (
  arrangement: Arrangement,
  block: ArrangedBlock,
  minute: number,
  minutes: number,
): LessonEdit[] => [
  since(arrangement, minute),
  { kind: 'stretch', key: block.task!, minutes: block.end - minute + minutes },
]

/** What was to come next comes now, and what is led now after it. */
export const swapped = (
  arrangement: Arrangement,
  block: ArrangedBlock,
  next: ArrangedBlock,
  minute: number,
): LessonEdit[] => [
  since(arrangement, minute),
  { kind: 'pin', key: next.task!, start: minute, teacherId: next.ledBy },
  { kind: 'pin', key: block.task!, start: minute + next.end - next.start, teacherId: block.ledBy },
]
