import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useParams } from 'react-router'
import type { Schema } from '../../api/client'
import { Opening } from '../../shared/Opening'
import { useSearch } from '../../shared/search'
import { useSignedIn } from '../../shared/session'
import { UndoRoom } from '../../shared/undo'
import { Empty } from '../../ui/states'
import { useMedia } from '../../ui/use-media'
import { lessonQuery } from '../data'
import { useAwake } from './device'
import { cohortOf, useLessonSeconds } from './hall'
import { HallControls } from './HallControls'
import { HallEnd } from './HallEnd'
import { HallHead } from './HallHead'
import { HallStage } from './HallStage'
import { HallWall } from './HallWall'
import { HallWatch } from './HallWatch'
import { fromNow, pausedIn, useHappenings } from './happening'

type Part = 'now' | 'watch' | 'all' | 'end'

const parts: readonly (readonly [Part, string])[] = [
  ['now', 'Now'],
  ['watch', 'Watch'],
  ['all', 'All cohorts'],
  ['end', 'The end'],
]

/** So far before and after its minutes a lesson is held; at any other time it can be looked through. In seconds. */
const BEFORE = 30 * 60
const AFTER = 60 * 60

/** A lesson while it is held: what my cohort does now, count by count, and whom to watch beside it. */
export function HallScreen() {
  const { classId, date } = useParams() as { classId: string; date: string }
  const lesson = useQuery(lessonQuery({ classId, date }))
  const { query, shown, entries, happen } = useHappenings({ classId, date })
  useAwake()
  if (!lesson.data || (lesson.data.planned && !shown))
    return (
      <Night>
        <Opening of={[lesson, query]} what="Opening the hall" />
      </Night>
    )
  if (!shown)
    return (
      <Empty next={[{ name: 'Open the lesson', to: `/lessons/${classId}/${date}` }]}>
        This lesson is not planned: there is nothing to lead through.
      </Empty>
    )
  return (
    <UndoRoom>
      <Hall sheet={lesson.data} arrangement={shown} happen={happen} waiting={entries} />
    </UndoRoom>
  )
}

const Night = ({ children }: { children: React.ReactNode }) => (
  <div className="night grid min-h-dvh place-items-center">{children}</div>
)

function Hall({
  sheet,
  arrangement,
  happen,
  waiting,
}: {
  sheet: Schema['LessonSheet']
  arrangement: Schema['ArrangementResponse']
  happen: ReturnType<typeof useHappenings>['happen']
  waiting: ReturnType<typeof useHappenings>['entries']
}) {
  const { person } = useSignedIn()
  const [search, go] = useSearch()
  const passing = useLessonSeconds(sheet.date, sheet.start)
  const wide = useMedia('(min-width: 768px)')
  const [from, setFrom] = useState(() => ({ seconds: passing }))
  const look = search.get('minute')
  const isHeld = look === null && passing >= -BEFORE && passing < arrangement.minutes * 60 + AFTER
  const paused = pausedIn(arrangement.edits)
  // Looked through, it goes on from where somebody went in.
  const lookedAt = Number(look ?? 0) * 60 + Math.max(0, passing - from.seconds)
  const going = isHeld ? passing : lookedAt
  const seconds = isHeld && paused ? Math.min(going, paused.from * 60) : going
  const minute = Math.min(arrangement.minutes - 1, Math.max(0, Math.floor(seconds / 60)))
  const mine = cohortOf(arrangement, person.id, minute)
  const cohortId = search.get('cohort') ?? mine ?? arrangement.cohorts[0]?.id
  const part = (search.get('part') ?? 'now') as Part
  const lanes = arrangement.cohorts.flatMap(({ id }) => sheet.cohorts.find((one) => one.cohortId === id) ?? [])
  const swipe = useSwipe((by) => {
    const at = lanes.findIndex((one) => one.cohortId === cohortId)
    go({ cohort: lanes[(at + by + lanes.length) % lanes.length]?.cohortId ?? null })
  })
  const cohort = lanes.find((one) => one.cohortId === cohortId)
  const lookAgain = (minutes: number) => {
    setFrom({ seconds: passing })
    go({ minute: String(Math.min(arrangement.minutes - 1, Math.max(0, minute + minutes))) })
  }
  const showsWatch = wide || part === 'watch'
  return (
    <div
      className={`grid min-h-dvh ${wide && part !== 'all' ? 'grid-cols-[minmax(0,1fr)_300px] lg:grid-cols-[minmax(0,1fr)_350px] xl:grid-cols-[minmax(0,1fr)_390px]' : ''}`}
    >
      {(wide ? part !== 'end' : part === 'now' || part === 'all') && (
        <section
          aria-label="The lesson now"
          className="night flex h-dvh flex-col overflow-hidden md:sticky md:top-0 px-9 pt-4 pb-2 max-lg:px-6 max-md:px-4 max-md:h-[calc(100dvh-4rem)]"
          {...swipe}
        >
          <HallHead
            sheet={sheet}
            lanes={lanes}
            cohortId={cohortId}
            choose={(id) => go({ cohort: id === mine ? null : id })}
            minute={minute}
            minutes={arrangement.minutes}
            lookAgain={isHeld ? undefined : lookAgain}
          />
          {part === 'all' ? (
            <HallWall
              arrangement={arrangement}
              lanes={lanes}
              start={sheet.start}
              seconds={Math.max(0, seconds)}
              choose={(id) => go({ cohort: id, part: null })}
            />
          ) : (
            cohort && (
              <HallStage
                key={cohort.cohortId}
                sheet={sheet}
                arrangement={arrangement}
                cohort={cohort}
                seconds={seconds}
                minute={minute}
                paused={isHeld ? paused : undefined}
              />
            )
          )}
          <HallControls
            sheet={sheet}
            arrangement={arrangement}
            cohortId={cohortId}
            minute={minute}
            isHeld={isHeld}
            paused={paused}
            passing={passing}
            happen={happen}
            waiting={waiting}
            end={() => go({ part: 'end' })}
          >
            {wide && <Places part={part} go={(to) => go({ part: to === 'now' ? null : to })} className="ml-auto" />}
          </HallControls>
        </section>
      )}
      {wide && part === 'end' && (
        <section className="flex flex-col bg-plaster">
          <HallEnd sheet={sheet} arrangement={arrangement} leave={() => go({ part: null })} />
        </section>
      )}
      {showsWatch && part !== 'all' && cohort && (
        <HallWatch
          key={cohort.cohortId}
          {...{ sheet, cohort, arrangement, minute }}
          join={(edit, says) => happen(isHeld ? fromNow(arrangement, minute, edit) : [edit], says)}
        />
      )}
      {!wide && part === 'end' && <HallEnd sheet={sheet} arrangement={arrangement} leave={() => go({ part: null })} />}
      {!wide && (
        <Places
          part={part}
          go={(to) => go({ part: to === 'now' ? null : to })}
          className="night sticky bottom-0 z-30 border-t border-night-line pb-[env(safe-area-inset-bottom)]"
        />
      )}
    </div>
  )
}

function Places({ part, go, className }: { part: Part; go: (to: Part) => void; className: string }) {
  const wide = useMedia('(min-width: 768px)')
  return (
    <nav aria-label="In the hall" className={`flex ${className}`}>
      {parts
        .filter(([name]) => !(wide && name === 'watch'))
        .map(([name, says]) => (
          <button
            key={name}
            type="button"
            aria-current={part === name ? 'page' : undefined}
            className={`min-h-14 flex-1 font-semibold ${part === name ? 'text-dew' : 'text-night-soft'} lg:min-h-11 lg:flex-none lg:px-4`}
            onClick={() => go(name)}
          >
            {says}
          </button>
        ))}
    </nav>
  )
}

/** A finger drawn across goes to the next cohort, or back to the one before. */
function useSwipe(turn: (by: 1 | -1) => void) {
  const began = useRef<{ x: number; y: number }>(undefined)
  return {
    onTouchStart: ({ touches }: React.TouchEvent) => {
      const touch = touches[0]
      began.current = touches.length === 1 && touch ? { x: touch.clientX, y: touch.clientY } : undefined
    },
    onTouchEnd: ({ changedTouches }: React.TouchEvent) => {
      const touch = changedTouches[0]
      if (!began.current || !touch) return
      const [x, y] = [touch.clientX - began.current.x, touch.clientY - began.current.y]
      if (Math.abs(x) > 70 && Math.abs(x) > 2 * Math.abs(y)) turn(x < 0 ? 1 : -1)
    },
  }
}
