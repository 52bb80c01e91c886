import type { Schema } from '../api/client'
import { eyesWords } from './eyes'

type Row = Schema['ProgressRow']

/** Whom the teachers look at less than their share: in less than half of the lessons of six weeks in which they were there. */
export function FairEyes({ rows, choose }: { rows: readonly Row[]; choose: (row: Row) => void }) {
  const less = rows
    .filter(({ eyes }) => !eyes.isFair)
    .toSorted((a, b) => a.eyes.seen / a.eyes.here - b.eyes.seen / b.eyes.here || b.eyes.here - a.eyes.here)
  if (rows.every(({ eyes }) => eyes.here === 0)) return null
  return (
    <section>
      <h3>Everybody’s share of eyes, six weeks</h3>
      {less.length === 0 ? (
        <p>Everybody who was here was watched in half of their lessons at least.</p>
      ) : (
        <>
          <p className="text-soft">Watched in less than half of the lessons they were here:</p>
          <ul>
            {less.map((row) => (
              <li key={row.studentId}>
                <button
                  type="button"
                  className="flex w-full items-center justify-between gap-3 py-0.5 text-left hover:bg-pine-tint"
                  title={eyesWords(row.eyes)}
                  onClick={() => choose(row)}
                >
                  <span>{row.name}</span>
                  <Lessons seen={row.eyes.seen} here={row.eyes.here} />
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

/** A lesson each: full where somebody watched. */
const Lessons = ({ seen, here }: { seen: number; here: number }) => (
  <span className="flex items-center gap-2 text-soft">
    <svg viewBox={`0 0 ${here * 12} 10`} style={{ width: here * 12, height: 10 }} aria-hidden>
      {Array.from({ length: here }, (_, at) => (
        <circle
          key={at}
          cx={at * 12 + 6}
          cy={5}
          r={4}
          strokeWidth={1.5}
          className={at < seen ? 'fill-pine stroke-pine' : 'fill-paper stroke-ochre-mark'}
        />
      ))}
    </svg>
    {seen} of {here}
  </span>
)
