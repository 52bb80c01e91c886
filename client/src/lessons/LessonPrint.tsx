import { useRef } from 'react'
import type { Schema } from '../api/client'
import { useOnePage } from '../ui/use-one-page'
import { blockWords, clockTime, longDate } from '../ui/words'
import { clockAt, type ArrangedBlock, type Arrangement } from './arranging'
import { BeforeClass } from './BeforeClass'
import { careIn, materialOf, wordFor, type OnPaper } from './printed'
import { NewPosture } from './PrintedPosture'
import { Thread, WhoIsWho } from './TeacherSheet'

interface LessonPrintProps {
  sheet: Schema['LessonSheet']
  arrangement?: Arrangement
  /** Whose sheet it is. */
  whose: Whose
}

/** The wall's, with everybody's blocks, where there is no teacher; for a stand-in also what whoever was there last week knows. */
export interface Whose {
  teacherId?: string
  standIn?: boolean
}

/** The lesson on one A4 page: for the wall every cohort's blocks, for a teacher their own thread in larger letters; key points, cautions and whom to watch. */
export function LessonPrint({ sheet, arrangement, whose }: LessonPrintProps) {
  const paper = useRef<HTMLElement>(null)
  useOnePage(paper)
  const own = arrangement?.teachers.find((teacher) => teacher.id === whose.teacherId)
  const beside = own
    ? arrangement!.blocks.filter((block) => block.ledBy === own.id).flatMap((block) => careIn(sheet, block))
    : []
  const care = sheet.care.filter((one) => !beside.includes(one))
  return (
    <article ref={paper} className="print-only text-[7.4pt] leading-[1.28]">
      <h1 className="text-[15pt]">
        {longDate(sheet.date)} · {sheet.class}
        {own && (whose.standIn ? `, in place of ${own.name}` : `, for ${own.name}`)}
      </h1>
      <p>
        Lesson {sheet.number} · {sheet.hall}, {clockTime(sheet.start)} to {clockTime(sheet.end)} ·{' '}
        {sheet.staff.join(', ')}
        {arrangement?.focus && (
          <>
            {' '}
            · <b>Focus: {arrangement.focus}</b>
          </>
        )}
      </p>
      {arrangement && (
        <BeforeClass
          booked={arrangement.beforeClass.filter((one) => !own || one.teacherId === own.id)}
          start={sheet.start}
        />
      )}
      {arrangement &&
        (own ? (
          <>
            {whose.standIn && <WhoIsWho sheet={sheet} arrangement={arrangement} teacher={own.id} />}
            <Thread sheet={sheet} arrangement={arrangement} teacher={own.id} standIn={whose.standIn === true} />
          </>
        ) : (
          <Wall sheet={sheet} arrangement={arrangement} />
        ))}
      {arrangement && !own && <WatchOnTheWall sheet={sheet} arrangement={arrangement} />}
      {arrangement && arrangement.unseen.length > 0 && (
        <p>
          <b>No look is arranged for:</b> {arrangement.unseen.map((look) => look.student).join(', ')}.
        </p>
      )}
      {care.length > 0 && (
        <p>
          <b>Otherwise:</b> {care.map((one) => one.says).join('; ')}.
        </p>
      )}
      <p className="mt-1 border-t border-line pt-1">
        {[...new Set([...sheet.cohorts.flatMap((cohort) => cohort.cautions), ...sheet.cautions])].join(' ')}
      </p>
    </article>
  )
}

/** Everybody's blocks, cohort by cohort. */
function Wall({ sheet, arrangement }: OnPaper) {
  const leader = (id: string | null) => arrangement.teachers.find((one) => one.id === id)?.name.split(' ')[0] ?? ''
  return (
    <>
      <p className="mt-1">
        <b>Everybody:</b>{' '}
        {arrangement.blocks
          .filter((block) => block.cohortId === null)
          .map(
            (block) =>
              `${clockAt(sheet.start, block.start)} ${blockWords[block.kind].toLowerCase()}, ${block.end - block.start} min, ${leader(block.ledBy)}`,
          )
          .join('; ')}
        .
      </p>
      <div className="mt-2 columns-2 gap-5">
        {sheet.cohorts.map((cohort) => (
          <section
            key={cohort.cohortId}
            className="mb-2 border-t border-line pt-1 [&_h2]:break-after-avoid [&_li]:break-inside-avoid"
          >
            <h2 className="text-[10.5pt]">
              {cohort.name}
              {cohort.mode !== 'standing' && `, ${cohort.mode}`}
              {cohort.attended && ', never left alone'}
            </h2>
            <ul>
              {arrangement.blocks
                .filter((block) => block.cohortId === cohort.cohortId && !byItself(block))
                .map((block) => {
                  const material = materialOf(cohort, block)
                  return (
                    <li key={`${block.kind} ${block.start}`}>
                      <b>
                        {clockAt(sheet.start, block.start)} {wordFor(cohort, block)}
                      </b>
                      , {block.end - block.start} min, {leader(block.ledBy)}
                      {`: ${block.what}`}
                      {block.kind === 'new' && material && <NewPosture material={material} mode={cohort.mode} />}
                      {block.kind === 'review' && material && <span>. Key point: {material.keyPoint}.</span>}
                    </li>
                  )
                })}
              <Visits sheet={sheet} arrangement={arrangement} cohort={cohort} leader={leader} />
            </ul>
          </section>
        ))}
      </div>
    </>
  )
}

const byItself = (block: ArrangedBlock) => block.kind === 'ownPractice' || block.kind === 'visit'

/** Who comes by when, in one line. */
function Visits({
  sheet,
  arrangement,
  cohort,
  leader,
}: OnPaper & { cohort: Schema['LessonCohortSheet']; leader: (id: string | null) => string }) {
  const visits = arrangement.blocks.filter((block) => block.cohortId === cohort.cohortId && block.kind === 'visit')
  if (visits.length === 0) return null
  return (
    <li>
      <b>{wordFor(cohort, visits[0]!)}</b>:{' '}
      {visits
        .map((visit) => `${clockAt(sheet.start, visit.start)} ${leader(visit.ledBy)}, ${visit.end - visit.start} min`)
        .join('; ')}
    </li>
  )
}

/** Whom each teacher watches when; whoever is only in their turn stands on the teacher's own sheet. */
function WatchOnTheWall({ sheet, arrangement }: OnPaper) {
  const due = arrangement.looks.filter((look) => look.reason !== 'inTurn')
  return (
    <p className="border-t border-line pt-1">
      <b>Whom to watch:</b>{' '}
      {arrangement.teachers
        .map((teacher) => ({ teacher, its: due.filter((look) => look.teacherId === teacher.id) }))
        .filter(({ its }) => its.length > 0)
        .map(
          ({ teacher, its }) =>
            `${teacher.name.split(' ')[0]}: ${its.map((look) => `${clockAt(sheet.start, look.start!)} ${look.student} in ${look.posture}`).join(', ')}`,
        )
        .join('; ')}
      .
    </p>
  )
}
