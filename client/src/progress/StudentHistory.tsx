import { useState } from 'react'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { limitsQuery } from '../shared/people'
import { CorrectionCard } from './CorrectionCard'
import { nextSashQuery, studentQuery, withdrawObservation } from './data'
import { AgainstCard, HabitCard } from './HabitCards'
import { Lacks } from './Lacks'
import { levelName, likelyWords } from './next-sash'
import { StudentWalk } from './StudentWalk'
import { useAgainst, useTried } from './use-tried'
import { useSignedIn } from '../shared/session'
import { Panel } from '../ui/Panel'
import { Sole } from '../ui/Sole'
import { Refusal } from '../ui/states'
import { dayMonth, demandWords, halfWords, seenWords, shortDay, stageWords } from '../ui/words'

type Standing = Schema['ProgressStandingResponse']

interface StudentHistoryProps {
  studentId: string
  /** With a side: the posture in question; without, everything. */
  posture: string | null
  side: string | null
  /** Shows one posture by itself. */
  choose: (standing: Standing) => void
  close: () => void
}

/** One student: standing and corrections, and every fact they follow from. */
export function StudentHistory({ studentId, posture, side, choose, close }: StudentHistoryProps) {
  const { person, today } = useSignedIn()
  const student = useQuery(studentQuery(studentId))
  const withdraw = useMutation(withdrawObservation)
  const teaches = person.role !== 'assistant'
  const next = useQuery(nextSashQuery((teaches && student.data?.classId) || undefined)).data?.people.find(
    (one) => one.studentId === studentId,
  )?.next
  const tried = useTried(student.data?.classId)
  const seen = useAgainst(student.data?.classId)
  if (!student.data) return <Opening of={[student]} what="Opening the record" />
  const data = student.data
  const about = (fact: { postureId?: string | null; side?: string | null; from?: unknown }) =>
    !posture || (fact.postureId === posture && fact.side === side && !fact.from)
  const standings = data.standings.filter(about)
  const open = standings.filter(
    (standing) =>
      posture || standing.relearn !== null || standing.corrections.some((correction) => correction.state !== 'cleared'),
  )
  const facts = data.facts.filter((fact) => (fact.kind === 'attendance' ? !posture : about(fact)))
  return (
    <Panel
      title={data.name}
      facts={`${data.sash} ${halfWords[data.half]} · ${data.left ? `left ${dayMonth(data.left)} ${data.left.slice(0, 4)}` : `${data.cohort === data.sash ? '' : `${data.cohort} · `}${data.mode}`} · joined ${dayMonth(data.joined)} ${data.joined.slice(0, 4)}`}
      close={close}
      atHand
    >
      {teaches && <LimitsLine studentId={studentId} />}
      {!posture &&
        data.habits.map((habit) => (
          <HabitCard key={habit.principleId} habit={habit} student={{ studentId, student: data.name }} seen={seen} />
        ))}
      {!posture &&
        data.against.map((against) => (
          <AgainstCard
            key={against.principleId}
            against={against}
            student={{ studentId, student: data.name }}
            seen={seen}
            tried={tried}
          />
        ))}
      {open.map((standing) => (
        <StandingPart
          key={standing.postureId + standing.side + (standing.from?.postureId ?? '')}
          standing={standing}
          tried={
            tried &&
            ((correction) =>
              tried(
                {
                  studentId,
                  student: data.name,
                  postureId: standing.postureId,
                  side: standing.side,
                  from: standing.from,
                  name: standing.name,
                },
                correction,
              ))
          }
        />
      ))}
      {posture && standings.length === 0 && <p className="text-soft">This posture has not been met.</p>}
      {!posture && open.length === 0 && data.against.every(({ correction }) => correction.state === 'cleared') && (
        <p>No corrections are open.</p>
      )}
      {!posture && next && (
        <section>
          <h3>For {levelName(next)}</h3>
          <p>{likelyWords(next, today)}</p>
          <Lacks next={next} today={today} />
        </section>
      )}
      {!posture && <StudentWalk standings={data.standings} today={today} choose={choose} />}
      <section>
        <h3>What was seen</h3>
        {withdraw.isError && <Refusal error={withdraw.error} />}
        <ol className="grid gap-1">
          {facts.map((fact) => (
            <li key={fact.id} className="grid grid-cols-[56px_1fr_auto] gap-2">
              <span className="text-soft">{shortDay(fact.date)}</span>
              <span className={fact.withdrawn ? 'text-soft line-through' : ''}>
                {saying(fact, !posture)} <span className="text-soft">{fact.by.split(' ')[0]}</span>
              </span>
              {fact.withdrawn && <span className="text-soft">withdrawn</span>}
              {fact.mayWithdraw && (
                <button
                  type="button"
                  className="quiet-link"
                  aria-label={`Withdraw ${saying(fact, true)}, ${shortDay(fact.date)}`}
                  disabled={withdraw.isPending}
                  onClick={() => withdraw.mutate({ id: fact.id })}
                >
                  Withdraw
                </button>
              )}
            </li>
          ))}
          {facts.length === 0 && <li className="text-soft">Nothing yet.</li>}
        </ol>
      </section>
    </Panel>
  )
}

/** Limits are shown when they are asked for, and every time they are is written down. */
function LimitsLine({ studentId }: { studentId: string }) {
  const [asked, setAsked] = useState(false)
  const limits = useQuery(limitsQuery(studentId, asked))
  if (!asked || !limits.data) {
    return (
      <button type="button" className="quiet-link justify-self-start" onClick={() => setAsked(true)}>
        Show limits (this is written down)
      </button>
    )
  }
  if (limits.data.limits.length === 0)
    return <p className="text-soft">No limits are written down. {limits.data.note}</p>
  return (
    <p className="border-l-4 border-ochre-mark pl-3">
      <b>
        Not asked for:{' '}
        {limits.data.limits
          .map((limit) => demandWords[limit.demand] + (limit.side === 'symmetric' ? '' : `, ${limit.side}`))
          .join('; ')}
        .
      </b>{' '}
      {limits.data.note}
    </p>
  )
}

function StandingPart({
  standing,
  tried,
}: {
  standing: Standing
  tried: ((correction: Standing['corrections'][number]) => (way: Schema['Way'], cause?: string) => void) | undefined
}) {
  const heaviest = standing.corrections.find((correction) => correction.state !== 'cleared')
  return (
    <section>
      <p className="flex items-center gap-3 font-serif text-lg">
        <Sole
          stage={standing.stage}
          side={standing.side}
          fading={standing.fading}
          takenOver={standing.takenOver}
          correction={heaviest?.weight}
          size={46}
        />
        <span>
          {standing.name}: {stageWords[standing.stage]}
          {standing.takenOver && ', taken over: no stage was seen here yet'}
          {standing.fading && ', fading'}
        </span>
      </p>
      {standing.relearn && (
        <p className="border-l-4 border-ochre-mark pl-3">
          <b>To relearn, since {dayMonth(standing.relearn.since)}:</b> {standing.relearn.difference}
          {standing.relearn.shownSince ? ' (was there when it was taught; nobody has seen it yet)' : ''}.
        </p>
      )}
      {standing.otherModes.map(({ mode, stage }) => (
        <p key={mode} className="text-soft">
          {mode}: {stageWords[stage]}
        </p>
      ))}
      {standing.corrections.map((correction) => (
        <div key={correction.words + correction.since} className="mt-2">
          <CorrectionCard correction={correction} tried={tried?.(correction)} />
        </div>
      ))}
    </section>
  )
}

function saying(fact: Schema['ProgressFact'], withPosture: boolean): string {
  if (fact.kind === 'attendance') return fact.present ? 'was here' : 'was away'
  const what = seenWords(fact)
  return withPosture ? `${fact.posture}: ${what}` : what
}
