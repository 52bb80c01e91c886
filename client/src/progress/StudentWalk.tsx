import type { Schema } from '../api/client'
import { dayMonth, shortDay, stageWords } from '../ui/words'

type Standing = Schema['ProgressStandingResponse']

interface StudentWalkProps {
  standings: Standing[]
  today: string
  /** Shows one posture by itself. */
  choose: (standing: Standing) => void
}

const ROW = 18
const [NAMES, WIDTH] = [124, 300]

/** How thick a stage is drawn. */
const thickness: Record<Schema['Stage'], number> = {
  notMet: 0,
  shown: 1.5,
  follows: 3,
  alone: 6,
  flowing: 9,
  settled: 9,
}

const dayNumber = (date: string) => Date.parse(date) / 86_400_000

/** One student through time: each posture from the day they met it, thicker as they can do more of it; below it in red what was to be corrected. */
export function StudentWalk({ standings, today, choose }: StudentWalkProps) {
  const met = standings
    .filter(({ walk, from }) => walk.met !== null && from === null)
    .toSorted((a, b) => a.walk.met!.localeCompare(b.walk.met!))
  if (met.length === 0) return null
  const [first, last] = [dayNumber(met[0]!.walk.met!), dayNumber(today)]
  const x = (date: string) => NAMES + ((dayNumber(date) - first) / Math.max(1, last - first)) * (WIDTH - NAMES - 4)
  const back = met.filter(({ walk }) => walk.cameBack > 0).length
  return (
    <section>
      <h3>Through time</h3>
      <p className="text-soft">
        {dayMonth(met[0]!.walk.met!)} {met[0]!.walk.met!.slice(0, 4)} to now, thicker from shown to settled; red while
        something was open{back > 0 ? `, which came back in ${back}` : ''}.
      </p>
      <ul className="mt-1">
        {met.map((standing) => (
          <li key={standing.postureId + standing.side}>
            <button
              type="button"
              className="block w-full hover:bg-pine-tint"
              aria-label={said(standing)}
              title={said(standing)}
              onClick={() => choose(standing)}
            >
              <svg viewBox={`0 0 ${WIDTH} ${ROW}`} className="block w-full" aria-hidden>
                <text x={0} y={13} className="fill-ink text-[11px]">
                  {standing.name.length > 21 ? `${standing.name.slice(0, 20)}…` : standing.name}
                </text>
                <Line walk={standing.walk} today={today} x={x} />
              </svg>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

function Line({ walk, today, x }: { walk: Schema['Walk']; today: string; x: (date: string) => number }) {
  return (
    <>
      {walk.reached.map(({ on, stage }, at) => {
        const to = walk.reached[at + 1]?.on ?? today
        return (
          <rect
            key={on}
            x={x(on)}
            width={Math.max(1, x(to) - x(on))}
            y={ROW / 2 - 1 - thickness[stage] / 2}
            height={thickness[stage]}
            className="fill-pine"
          />
        )
      })}
      {walk.open.map(({ opened, cleared }, at) => (
        <rect
          key={`${opened} ${at}`}
          x={x(opened)}
          width={Math.max(2, x(cleared ?? today) - x(opened))}
          y={ROW - 3.5}
          height={2}
          className="fill-lacquer"
        />
      ))}
    </>
  )
}

/** "Push, right: shown 3 Nov, alone 17 Nov; corrected from 10 Nov". */
const said = ({ name, walk }: Standing) =>
  [
    `${name}: ${walk.reached.map(({ on, stage }) => `${stageWords[stage]} ${shortDay(on)}`).join(', ')}`,
    ...walk.open.map(
      ({ opened, cleared }) => `corrected from ${shortDay(opened)}${cleared ? ` to ${shortDay(cleared)}` : ''}`,
    ),
  ].join('; ')
