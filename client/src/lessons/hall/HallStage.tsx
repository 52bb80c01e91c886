import { useState } from 'react'
import type { Schema } from '../../api/client'
import { useSignedIn } from '../../shared/session'
import { useWays } from '../../shared/ways'
import { useKeys } from '../../ui/keys'
import { blockWords, together } from '../../ui/words'
import { clockAt, type ArrangedBlock } from '../arranging'
import { CountFigure } from './CountFigure'
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
  if (seconds < 0)
    return (
      <div className="grid flex-1 content-center gap-3">
        <h1 className="text-[3rem] leading-tight font-bold">Begins at {sheet.start.slice(0, 5)}</h1>
        <p className="text-[1.6rem] text-night-soft">
          in {timeLeft(-seconds)}. First comes {block?.what}.
        </p>
      </div>
    )
  if (!block) return <p className="flex-1">Nothing is arranged for {cohort.name}.</p>
  return (
    <BlockNow
      key={`${block.task} ${block.kind} ${block.what}`}
      sheet={sheet}
      arrangement={arrangement}
      cohort={cohort}
      block={block}
      seconds={seconds}
      minute={minute}
      paused={paused}
    />
  )
}

const firstName = (name: string) => name.split(' ')[0]!

function BlockNow({
  sheet,
  arrangement,
  cohort,
  block,
  seconds,
  minute,
  paused,
}: HallStageProps & { block: ArrangedBlock }) {
  const { ways } = useWays()
  const { person } = useSignedIn()
  const [of] = block.material
  const material =
    block.material.length === 1
      ? cohort.material.find((one) => one.postureId === of!.postureId && one.side === of!.side)
      : undefined
  const passes = block.kind === 'new' ? cohort.passes : block.kind === 'reTeach' ? cohort.again : []
  const said = useSaid(material?.cues.length ?? 0, repetitions(passes))
  const facing = ways?.demonstration === 'facingMirrored'
  const teacherOf = (id: string | null | undefined) => arrangement.teachers.find((one) => one.id === id)
  const visit = block.kind === 'ownPractice' ? visitIn(arrangement, block, minute) : undefined
  const isHere = visit !== undefined && visit.start <= minute
  const visitor = teacherOf(visit?.ledBy)
  const leader = isHere ? visitor : teacherOf(block.ledBy)
  const theirNext = leader && nextOf(arrangement, leader.id, minute)
  const nextCohort = arrangement.cohorts.find((one) => one.id === theirNext?.cohortId)
  const after = blockAfter(arrangement, cohort.cohortId, block)
  const left = Math.max(0, block.end * 60 - seconds)
  return (
    <>
      <p className="mt-3 flex flex-wrap justify-between gap-x-3 text-night-soft">
        <span>
          {block.cohortId === null ? 'Everybody' : cohort.name} · {blockWords[block.kind].toLowerCase()}
        </span>
        <span>
          {leader && !isHere ? `${leader.id === person.id ? 'you lead' : `${firstName(leader.name)} leads`} · ` : ''}
          {clockAt(sheet.start, block.start)} to {clockAt(sheet.start, block.end)}
        </span>
      </p>
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto">
        {block.pairs && <PairsNow pairs={block.pairs} />}
        {material ? (
          <Counts material={material} cohort={cohort} mirrored={facing} count={said.count} choose={said.choose} />
        ) : (
          <SeveralOrNone
            block={block}
            cohort={cohort}
            start={sheet.start}
            minute={minute}
            stepsToTurn={sheet.stepsToTurn}
          />
        )}
        {material && block.kind === 'reTeach' && (
          <p className="mt-3 text-[1.35rem] max-md:text-[1.15rem]">
            <b>{block.what}.</b> <span className="text-night-soft">{block.because}</span>
          </p>
        )}
        {visit && visitor && (
          <p className="mt-3 text-[1.35rem]">
            {visitor.id === person.id
              ? isHere
                ? 'You are with them now.'
                : `You come by at ${clockAt(sheet.start, visit.start)}.`
              : isHere
                ? `${firstName(visitor.name)} is with them now.`
                : `${firstName(visitor.name)} comes by at ${clockAt(sheet.start, visit.start)}.`}
          </p>
        )}
        <ForThem cohort={cohort} block={block} />
      </div>
      <div className="mt-3 flex items-center gap-x-6 gap-y-2 max-lg:flex-wrap max-lg:justify-between">
        <Ring left={left} of={(block.end - block.start) * 60} paused={paused !== undefined} />
        <div className="min-w-0 flex-1 max-lg:order-3 max-lg:basis-full">
          {paused && <p className="text-[1.35rem] font-bold text-dew">Paused by {paused.who}</p>}
          {said.words && (
            <p aria-live="polite" className="text-night-soft">
              {said.words}
              {facing && <b className="text-dew"> · say left, do right</b>}
            </p>
          )}
          {leader && theirNext && nextCohort && nextCohort.id !== cohort.cohortId && (
            <p className="text-night-soft">
              {leader.id === person.id ? 'You go on' : `${firstName(leader.name)} goes on`} to {nextCohort.name} at{' '}
              {clockAt(sheet.start, theirNext.start)}
            </p>
          )}
          <p className="text-[1.35rem] max-md:text-[1.15rem]">
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
        {material && (
          <div className="flex gap-2">
            <button type="button" className="night-button" onClick={() => said.step(-1)}>
              Back
            </button>
            <button type="button" className="night-primary max-md:px-5" onClick={() => said.step(1)}>
              Next
            </button>
          </div>
        )}
      </div>
    </>
  )
}

/** Where somebody is in the counts of a block, and in how often they are gone through. */
function useSaid(counts: number, passes: Repetition[]) {
  const [said, setSaid] = useState({ repetition: 0, count: 0 })
  const [now, then] = [
    passes[said.repetition],
    passes.slice(said.repetition).find((one) => one.name !== passes[said.repetition]?.name),
  ]
  const last = Math.max(0, passes.length - 1)
  const step = (by: 1 | -1) =>
    setSaid(({ repetition, count }) => {
      const to = count + by
      if (to < 0) return repetition > 0 ? { repetition: repetition - 1, count: counts - 1 } : { repetition, count: 0 }
      return to < counts ? { repetition, count: to } : { repetition: Math.min(repetition + 1, last), count: 0 }
    })
  useKeys((event) => {
    if (counts === 0 || !['ArrowRight', 'ArrowDown', ' ', 'ArrowLeft', 'ArrowUp'].includes(event.key)) return false
    step(event.key === 'ArrowLeft' || event.key === 'ArrowUp' ? -1 : 1)
    return true
  })
  return {
    count: said.count,
    choose: (count: number) => setSaid({ ...said, count }),
    step,
    words: now && counts > 0 && `${now.name}, ${now.at} of ${now.of}${then ? `; then ${then.name} ${then.of}` : ''}`,
  }
}

/** What is said and done, a count at a time. */
function Counts({
  material,
  cohort,
  mirrored,
  count,
  choose,
}: {
  material: Schema['LessonMaterial']
  cohort: Schema['LessonCohortSheet']
  mirrored: boolean
  count: number
  choose: (count: number) => void
}) {
  return (
    <>
      <h1 className="mt-1 text-[3.1rem] leading-tight font-bold max-md:text-[2rem]">{material.name}</h1>
      <p className="mt-1 border-l-4 border-lacquer pl-4 text-[1.5rem] text-blush max-md:text-[1.2rem]">
        {material.keyPoint}
      </p>
      <div className="mt-4 flex shrink basis-[min(21rem,36vh)] gap-6 max-md:basis-48 max-md:gap-2">
        <ol className="grid min-w-0 flex-1 content-start gap-2">
          {material.cues.map((cue, at) => (
            <li key={at}>
              <button
                type="button"
                aria-current={at === count ? 'step' : undefined}
                className={`grid w-full grid-cols-[2.4rem_1fr] items-baseline text-left text-[1.7rem] leading-snug max-md:grid-cols-[1.6rem_1fr] max-md:text-[1.3rem] ${at === count ? 'font-bold text-white' : 'text-night-soft'}`}
                onClick={() => choose(at)}
              >
                <span className={`font-serif font-bold ${at === count ? 'text-dew' : ''}`}>{at + 1}</span>
                {cue}
              </button>
            </li>
          ))}
        </ol>
        <CountFigure
          postureId={material.postureId}
          side={material.side}
          mode={cohort.mode}
          count={count + 1}
          sash={cohort.colour}
          mirrored={mirrored}
          label={`${material.name}, count ${count + 1}`}
        />
      </div>
    </>
  )
}

/** What has no counts of its own: several postures, practice by oneself, or what the whole class does. */
function SeveralOrNone({
  block,
  cohort,
  start,
  minute,
  stepsToTurn,
}: {
  block: ArrangedBlock
  cohort: Schema['LessonCohortSheet']
  start: string
  minute: number
  stepsToTurn: number
}) {
  const isOwn = block.kind === 'ownPractice'
  if (block.pieces.length > 0) return <WarmUpNow pieces={block.pieces} start={start} minute={minute} />
  return (
    <>
      <h1 className="mt-1 text-[3.1rem] leading-tight font-bold max-md:text-[2rem]">
        {block.what || blockWords[block.kind]}
      </h1>
      {isOwn && stepsToTurn > 0 && !cohort.attended && (
        <p className="mt-2 text-[1.35rem] text-night-soft">Stepping across: turn round after {stepsToTurn} steps.</p>
      )}
      {!isOwn && (
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
    </>
  )
}

/** Who works with whom; it is read out before anything else. */
const PairsNow = ({ pairs: { groups, beside, caution } }: { pairs: NonNullable<ArrangedBlock['pairs']> }) => (
  <>
    <ul aria-label="Who works with whom" className="mt-2 flex flex-wrap gap-x-6 text-[1.35rem]">
      {groups.map((group) => (
        <li key={group.join()} className="font-bold">
          {together(group)}
        </li>
      ))}
      {beside.map(({ name, why }) => (
        <li key={name} className="text-night-soft">
          {name}: {why}
        </li>
      ))}
    </ul>
    <p className="mt-1 border-l-4 border-ochre-mark pl-4">{caution}</p>
  </>
)

/** The pieces of the warm-up in their order; the one that is on stands out. */
function WarmUpNow({ pieces, start, minute }: { pieces: ArrangedBlock['pieces']; start: string; minute: number }) {
  const now = pieces.findLast((piece) => piece.start <= minute) ?? pieces[0]!
  return (
    <>
      <h1 className="mt-1 text-[3.1rem] leading-tight font-bold first-letter:uppercase max-md:text-[2rem]">
        {now.what}
      </h1>
      <ol aria-label="Pieces of the warm-up" className="mt-4 grid gap-2 text-[1.5rem] max-md:text-[1.2rem]">
        {pieces.map((piece) => (
          <li
            key={piece.start}
            aria-current={piece === now ? 'step' : undefined}
            className={`grid grid-cols-[5rem_1fr] ${piece === now ? 'font-bold' : 'text-night-soft'}`}
          >
            <span className="tabular-nums">{clockAt(start, piece.start)}</span> {piece.what}
          </li>
        ))}
      </ol>
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
    <ul className="mt-3 grid gap-1 border-l-4 border-ochre-mark pl-4">
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
