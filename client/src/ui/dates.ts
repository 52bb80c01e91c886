import type { Writing } from './writing'

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

const iso = (year: number, month: number, day: number): string | undefined => {
  const date = new Date(Date.UTC(year, month - 1, day))
  return date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day
    ? date.toISOString().slice(0, 10)
    : undefined
}

/**
 * A date as people write it: "24 November 2026", "Nov 24", "24.11.2026", "24/11/26", "2026-11-24".
 * Of two numbers the day comes first, except where the school writes the month before it.
 * Without a year the one that lies nearest to `near`. Undefined when it is no date.
 */
export function readDate(text: string, near: string, style: Writing['dates'] = 'dayMonthYear'): string | undefined {
  const written = text.trim().toLowerCase()
  const whole = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(written)
  if (whole) return iso(Number(whole[1]), Number(whole[2]), Number(whole[3]))
  const parts = written
    .replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*[\s,]+/, '')
    .split(/[\s./,-]+/)
    .filter(Boolean)
  if (parts.length < 2 || parts.length > 3) return undefined
  const third = parts[2]
  const monthFirst =
    /^[a-z]/.test(parts[0]!) || (style === 'monthDayYear' && /^\d+$/.test(parts[1]!) && Number(parts[0]) <= 12)
  const [first, second] = (monthFirst ? [parts[1], parts[0]] : parts) as [string, string]
  const day = /^\d{1,2}(st|nd|rd|th)?$/.test(first) ? parseInt(first) : NaN
  const named = months.indexOf(second.slice(0, 3))
  const month = /^\d{1,2}$/.test(second) ? Number(second) : second.length >= 3 && named >= 0 ? named + 1 : NaN
  if (Number.isNaN(day) || Number.isNaN(month)) return undefined
  if (third !== undefined) {
    if (!/^(\d{2}|\d{4})$/.test(third)) return undefined
    return iso(third.length === 2 ? 2000 + Number(third) : Number(third), month, day)
  }
  const around = Number(near.slice(0, 4))
  return [around - 1, around, around + 1]
    .flatMap((year) => iso(year, month, day) ?? [])
    .toSorted((a, b) => Math.abs(Date.parse(a) - Date.parse(near)) - Math.abs(Date.parse(b) - Date.parse(near)))[0]
}

/** A number as people write it, with a point or a comma; null for nothing, undefined when it is no number. */
export function readNumber(text: string): number | null | undefined {
  const written = text.trim().replace(',', '.')
  if (written === '') return null
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(written) ? Number(written) : undefined
}

/** A time of day as people write it: "18:30", "18.30", "1830", "6:30 pm", "7". As 18:30:00; undefined when it is none. */
export function readTime(text: string): string | undefined {
  const parts = /^(\d{1,2})(?:[:. ]?(\d{2}))?\s*(am|pm)?$/i.exec(text.trim())
  if (!parts) return undefined
  const half = parts[3]?.toLowerCase()
  const hour = (Number(parts[1]) % (half ? 12 : 24)) + (half === 'pm' ? 12 : 0)
  const minute = Number(parts[2] ?? 0)
  if (Number(parts[1]) > (half ? 12 : 23) || minute > 59) return undefined
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}:00`
}

/** Whole days from one day to another. */
export const daysBetween = (from: string, to: string) => Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000)

/** So many days up to one, the earliest first. */
export const lastDays = (until: string, count: number): readonly string[] =>
  Array.from({ length: count }, (_, at) =>
    new Date(Date.parse(until) - (count - 1 - at) * 86_400_000).toISOString().slice(0, 10),
  )
