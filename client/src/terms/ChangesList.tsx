import type { Schema } from '../api/client'
import { shortDay } from '../ui/words'
import { changeWords } from './DraftBar'

/** What a draft changes against the announced plan: what moves and why, what each cohort gains or loses; a cohort can be kept out of it. */
export function ChangesList({
  changes,
  against,
  keep,
  busy,
}: {
  changes: Schema['PlanChange'][]
  against: string
  keep?: (cohortId: string) => void
  busy: boolean
}) {
  if (changes.length === 0) return null
  return (
    <section id="changes" className="px-5 py-5">
      <h2 className="text-lg">What changes</h2>
      <p className="text-soft">
        {changeWords(changes)} against {against}.
      </p>
      <div className="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-2">
        {changes.map((change) => (
          <section
            key={change.cohortId}
            aria-label={`What changes for ${change.name}`}
            className="border-t border-line pt-2"
          >
            <h3 className="flex items-baseline justify-between gap-3 text-base">
              {change.name}
              {keep && change.moves.length > 0 && (
                <button
                  type="button"
                  className="quiet-link font-sans text-small"
                  disabled={busy}
                  onClick={() => keep(change.cohortId)}
                >
                  Keep {change.name} as announced
                </button>
              )}
            </h3>
            <p className="text-soft">{gains(change).join(' · ') || 'It gains and loses nothing.'}</p>
            <ul className="mt-1 grid gap-1.5">
              {change.moves.map((move) => (
                <li key={move.name + move.from + move.to}>
                  <b>{move.name}</b>{' '}
                  {move.from && move.to
                    ? `from ${shortDay(move.from)} to ${shortDay(move.to)}`
                    : move.to
                      ? `is new on ${shortDay(move.to)}`
                      : `leaves ${shortDay(move.from!)}`}
                  . <span className="text-soft">{move.because}</span>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </section>
  )
}

/** In words what a cohort has more or less of. */
function gains({ before, after, reviewsMoved }: Schema['PlanChange']): string[] {
  const said: string[] = []
  if (before.leftMinutes !== after.leftMinutes)
    said.push(
      after.leftMinutes > before.leftMinutes
        ? `${round(after.leftMinutes - before.leftMinutes)} min more do not fit`
        : `${round(before.leftMinutes - after.leftMinutes)} min more fit`,
    )
  if (before.finish !== after.finish)
    said.push(
      after.finish
        ? `all met by ${shortDay(after.finish)}${before.finish ? ` instead of ${shortDay(before.finish)}` : ''}`
        : 'no longer all met this term',
    )
  if (before.lateUnits !== after.lateUnits)
    said.push(`${after.lateUnits} past their target, before ${before.lateUnits}`)
  if (before.lateReviews !== after.lateReviews)
    said.push(`${after.lateReviews} reviews late, before ${before.lateReviews}`)
  if (reviewsMoved > 0)
    said.push(reviewsMoved === 1 ? '1 review in another lesson' : `${reviewsMoved} reviews in other lessons`)
  return said
}

const round = (minutes: number) => Math.round(minutes * 10) / 10
