import { useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { remediesQuery } from './data'
import { Link } from 'react-router'
import { Panel } from '../ui/Panel'
import { shortDay } from '../ui/words'

/** What would make the term fit: every way there is, each planned, the best first; looked at before it is taken. */
export function FitPanel({
  path,
  at,
  look,
  close,
}: {
  path: { termId: string; classId: string }
  at: string
  look: (option: Schema['RemedyOption']) => void
  close: () => void
}) {
  const options = useQuery(remediesQuery(path, at))
  const helpful = options.data?.filter(helps) ?? []
  const useless = options.data?.filter((option) => !helps(option)) ?? []
  return (
    <Panel
      title="What would make it fit"
      facts={options.data?.[0] && `${options.data[0].leftNow} min have no room now.`}
      close={close}
    >
      {!options.data && <Opening of={[options]} what="Planning each way" />}
      <ul className="grid gap-3">
        {helpful.map((option) => (
          <li key={option.id} className="border-b border-fine pb-2">
            <b>{option.says}</b>
            <br />
            {option.leftMinutes === 0 ? 'Everything has room' : `${option.leftMinutes} min still have no room`}
            {option.late !== option.lateNow && `; ${option.late} late, before ${option.lateNow}`}.
            <ul className="text-soft">
              {option.cohorts.map((cohort) => (
                <li key={cohort.cohortId}>
                  {cohort.name}:{' '}
                  {cohort.after.leftMinutes !== cohort.before.leftMinutes &&
                    `${cohort.after.leftMinutes} min left over, before ${cohort.before.leftMinutes}. `}
                  {cohort.after.finish !== cohort.before.finish &&
                    (cohort.after.finish ? `All met by ${shortDay(cohort.after.finish)}. ` : 'No longer all met. ')}
                  {cohort.after.lateUnits + cohort.after.lateReviews !==
                    cohort.before.lateUnits + cohort.before.lateReviews &&
                    `${cohort.after.lateUnits + cohort.after.lateReviews} late, before ${cohort.before.lateUnits + cohort.before.lateReviews}.`}
                </li>
              ))}
            </ul>
            <button type="button" className="button mt-1.5" onClick={() => look(option)}>
              Show the plan it leads to
            </button>
          </li>
        ))}
      </ul>
      {useless.length > 0 && (
        <section>
          <h3>Would not help</h3>
          <ul className="text-soft">
            {useless.map((option) => (
              <li key={option.id}>{option.says}</li>
            ))}
          </ul>
        </section>
      )}
      {options.data?.length === 0 && (
        <p>
          Neither halls nor staff nor the calendar have anything to give.{' '}
          <Link className="quiet-link" to="/people">
            Assign a shorter segment
          </Link>
        </p>
      )}
    </Panel>
  )
}

const helps = (option: Schema['RemedyOption']) =>
  option.leftMinutes < option.leftNow || (option.leftMinutes === option.leftNow && option.late < option.lateNow)
