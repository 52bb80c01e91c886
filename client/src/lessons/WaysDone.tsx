import type { Schema } from '../api/client'
import { wayWords, weightWords } from '../ui/words'

/** Says that something was done about a correction, or that it was not, and for which cause. */
export type TryWay = (
  correction: Schema['RegisterOpenCorrection'],
  way: Schema['Way'],
  done: boolean,
  cause: string,
) => void

const ways = Object.entries(wayWords) as [Schema['Way'], string][]

/** What is open, and what the teacher did about it tonight: a tap each, and the same tap takes it back. */
export function WaysDone({ correction, tryWay }: { correction: Schema['RegisterOpenCorrection']; tryWay: TryWay }) {
  return (
    <section className="grid gap-2 border-l-4 border-lacquer pl-3">
      <p>
        <b>
          {weightWords[correction.weight]}
          {correction.stuck && ', stuck'}
        </b>
        : {correction.words}
      </p>
      <div role="group" aria-label={`What you did about it: ${correction.words}`} className="flex flex-wrap gap-1.5">
        {ways.map(([way, word]) => {
          const done = correction.triedToday.filter((tried) => tried.way === way)
          return (
            <button
              key={way}
              type="button"
              aria-pressed={done.length > 0}
              className={`button ${done.length > 0 ? 'border-pine! bg-pine-tint!' : ''}`}
              onClick={() =>
                done.length > 0
                  ? done.forEach(({ cause }) => tryWay(correction, way, false, cause))
                  : tryWay(correction, way, true, '')
              }
            >
              {word}
            </button>
          )
        })}
      </div>
    </section>
  )
}
