import type { Schema } from '../api/client'

/** How the school writes: the order of a date, the mark before tenths, the first day of a week, and the zone its clock runs in. */
export type Writing = Pick<Schema['SessionResponse'], 'dates' | 'decimals' | 'weekStart'>

let ours: Writing = { dates: 'dayMonthYear', decimals: 'point', weekStart: 'monday' }

/** Told once when the school is opened, and again when its head changes it: everything written from then on follows. */
export const writeAs = ({ dates, decimals, weekStart }: Writing) => {
  ours = { dates, decimals, weekStart }
}

export const writing = (): Writing => ours

/** With the school's own mark: "8.5" or "8,5". */
const marked = (written: string) => (ours.decimals === 'comma' ? written.replace('.', ',') : written)

/** So many digits after the mark, always. */
export const decimal = (value: number, digits = 1) => marked(value.toFixed(digits))

/** As many digits as it has. */
export const number = (value: number) => marked(String(value))

const weekdays: readonly Schema['DayOfWeek'][] = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
]

/** The days of the week as this school counts them. */
export const schoolWeek = () => {
  const first = weekdays.indexOf(ours.weekStart)
  return [...weekdays.slice(first), ...weekdays.slice(0, first)]
}
