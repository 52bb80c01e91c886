import type { Schema } from '../api/client'
import { Ribbon } from '../ui/Ribbon'
import { Tooltip } from '../ui/Tooltip'
import { counted, people, shortDay } from '../ui/words'

/** In minutes of what is new; where only reviews have no room, as so many things. */
const doesNotFit = ({ leftMinutes, leftOver }: Schema['PlanRow']) =>
  leftMinutes > 0
    ? `${leftMinutes} min do not fit`
    : leftOver.length === 1
      ? '1 thing does not fit'
      : leftOver.length > 1 && `${leftOver.length} things do not fit`

/** Whose row it is, and whether all of it is met. */
export function RowHead({ row }: { row: Schema['PlanRow'] }) {
  const left = doesNotFit(row)
  return (
    <div className="flex h-full items-center gap-x-2.5 px-3 py-2 max-md:flex-col max-md:items-start max-md:justify-center max-md:px-2">
      <Ribbon colour={row.colour} half={row.half} size={30} />
      <div className="leading-snug">
        <span className="font-serif text-lead font-bold">{row.name}</span>
        <br />
        <span className="text-small text-soft">
          {people(row.people)}
          {row.mode !== 'standing' && ` · ${row.mode}`}
        </span>
        <br />
        <span className="text-small text-soft">
          {!row.assigned ? (
            'nothing assigned'
          ) : row.forecast ? (
            <span>
              <Tooltip
                says={`Planned: ${row.finish ? `all met by ${shortDay(row.finish)}` : 'not all met'}. Played through a thousand times with this cohort’s attendance: half of them are done by ${shortDay(row.forecast.likely)}, four of five by ${shortDay(row.forecast.cautious)}. The cautious date is the one to promise.`}
              >
                <button type="button" className="text-left">
                  likely done <b className="text-ink">{shortDay(row.forecast.likely)}</b>
                  {row.forecast.cautious !== row.forecast.likely && (
                    <span className="block">cautious {shortDay(row.forecast.cautious)}</span>
                  )}
                </button>
              </Tooltip>
              {left && (
                <>
                  <br />
                  <b className="text-ochre">{left}</b>
                </>
              )}
            </span>
          ) : row.finish ? (
            <>
              all met by <b className="text-ink">{shortDay(row.finish)}</b>
            </>
          ) : left ? (
            <b className="text-ochre">{left}</b>
          ) : (
            'all known already'
          )}
        </span>
        {row.keeps && <Keeps keeps={row.keeps} />}
      </div>
    </div>
  )
}

/** What the cohort is not to lose, and whether the plan sees to it. */
function Keeps({ keeps }: { keeps: Schema['PlanKeeps'] }) {
  const how =
    keeps.lessons === 0
      ? 'what is planned anyway touches each of them'
      : `${counted(keeps.lessons, 'lesson')} refresh them, or run through them`
  return (
    <Tooltip
      says={
        keeps.fading.length === 0
          ? `Not to be lost: ${how} before it fades.`
          : `Not to be lost: ${how}, but ${keeps.fading.join('; ')} ${keeps.fading.length === 1 ? 'has faded' : 'have faded'} before that.`
      }
    >
      <button type="button" className="block text-left text-small text-soft">
        keeps {keeps.postures}
        {keeps.fading.length > 0 && <b className="text-ochre">, {keeps.fading.length} fading</b>}
      </button>
    </Tooltip>
  )
}

/** How much of the teachers’ time a lesson uses. */
export function Minutes({ lesson, whole }: { lesson: Schema['PlanColumn']; whole: boolean }) {
  if (lesson.ledMinutes === null || lesson.teacherMinutes === null) return null
  const share = lesson.teacherMinutes === 0 ? 0 : lesson.ledMinutes / lesson.teacherMinutes
  const full = share > 0.9
  return (
    <>
      <span className="block h-2 overflow-hidden rounded bg-fine" aria-hidden>
        <span
          className={`block h-full ${full ? 'bg-ochre-mark' : 'bg-pine'}`}
          style={{ width: `${Math.min(100, share * 100)}%` }}
        />
      </span>
      <span className={`text-small whitespace-nowrap ${full ? 'font-bold text-ochre' : 'text-soft'}`}>
        {Math.round(lesson.ledMinutes)}
        {!whole && ` of ${lesson.teacherMinutes}`}
      </span>
    </>
  )
}
