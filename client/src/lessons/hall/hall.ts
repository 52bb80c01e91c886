import { useEffect, useState } from 'react'
import { secondsInto } from '../../shared/clock'
import type { Schema } from '../../api/client'
import type { ArrangedBlock, Arrangement } from '../arranging'

/** Seconds since the lesson began, as they pass. */
export function useLessonSeconds(date: string, start: string | undefined): number {
  const [seconds, setSeconds] = useState(() => (start === undefined ? 0 : secondsInto(date, start)))
  useEffect(() => {
    if (start === undefined) return
    const tick = () => setSeconds(secondsInto(date, start))
    tick()
    const timer = setInterval(tick, 500)
    return () => clearInterval(timer)
  }, [date, start])
  return seconds
}

const isOf = (block: ArrangedBlock, cohortId: string) => block.cohortId === null || block.cohortId === cohortId

/** What a cohort does in a minute; what came last goes on where nobody has said yet what comes next. */
export function blockAt(arrangement: Arrangement, cohortId: string, minute: number): ArrangedBlock | undefined {
  const own = arrangement.blocks.filter((block) => block.kind !== 'visit' && isOf(block, cohortId))
  return (
    own.findLast((block) => block.start <= minute && block.end > minute) ??
    own
      .filter((block) => block.end <= minute)
      .toSorted((a, b) => a.end - b.end)
      .at(-1)
  )
}

/** What comes after it for the same cohort. */
export const blockAfter = (arrangement: Arrangement, cohortId: string, block: ArrangedBlock) =>
  arrangement.blocks
    .filter((one) => one.kind !== 'visit' && isOf(one, cohortId) && one.start >= block.end)
    .toSorted((a, b) => a.start - b.start)[0]

/** Where a teacher is: whoever they lead or look at now, or will next, or did last. */
export function cohortOf(arrangement: Arrangement, teacherId: string, minute: number): string | undefined {
  const own = arrangement.blocks
    .filter((block) => block.ledBy === teacherId && block.cohortId !== null)
    .toSorted((a, b) => a.start - b.start)
  return (
    (
      own.find((block) => block.start <= minute && block.end > minute) ??
      own.find((block) => block.start > minute) ??
      own.at(-1)
    )?.cohortId ?? undefined
  )
}

/** What a teacher does after a minute. */
export const nextOf = (arrangement: Arrangement, teacherId: string, minute: number) =>
  arrangement.blocks
    .filter((block) => block.ledBy === teacherId && block.start > minute)
    .toSorted((a, b) => a.start - b.start)[0]

/** A look somebody takes at a cohort that practises, in a minute or later in the same practice. */
export const visitIn = (arrangement: Arrangement, block: ArrangedBlock, minute: number) =>
  arrangement.blocks.find(
    (one) => one.kind === 'visit' && one.cohortId === block.cohortId && one.end > minute && one.start < block.end,
  )

/** A pass through the counts: "together, 2 of 4". */
export interface Repetition {
  name: string
  at: number
  of: number
}

/** Every time the counts are gone through, in the order of the school's way of bringing something in. */
export const repetitions = (passes: readonly Schema['Pass'][]): Repetition[] =>
  passes.flatMap(({ name, repetitions: of, minutes }) =>
    minutes === null ? Array.from({ length: of }, (_, at) => ({ name, at: at + 1, of })) : [{ name, at: 1, of: 1 }],
  )

/** "5:40" */
export const timeLeft = (seconds: number) =>
  `${Math.floor(Math.max(0, seconds) / 60)}:${String(Math.max(0, seconds) % 60).padStart(2, '0')}`
