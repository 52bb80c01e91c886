import { daysBetween } from '../ui/dates'
import { shortDay } from '../ui/words'
import { aboutWhen, isReady, type Lack, type Next } from './next-sash'

const [WIDTH, HEIGHT, LINE] = [320, 30, 14]
const [LEFT, RIGHT] = [6, 30]

interface Ahead {
  today: string
  /** The last day there is room for. */
  until: string
  /** Days on which there is a test. */
  tests: readonly string[]
}

const placeOf = (date: string, { today, until }: Ahead) =>
  LEFT + Math.min(1, daysBetween(today, date) / Math.max(1, daysBetween(today, until))) * (WIDTH - LEFT - RIGHT)

/** The first of every month ahead. */
function monthsOf({ today, until }: Ahead) {
  const first = new Date(`${today.slice(0, 7)}-01T00:00:00Z`)
  return Array.from({ length: 12 }, (_, at) =>
    new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1 + at)).toISOString().slice(0, 10),
  ).filter((day) => day <= until)
}

/** The months ahead, and the tests. */
export function DaysAhead({ ahead }: { ahead: Ahead }) {
  return (
    <svg viewBox={`0 0 ${WIDTH} 32`} className="block w-full max-w-[320px]" aria-hidden>
      {monthsOf(ahead).map((day) => (
        <text key={day} x={placeOf(day, ahead)} y={28} textAnchor="middle" className="fill-soft text-[11px]">
          {shortDay(day).replace(/\d+/, '').trim()}
        </text>
      ))}
      {ahead.tests.map((day) => (
        <text key={day} x={placeOf(day, ahead)} y={12} textAnchor="middle" className="fill-ink text-[11px] font-bold">
          test {shortDay(day)}
        </text>
      ))}
    </svg>
  )
}

const drawn = {
  time: 'fill-paper stroke-ink',
  clean: 'fill-lacquer stroke-lacquer',
  seen: 'fill-pine stroke-pine',
}

const kindOf = ({ kind }: Lack) =>
  kind === 'weeks' || kind === 'lessons' ? 'time' : kind === 'correction' ? 'clean' : 'seen'

/** From today to the next sash: when each thing that is missing will likely be there, and the tests on the way. */
export function WayToSash({ next, ahead }: { next: Next; ahead: Ahead }) {
  const { today, until } = ahead
  const x = (date: string) => placeOf(date, ahead)
  const dated = next.missing.filter(({ likely }) => likely !== null)
  const end = isReady(next) ? today : next.likely
  const last =
    dated
      .map(({ likely }) => likely!)
      .toSorted()
      .at(-1) ?? today
  const open = !end || end > until
  const sash = open ? WIDTH - RIGHT + 8 : x(end) + 8
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full max-w-[320px]"
      role="img"
      aria-label={isReady(next) ? 'Ready now' : end ? `Likely by ${aboutWhen(end, today)}` : 'No date yet'}
    >
      {monthsOf(ahead).map((day) => (
        <line key={day} x1={x(day)} x2={x(day)} y1={LINE - 3} y2={LINE + 3} className="stroke-line" />
      ))}
      {ahead.tests.map((day) => (
        <line key={day} x1={x(day)} x2={x(day)} y1={0} y2={HEIGHT} className="stroke-ink" strokeDasharray="3 3" />
      ))}
      <line x1={x(today)} x2={x(last)} y1={LINE} y2={LINE} className="stroke-pine" strokeWidth={2.5} />
      {open && (
        <line
          x1={x(last)}
          x2={sash}
          y1={LINE}
          y2={LINE}
          className="stroke-soft"
          strokeWidth={1.5}
          strokeDasharray="2 4"
        />
      )}
      {(['seen', 'clean', 'time'] as const).flatMap((kind) =>
        [...new Set(dated.filter((lack) => kindOf(lack) === kind).map(({ likely }) => likely!))]
          .filter((day) => day <= until)
          .map((day) => (
            <rect
              key={kind + day}
              x={x(day) - 3.5}
              y={LINE - 3.5 + (kind === 'clean' ? 9 : 0)}
              width={7}
              height={7}
              rx={kind === 'time' ? 0 : 3.5}
              className={drawn[kind]}
              strokeWidth={1.5}
            />
          )),
      )}
      <path
        d={`M${sash} ${LINE - 6}h16v12h-16z`}
        fill={next.colour}
        className={end ? 'stroke-ink' : 'stroke-soft'}
        strokeDasharray={end ? undefined : '2 2'}
      />
    </svg>
  )
}
