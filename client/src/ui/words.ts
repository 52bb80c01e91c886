import type { Schema } from '../api/client'
import { decimal, writing } from './writing'

/** How the terms of the job are said on screen. */
export const stageWords: Record<Schema['Stage'], string> = {
  notMet: 'not met',
  shown: 'shown',
  follows: 'follows',
  alone: 'alone',
  flowing: 'flowing',
  settled: 'settled',
}

export const weightWords: Record<Schema['Weight'], string> = {
  keyPoint: 'key point',
  shape: 'shape',
  finesse: 'finesse',
}

/** What an observation says: a stage, a fault, or that it was fine. */
export function seenWords({
  sign,
  stage,
  words,
  inRunThrough,
}: {
  sign: Schema['Sign'] | null
  stage: Schema['Stage'] | null
  words: string
  inRunThrough: boolean
}): string {
  const within = inRunThrough && stage !== 'flowing' ? `, ${runThroughWords}` : ''
  if (sign === 'stage' && stage) return stageWords[stage] + within
  if (sign === 'fine') return `seen and fine${within}`
  return `${sign === 'better' ? 'better: ' : sign === 'noted' ? 'noted: ' : ''}${words}${within}`
}

export const runThroughWords = 'inside a run-through'

export const wayWords: Record<Schema['Way'], string> = {
  anotherView: 'another view',
  feetOnly: 'feet only',
  atTheWall: 'at the wall',
  image: 'an image',
  slowerDrill: 'a slower drill',
  easierMode: 'an easier mode',
  withAPartner: 'with a partner',
}

export const blockWords: Record<Schema['BlockKind'], string> = {
  warmUp: 'Warm-up',
  leadIn: 'Lead-in',
  new: 'New',
  ownPractice: 'Own practice',
  review: 'Review',
  reTeach: 'Re-teach',
  watch: 'Watch',
  partner: 'With a partner',
  together: 'Together',
  runThrough: 'Run-through',
  rest: 'Rest',
  talk: 'Talk',
  test: 'Test',
  settle: 'Settle',
  visit: 'Visit',
}

export const demandWords: Record<Schema['Demand'], string> = {
  oneLegBalance: 'one-leg balance',
  deepBend: 'deep bend',
  backwardStep: 'backward step',
  wideStep: 'wide step',
  crossStep: 'cross-step',
  pivotUnderLoad: 'pivot under load',
  trunkTwist: 'trunk twist',
  inwardHipTurn: 'inward hip turn',
  overheadReach: 'overhead reach',
  armsAtShoulderHeight: 'arms held at shoulder height',
  forwardBend: 'forward bend',
  headTurning: 'head turning',
  kick: 'kick',
  fastMove: 'fast move',
  longStanding: 'long standing',
  bothHandsFree: 'both hands free',
}

export const halfWords: Record<Schema['Half'], string> = { none: '', newer: 'newer', senior: 'senior' }

export const roleWords: Record<Schema['StaffRole'], string> = {
  head: 'head of school',
  instructor: 'instructor',
  assistant: 'assistant',
}

export const weekdayWords: Record<Schema['DayOfWeek'], string> = {
  monday: 'Monday',
  tuesday: 'Tuesday',
  wednesday: 'Wednesday',
  thursday: 'Thursday',
  friday: 'Friday',
  saturday: 'Saturday',
  sunday: 'Sunday',
}

/** Day before month, or the other way round, as the school writes. */
const format = (options: Intl.DateTimeFormatOptions) => {
  const dayFirst = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', ...options })
  const monthFirst = new Intl.DateTimeFormat('en-US', { timeZone: 'UTC', ...options })
  return (date: string) =>
    (writing().dates === 'monthDayYear' ? monthFirst : dayFirst).format(new Date(`${date}T00:00:00Z`))
}

export const longDate = format({ weekday: 'long', day: 'numeric', month: 'long' })
const dated = format({ day: 'numeric', month: 'short', year: 'numeric' })
/** With its year, as it is written into a field: "24 Nov 2026", "Nov 24, 2026", "2026-11-24". */
export const fieldDate = (date: string) => (writing().dates === 'yearMonthDay' ? date : dated(date))
export const dayMonth = format({ day: 'numeric', month: 'long' })
export const monthYear = format({ month: 'long', year: 'numeric' })
export const shortDay = format({ day: 'numeric', month: 'short' })

/** A moment, in the day and time of whoever reads it: "24 Nov 2026, 19:30". */
export const moment = (at: string) => {
  const here = new Date(at)
  const two = (part: number) => String(part).padStart(2, '0')
  const day = `${here.getFullYear()}-${two(here.getMonth() + 1)}-${two(here.getDate())}`
  return `${fieldDate(day)}, ${two(here.getHours())}:${two(here.getMinutes())}`
}

export const clockTime = (time: string) => time.slice(0, 5)

export const minutesOf = (seconds: number) => {
  const minutes = seconds / 60
  return `${Number.isInteger(minutes) ? minutes : decimal(minutes)} min`
}

/** "1 hall", "2 halls". */
export const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`

export const people = (count: number) => counted(count, 'person', 'people')

/** A mode as the field says it; on its own as well as in a sentence. */
export const modeNames = ['standing', 'short-step', 'no-step', 'supported', 'seated'] as const

const and = new Intl.ListFormat('en-GB')

/** "Anselm K. and Quentin M." */
export const together = (names: readonly string[]) => and.format(names)

const shortSides = (name: string) => name.replace(/, left(?= →|$)/g, ' L').replace(/, right(?= →|$)/g, ' R')

/** A posture and side as short as a card or a column head needs it: "Brush Knee L"; of a link where it leads: "→ Brush Knee L". */
export const shortPosture = (name: string) => shortSides(name.replace(/^.* → /, '→ '))

/** Each as short as it can be told from the others: a link says where it comes from where another leads to the same. */
export const shortPostures = (names: readonly string[]) =>
  names.map((name) =>
    names.some((other) => other !== name && shortPosture(other) === shortPosture(name))
      ? shortSides(name)
      : shortPosture(name),
  )

/** Small letters without accents, for comparing what is sought. */
export const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
