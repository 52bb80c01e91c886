import type { Schema } from '../api/client'
import { daysBetween } from '../ui/dates'
import { decimal } from '../ui/writing'
import { counted, dayMonth, halfWords, monthYear } from '../ui/words'

export type Next = Schema['NextSashStep']
export type Lack = Schema['NextSashLack']

/** Farther ahead no day is claimed. Days. */
const DAYS_CLAIMED = 100

/** "Fern, senior". */
export const levelName = ({ sash, half }: { sash: string; half: Schema['Half'] }) =>
  half === 'none' ? sash : `${sash}, ${halfWords[half]}`

/** "14 March", or "March 2027" of what is farther ahead. */
export const aboutWhen = (likely: string, today: string) =>
  daysBetween(today, likely) <= DAYS_CLAIMED ? dayMonth(likely) : monthYear(likely)

/** "Likely by 14 March, at 1.2 lessons a week.", or why there is no date. */
export function likelyWords({ isUnsaid, missing, likely, lessonsAWeek }: Next, today: string): string {
  if (isUnsaid) return 'The ladder does not say yet what this level studies.'
  if (missing.length === 0) return 'Ready: nothing is missing.'
  if (lessonsAWeek === 0) return 'Has not been here for twelve weeks.'
  const pace = `at ${decimal(lessonsAWeek)} ${lessonsAWeek === 1 ? 'lesson' : 'lessons'} a week`
  if (likely) return `Likely by ${aboutWhen(likely, today)}, ${pace}.`
  const unplanned = missing.filter(({ kind, likely, toSee }) => kind === 'posture' && !likely && isAhead(toSee!)).length
  return unplanned > 0
    ? `No date yet: ${counted(unplanned, 'posture')} of it ${unplanned === 1 ? 'is' : 'are'} in no plan, and nothing new came lately.`
    : 'No date yet: too few here have come so far to say how long it takes.'
}

export const isReady = ({ isUnsaid, missing }: Next) => !isUnsaid && missing.length === 0

/** Nobody has shown it to them, and it is not known when somebody will. */
const isAhead = ({ has, takenOver, new: met }: NonNullable<Lack['toSee']>) =>
  met === null && (has === 'notMet' || takenOver)
