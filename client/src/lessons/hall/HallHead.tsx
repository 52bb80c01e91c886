import { Link } from 'react-router'
import type { Schema } from '../../api/client'
import { Ribbon } from '../../ui/Ribbon'
import { longDate } from '../../ui/words'
import { clockAt } from '../arranging'

interface HallHeadProps {
  sheet: Schema['LessonSheet']
  lanes: Schema['LessonCohortSheet'][]
  cohortId: string | undefined
  choose: (cohortId: string) => void
  minute: number
  minutes: number
  /** So many minutes on, or back; undefined while the lesson is held, which goes on by itself. */
  lookAgain: ((minutes: number) => void) | undefined
}

/** Whose block is shown, and what time it is. */
export function HallHead({ sheet, lanes, cohortId, choose, minute, minutes, lookAgain }: HallHeadProps) {
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <nav aria-label="Cohorts" className="flex flex-1 gap-1.5 overflow-x-auto max-lg:basis-full">
          {lanes.map((one) => (
            <button
              key={one.cohortId}
              type="button"
              aria-pressed={one.cohortId === cohortId}
              aria-label={one.name}
              className="night-chip"
              onClick={() => choose(one.cohortId)}
            >
              <Ribbon colour={one.colour} half={one.half} size={26} />
              {one.cohortId === cohortId && <span className="max-lg:hidden">{one.name}</span>}
            </button>
          ))}
        </nav>
        <span className="text-night-soft">
          {!lookAgain ? (
            <>
              {clockAt(sheet.start, minute)} · minute {minute}
            </>
          ) : (
            <>
              minute {minute} of {minutes}
            </>
          )}
        </span>
        <Link to={`/lessons/${sheet.classId}/${sheet.date}`} className="night-link">
          Leave the hall
        </Link>
      </header>
      {lookAgain && (
        <p role="status" className="mt-3 flex flex-wrap items-center gap-3 border-l-4 border-dew pl-3 text-night-soft">
          Looking through {longDate(sheet.date)}.
          <button type="button" className="night-button" onClick={() => lookAgain(-5)}>
            5 min back
          </button>
          <button type="button" className="night-button" onClick={() => lookAgain(5)}>
            5 min on
          </button>
        </p>
      )}
    </>
  )
}
