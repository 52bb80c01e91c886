import { useState } from 'react'
import type { Schema } from '../../api/client'
import { useWays } from '../../shared/ways'
import { useKeys } from '../../ui/keys'
import { Ribbon } from '../../ui/Ribbon'
import { blockWords } from '../../ui/words'
import { clockAt, type ArrangedBlock } from '../arranging'
import { CountFigure } from './CountFigure'
import { useBreathBell, useChangeSignal, useWanted } from './device'
import { blockAfter, blockAt, nextOf, repetitions, timeLeft, visitIn, type Repetition } from './hall'

interface HallStageProps {
  sheet: Schema['LessonSheet']
  arrangement: Schema['ArrangementResponse']
  cohort: Schema['LessonCohortSheet']
  seconds: number
  minute: number
  paused: { from: number; who: string } | undefined
}

/** The block of one cohort, readable from across the hall: its counts one after the other, the time left, and what is next. */
export function HallStage({ sheet, arrangement, cohort, seconds, minute, paused }: HallStageProps) {
  const block = blockAt(arrangement, cohort.cohortId, minute)
  const [sound, setSound] = useWanted('sound')
  const [bell, setBell] = useWanted('breath bell')
  useChangeSignal(block ? `${block.kind} ${block.what} ${block.start}` : '', sound)
  const breathes = block?.kind === 'rest' || block?.kind === 'settle' || block?.kind === 'ownPractice'
  const countsPerBreath = useWays().ways?.countsPerBreath ?? 2
  useBreathBell(countsPerBreath * 4, bell && breathes)
  if (seconds < 0)
    return (
      <div className="grid flex-1 content-center gap-3">
        <h1 className="text-[3rem] leading-tight font-bold">Begins at {sheet.start.slice(0, 5)}</h1>
        <p className="text-[1.6rem] text-night-soft">
          in {timeLeft(-seconds)}. First comes {block?.what}.
        </p>
      </div>
    )
  if (!block) return <p className="flex-1 text-lead">Nothing is arranged for {cohort.name}.</p>
  const after = blockAfter(arrangement, cohort.cohortId, block)
  const left = Math.max(0, block.end * 60 - seconds)
  const teacherOf = (id: string | null) => arrangement.teachers.find((one) => one.id === id)
  const leader = teacherOf(block.ledBy)
  const visit = block.kind === 'ownPractice' ? visitIn(arrangement, block, minute) : undefined
  const hereNow = visit && visit.start <= minute ? teacherOf(visit.ledBy) : leader
  const theirNext = hereNow && nextOf(arrangement, hereNow.id, minute)
  const nextCohort = theirNext && arrangement.cohorts.find((one) => one.id === theirNext.cohortId)
  return (
    <>
      <p className="mt-4 flex flex-wrap items-center gap-x-3 text-lead text-night-soft">
        <Ribbon colour={cohort.colour} half={cohort.half} size={30} />
        <span>{block.cohortId === null ? 'Everybody' : cohort.name}</span>
        <span className="flex-1" />
        <span>
          {leader ? `${leader.name.split(' ')[0]} leads · ` : ''}
          {clockAt(sheet.start, block.start)} to {clockAt(sheet.start, block.end)}
        </span>
      </p>
      <Block key={`${block.task} ${block.kind} ${block.what}`} block={block} cohort={cohort} sheet={sheet} />
      {visit && (
        <p className="mt-3 text-[1.35rem]">
          {visit.start <= minute
            ? `${teacherOf(visit.ledBy)?.name.split(' ')[0]} is with you now.`
            : `${teacherOf(visit.ledBy)?.name.split(' ')[0]} comes by at ${clockAt(sheet.start, visit.start)}.`}
        </p>
      )}
      <span className="flex-1" />
      <div className="mt-4 flex flex-wrap items-center gap-x-6 gap-y-3">
        <Ring left={left} of={(block.end - block.start) * 60} paused={paused !== undefined} />
        <div className="min-w-0 flex-1">
          {paused && <p className="text-[1.35rem] font-bold text-dew">Paused by {paused.who}</p>}
          {theirNext && nextCohort && nextCohort.id !== cohort.cohortId && (
            <p className="text-lead text-night-soft">
              {hereNow.name.split(' ')[0]} goes on to {nextCohort.name} at {clockAt(sheet.start, theirNext.start)}
            </p>
          )}
          <p className="text-[1.35rem]">
            <b>then</b>{' '}
            {after ? (
              <>
                {blockWords[after.kind].toLowerCase()}
                {after.what && `: ${after.what}`}
              </>
            ) : (
              'the lesson is over'
            )}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <Toggle on={sound} set={setSound} says="Sound" />
          {breathes && <Toggle on={bell} set={setBell} says="Breath bell" />}
        </div>
      </div>
    </>
  )
}

const Toggle = ({ on, set, says }: { on: boolean; set: (on: boolean) => void; says: string }) => (
  <button type="button" aria-pressed={on} className="night-button" onClick={() => set(!on)}>
    {says}: {on ? 'on' : 'off'}
  </button>
)

/** What is said and done, a count at a time. */
function Block({
  block,
  cohort,
  sheet,
}: {
  block: ArrangedBlock
  cohort: Schema['LessonCohortSheet']
  sheet: Schema['LessonSheet']
}) {
  const [said, setSaid] = useState({ repetition: 0, count: 0 })
  const { ways } = useWays()
  const [of] = block.material
  const material =
    block.material.length === 1
      ? cohort.material.find((one) => one.postureId === of!.postureId && one.side === of!.side)
      : undefined
  const counts = material?.cues.length ?? 0
  const passes: Repetition[] = block.kind === 'new' ? repetitions(cohort.passes) : [{ name: 'together', at: 1, of: 1 }]
  const now = passes[said.repetition] ?? passes.at(-1)!
  const step = (by: 1 | -1) =>
    setSaid(({ repetition, count }) => {
      const to = count + by
      if (to < 0) return repetition > 0 ? { repetition: repetition - 1, count: counts - 1 } : { repetition, count: 0 }
      if (to < counts) return { repetition, count: to }
      return { repetition: Math.min(repetition + 1, passes.length - 1), count: 0 }
    })
  useKeys((event) => {
    if (counts === 0 || !['ArrowRight', 'ArrowDown', ' ', 'ArrowLeft', 'ArrowUp'].includes(event.key)) return false
    step(event.key === 'ArrowLeft' || event.key === 'ArrowUp' ? -1 : 1)
    return true
  })
  const facing = ways?.demonstration === 'facingMirrored'
  if (!material)
    return (
      <>
        <h1 className="mt-1 text-[3.1rem] leading-tight font-bold max-md:text-[2.2rem]">
          {block.cohortId === null || block.kind !== 'ownPractice'
            ? block.what || blockWords[block.kind]
            : 'Own practice'}
        </h1>
        {block.kind === 'ownPractice' && <p className="mt-2 text-[1.8rem] max-md:text-[1.4rem]">{block.what}</p>}
        {block.kind === 'ownPractice' && sheet.stepsToTurn > 0 && !cohort.attended && (
          <p className="mt-2 text-[1.35rem] text-night-soft">Stepping: turn round after {sheet.stepsToTurn} steps.</p>
        )}
        {block.kind !== 'ownPractice' && (
          <ul className="mt-3 grid gap-1 text-[1.35rem]">
            {block.material.slice(-4).flatMap((one) => {
              const its = cohort.material.find((other) => other.postureId === one.postureId && other.side === one.side)
              return its ? (
                <li key={its.postureId + its.side}>
                  {its.name} <span className="text-blush">{its.keyPoint}</span>
                </li>
              ) : (
                []
              )
            })}
          </ul>
        )}
        <ForThem cohort={cohort} block={block} />
      </>
    )
  return (
    <>
      <h1 className="mt-1 text-[3.1rem] leading-tight font-bold max-md:text-[2.2rem]">{material.name}</h1>
      <p className="mt-2 border-l-4 border-lacquer pl-4 text-[1.5rem] text-blush max-md:text-[1.25rem]">
        {material.keyPoint}
      </p>
      <div className="mt-5 flex items-start gap-6">
        <ol className="grid min-w-0 flex-1 gap-2.5">
          {material.cues.map((cue, at) => (
            <li key={at}>
              <button
                type="button"
                aria-current={at === said.count ? 'step' : undefined}
                className={`grid w-full grid-cols-[2.4rem_1fr] items-baseline text-left text-[1.75rem] leading-snug max-md:text-[1.35rem] ${at === said.count ? 'font-bold text-white' : 'text-night-soft'}`}
                onClick={() => setSaid({ ...said, count: at })}
              >
                <span className={`font-serif font-bold ${at === said.count ? 'text-dew' : ''}`}>{at + 1}</span>
                {cue}
              </button>
            </li>
          ))}
        </ol>
        <CountFigure
          postureId={material.postureId}
          side={material.side}
          mode={cohort.mode}
          count={said.count + 1}
          sash={cohort.colour}
          mirrored={facing}
          label={`${material.name}, count ${said.count + 1}`}
        />
      </div>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <p aria-live="polite" className="flex-1 text-lead text-night-soft">
          {now.name}, {now.at} of {now.of}
          {passes[said.repetition + 1] && passes[said.repetition + 1]!.name !== now.name && (
            <>
              ; then {passes[said.repetition + 1]!.name} {passes[said.repetition + 1]!.of}
            </>
          )}
          {facing && <b className="text-dew"> · facing them: say left, do right</b>}
        </p>
        <button type="button" className="night-button" onClick={() => step(-1)}>
          Back
        </button>
        <button type="button" className="night-primary" onClick={() => step(1)}>
          Next
        </button>
      </div>
      <ForThem cohort={cohort} block={block} />
    </>
  )
}

/** What these people need while they do it. */
function ForThem({ cohort, block }: { cohort: Schema['LessonCohortSheet']; block: ArrangedBlock }) {
  const material = block.material.flatMap(
    (of) => cohort.material.find((one) => one.postureId === of.postureId && one.side === of.side)?.cautions ?? [],
  )
  const cautions = [...new Set([...material, ...(cohort.attended ? cohort.cautions : [])])].slice(0, 2)
  if (cautions.length === 0 || block.cohortId === null) return null
  return (
    <ul className="mt-3 grid gap-1 border-l-4 border-ochre-mark pl-4 text-lead">
      {cautions.map((caution) => (
        <li key={caution}>{caution}</li>
      ))}
    </ul>
  )
}

const AROUND = 2 * Math.PI * 44

function Ring({ left, of, paused }: { left: number; of: number; paused: boolean }) {
  return (
    <svg
      viewBox="0 0 104 104"
      className="h-32 w-32 shrink-0 max-md:h-24 max-md:w-24"
      role="timer"
      aria-label={`${timeLeft(left)} left`}
    >
      <circle cx="52" cy="52" r="44" fill="none" className="stroke-night-line" strokeWidth="8" />
      <circle
        cx="52"
        cy="52"
        r="44"
        fill="none"
        className={paused ? 'stroke-night-soft' : 'stroke-dew'}
        strokeWidth="8"
        strokeLinecap="round"
        strokeDasharray={`${(AROUND * Math.min(1, left / Math.max(1, of))).toFixed(1)} ${AROUND}`}
        transform="rotate(-90 52 52)"
      />
      <text x="52" y="61" textAnchor="middle" className="fill-white text-[1.65rem] font-bold">
        {timeLeft(left)}
      </text>
    </svg>
  )
}
