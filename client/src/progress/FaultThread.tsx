import type { Schema } from '../api/client'
import { monthYear } from '../ui/words'
import type { Pattern } from './patterns'

interface Years {
  months: readonly string[]
  terms: readonly { name: string; start: string; end: string }[]
}

const MONTH = 20
const HEIGHT = 40
/** Half the width of a thread: for one person, for each further one, and at most. */
const [ONE, MORE, MOST] = [2, 1.4, 16]

/** A term's name that begins here ends at the end. */
const NEAR_THE_END = 0.8

const colours: Record<Schema['Weight'], string> = {
  keyPoint: 'fill-lacquer',
  shape: 'fill-ochre-mark',
  finesse: 'fill-soft',
}

/** Where a day lies along the months. */
const placeOf = (date: string, months: readonly string[]) => {
  const [year, month, day] = date.split('-').map(Number) as [number, number, number]
  const [firstYear, firstMonth] = months[0]!.split('-').map(Number) as [number, number]
  return ((year - firstYear) * 12 + month - firstMonth + (day - 1) / 31) * MONTH
}

function TermBands({ months, terms }: Years) {
  return terms.map((term) => {
    const from = Math.max(0, placeOf(term.start, months))
    const to = Math.min(months.length * MONTH, placeOf(term.end, months))
    return (
      to > from && (
        <rect key={term.start} x={from} width={to - from} y={0} height={HEIGHT} className="fill-floorboard" />
      )
    )
  })
}

/** One fault through the months: as wide as there were people who had it open, with a knot where it was new in somebody. */
export function FaultThread({ pattern, months, terms }: Years & { pattern: Pattern }) {
  const half = (open: number) => (open === 0 ? 0 : Math.min(MOST, ONE + MORE * (open - 1)))
  const middle = HEIGHT / 2
  const points = pattern.in.flatMap(({ open }, at) =>
    [0.12, 0.88].map((part) => ({ x: (at + part) * MONTH, y: half(open) })),
  )
  const outline = [
    ...points.map(({ x, y }) => `${x},${middle - y}`),
    ...points.toReversed().map(({ x, y }) => `${x},${middle + y}`),
  ]
  return (
    <svg
      role="img"
      aria-label={said(pattern, months)}
      viewBox={`0 0 ${months.length * MONTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      className="h-10 w-full"
    >
      <TermBands months={months} terms={terms} />
      <polygon points={outline.join(' ')} className={colours[pattern.weight]} opacity={0.75} />
      {pattern.in.map(
        ({ new: fresh }, at) =>
          fresh > 0 && (
            <rect
              key={months[at]}
              x={(at + 0.5) * MONTH - 1.5}
              width={3}
              y={middle - Math.min(MOST + 3, 4 + 2 * fresh)}
              height={2 * Math.min(MOST + 3, 4 + 2 * fresh)}
              rx={1.5}
              className="fill-ink"
            />
          ),
      )}
      {pattern.mendedBy && (
        <line
          x1={placeOf(pattern.mendedBy, months)}
          x2={placeOf(pattern.mendedBy, months)}
          y1={0}
          y2={HEIGHT}
          className="stroke-pine"
          strokeWidth={2}
        />
      )}
    </svg>
  )
}

const said = (pattern: Pattern, months: readonly string[]) =>
  pattern.in
    .map(({ open, new: fresh }, at) =>
      open === 0 ? '' : `${monthYear(months[at]!)}: open in ${open}${fresh > 0 ? `, new in ${fresh}` : ''}`,
    )
    .filter(Boolean)
    .join('; ')

/** The head of the threads: months, years and terms. */
export function Months({ months, terms }: Years) {
  const every = months.length > 30 ? 6 : months.length > 14 ? 3 : 1
  return (
    <div className="relative h-11 overflow-hidden text-small text-soft">
      {terms.map((term) => {
        const from = Math.max(0, placeOf(term.start, months)) / (months.length * MONTH)
        return (
          placeOf(term.end, months) > 0 && (
            <b
              key={term.start}
              className="absolute top-0.5 whitespace-nowrap text-ink"
              style={from > NEAR_THE_END ? { right: 0 } : { left: `${from * 100}%` }}
            >
              {term.name}
            </b>
          )
        )
      })}
      {months.map(
        (month, at) =>
          at % every === 0 && (
            <span
              key={month}
              className="absolute bottom-0.5 whitespace-nowrap"
              style={{ left: `${(at / months.length) * 100}%` }}
            >
              {shortMonth(month)}
            </span>
          ),
      )}
    </div>
  )
}

const shortMonth = (date: string) =>
  new Date(`${date}T00:00:00Z`).toLocaleDateString('en-GB', {
    month: 'short',
    ...(date.slice(5, 7) === '01' ? { year: 'numeric' } : {}),
    timeZone: 'UTC',
  })
