import type { Schema } from '../api/client'
import { EndShape } from '../shared/EndShape'
import { blockWords, clockTime, longDate } from '../ui/words'
import { SmallArrangement } from './SmallArrangement'
import { looksIn, looksWords } from './watch-words'
import { clockAt, type ArrangedBlock, type Arrangement } from './arranging'

interface LessonPrintProps {
  sheet: Schema['LessonSheet']
  arrangement?: Arrangement
  /** The teacher whose sheet it is; the wall's, with everybody's, where there is none. */
  whose?: string
}

/** The lesson on one A4 page: for the wall every cohort's blocks, for a teacher their own thread in larger letters; key points, cautions and whom to watch. */
export function LessonPrint({ sheet, arrangement, whose }: LessonPrintProps) {
  const own = arrangement?.teachers.find((teacher) => teacher.id === whose)
  return (
    <article className="print-only text-[7.4pt] leading-[1.28]">
      <h1 className="text-[15pt]">
        {longDate(sheet.date)} · {sheet.class}
        {own && `, for ${own.name}`}
      </h1>
      <p>
        Lesson {sheet.number} · {sheet.hall}, {clockTime(sheet.start)} to {clockTime(sheet.end)} ·{' '}
        {sheet.staff.join(', ')}
      </p>
      {arrangement &&
        (own ? (
          <Thread sheet={sheet} arrangement={arrangement} teacher={own.id} />
        ) : (
          <Wall sheet={sheet} arrangement={arrangement} />
        ))}
      {arrangement && !own && <WatchOnTheWall sheet={sheet} arrangement={arrangement} />}
      {arrangement && arrangement.unseen.length > 0 && (
        <p>
          <b>No look is arranged for:</b> {arrangement.unseen.map((look) => look.student).join(', ')}.
        </p>
      )}
      {sheet.care.length > 0 && (
        <p>
          <b>Otherwise:</b> {sheet.care.map((care) => care.says).join('; ')}.
        </p>
      )}
      <p className="mt-1 border-t border-line pt-1">
        {[...new Set([...sheet.cohorts.flatMap((cohort) => cohort.cautions), ...sheet.cautions])].join(' ')}
      </p>
    </article>
  )
}

/** What a block is about, of what the lesson's sheet knows. */
const materialOf = (cohort: Schema['LessonCohortSheet'], block: ArrangedBlock) =>
  cohort.material.find((one) => one.postureId === block.material[0]?.postureId && one.side === block.material[0].side)

/** A visit to those who are never alone is no visit: somebody stays while they practise. */
const wordFor = (cohort: Schema['LessonCohortSheet'], block: ArrangedBlock) =>
  block.kind === 'visit' && cohort.attended ? 'own practice' : blockWords[block.kind].toLowerCase()

interface OnPaper {
  sheet: Schema['LessonSheet']
  arrangement: Arrangement
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

/** One teacher's lesson from minute to minute, to be read with one hand. */
function Thread({ sheet, arrangement, teacher }: OnPaper & { teacher: string }) {
  const own = arrangement.blocks.filter((block) => block.ledBy === teacher).toSorted((a, b) => a.start - b.start)
  return (
    <>
      <SmallArrangement
        arrangement={arrangement}
        cohorts={sheet.cohorts}
        teacher={teacher}
        label="The lesson, a lane a cohort; yours stand out"
        className="mt-1 h-[17mm] w-full"
      />
      <p className="flex justify-between text-[7.5pt]">
        {[0, 15, 30, 45, 60, 75, 90, 105, 120]
          .filter((minute) => minute <= arrangement.minutes)
          .map((minute) => (
            <span key={minute}>{clockAt(sheet.start, minute)}</span>
          ))}
      </p>
      <ol className="mt-2 mb-2 grid gap-x-5 text-[8.6pt] leading-[1.25] [&_li]:break-inside-avoid">
        {own.map((block) => {
          const cohort = sheet.cohorts.find((one) => one.cohortId === block.cohortId)
          const material = cohort && materialOf(cohort, block)
          return (
            <li
              key={`${block.cohortId} ${block.start}`}
              className="grid grid-cols-[13mm_30mm_1fr] gap-2 border-t border-line py-0.5"
            >
              <b className="tabular-nums">{clockAt(sheet.start, block.start)}</b>
              <b>{cohort?.name ?? 'everybody'}</b>
              <span>
                {cohort ? wordFor(cohort, block) : blockWords[block.kind].toLowerCase()}, {block.end - block.start} min
                {block.kind !== 'visit' && (
                  <>
                    : <b>{block.what}</b>
                  </>
                )}
                {block.with.length > 0 &&
                  `, with ${block.with.map((id) => arrangement.cohorts.find((one) => one.id === id)?.name).join(', ')}`}
                {block.kind === 'new' && material && <NewPosture material={material} mode={cohort.mode} />}
                {block.kind !== 'new' && block.kind !== 'visit' && material && <> · {material.keyPoint}</>}
                <Watch arrangement={arrangement} block={block} />
              </span>
            </li>
          )
        })}
      </ol>
    </>
  )
}

/** Whom to watch in a block, and at what. */
function Watch({ arrangement, block }: { arrangement: Arrangement; block: ArrangedBlock }) {
  const looks = looksIn(arrangement.looks, block)
  return looks.length > 0 ? <i> Watch {looksWords(looks)}.</i> : null
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

function NewPosture({ material, mode }: { material: Schema['LessonMaterial']; mode: string }) {
  return (
    <div className="mb-0.5 border-l-2 border-line pl-2">
      <span className="float-right ml-2">
        <EndShape postureId={material.postureId} side={material.side} mode={mode} className="h-[13mm]" />
      </span>
      <b>Key point: {material.keyPoint}.</b> {material.cues.map((cue, at) => `${at + 1} ${cue}`).join('; ')}. Likely:{' '}
      {material.faults[0]}. {material.cautions.join(' ')}
    </div>
  )
}
