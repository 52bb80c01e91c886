import type { Schema } from '../api/client'
import { SmallFigure } from '../shared/SmallFigure'
import { dayMonth, people, shortDay, shortPosture } from '../ui/words'
import type { Plan } from './data'
import { keptWords } from './PlanDetails'

/** Lessons beside one another on an A4 sheet before another sheet is begun. */
const LESSONS_ON_A_SHEET = 14

const CAUTION =
  'Work within a comfortable range. Stop at pain, dizziness, breathlessness or chest discomfort, and get help. Never hold the breath; knee in line with the toes. After illness, surgery or a fall ask your own clinician first.'

/** The term for the wall, A4 landscape; or for each cohort a list to hand out. Only the printer sees it. */
export function TermPrint({ plan, what }: { plan: Plan; what: 'wall' | 'hand-outs' }) {
  return what === 'wall' ? (
    <div className="print-only print-alone">
      {sheets(plan.lessons).map((lessons, at) => (
        <Wall key={at} plan={plan} lessons={lessons} />
      ))}
    </div>
  ) : (
    <div className="print-only print-alone">
      {plan.rows
        .filter((row) => row.chips.length > 0)
        .map((row) => (
          <HandOut key={row.cohortId} plan={plan} row={row} />
        ))}
    </div>
  )
}

const sheets = (lessons: Schema['PlanColumn'][]) => {
  const count = Math.ceil(lessons.length / LESSONS_ON_A_SHEET)
  const each = Math.ceil(lessons.length / count)
  return Array.from({ length: count }, (_, at) => lessons.slice(at * each, (at + 1) * each))
}

function Wall({ plan, lessons }: { plan: Plan; lessons: Schema['PlanColumn'][] }) {
  return (
    <article className="term-wall break-after-page pr-px">
      <h1 className="text-[15pt]">
        {plan.term} · {plan.class}
      </h1>
      <table className="mt-2 w-full table-fixed border-collapse [&_td]:border [&_td]:border-line [&_td]:p-1 [&_td]:align-top [&_th]:border [&_th]:border-line [&_th]:p-1 [&_th]:text-left">
        <thead>
          <tr>
            <th className="w-[22mm]">Cohort</th>
            {lessons.map((lesson) => (
              <th key={lesson.date}>
                {lesson.number ?? '–'} · {shortDay(lesson.date)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {plan.rows.map((row) => (
            <tr key={row.cohortId}>
              <th>{row.name}</th>
              {lessons.map((lesson) => (
                <td key={lesson.date}>
                  {lesson.closed ? <i>{lesson.closed}</i> : <InLesson row={row} lesson={lesson} />}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1">
        New in bold; below it how much comes back. {plan.draft ? 'A draft, not announced.' : `Plan ${plan.announced}.`}{' '}
        {CAUTION}
      </p>
    </article>
  )
}

function InLesson({ row, lesson }: { row: Schema['PlanRow']; lesson: Schema['PlanColumn'] }) {
  const run = row.runThroughs.find((one) => one.date === lesson.date)
  const back = row.chips.filter((chip) => chip.reviews.some((review) => review.date === lesson.date)).length
  return (
    <>
      {row.chips
        .filter((chip) => chip.date === lesson.date)
        .map((chip) => (
          <b key={chip.id} className="block">
            {shortPosture(chip.name)}
          </b>
        ))}
      {run && <b className="block">{run.kind === 'test' ? 'Test' : 'Run-through'}</b>}
      {row.kept
        .filter((kept) => kept.date === lesson.date)
        .map((kept) => (
          <span key={kept.name} className="block">
            {shortPosture(kept.name)} {keptWords(kept)}
          </span>
        ))}
      {back > 0 && `${back} ${back === 1 ? 'comes' : 'come'} back`}
    </>
  )
}

function HandOut({ plan, row }: { plan: Plan; row: Schema['PlanRow'] }) {
  return (
    <article className="break-after-page text-[11pt]">
      <h1 className="text-[18pt]">{row.name}</h1>
      <p>
        {plan.term} · {plan.class} · {people(row.people)}
        {row.mode !== 'standing' && ` · ${row.mode}`}
        {row.finish && ` · all met by ${dayMonth(row.finish)}`}
      </p>
      <ol className="mt-3 grid gap-1.5">
        {plan.lessons.map((lesson) => (
          <li key={lesson.date} className="grid grid-cols-[38mm_1fr] border-b border-line pb-1">
            <b>
              {lesson.number ?? '–'} · {dayMonth(lesson.date)}
            </b>
            <span className="flex items-center gap-3">
              {!lesson.closed &&
                row.chips
                  .filter((chip) => chip.date === lesson.date)
                  .map((chip) => (
                    <SmallFigure
                      key={chip.id}
                      postureId={chip.postureId}
                      side={chip.side}
                      mode={row.mode}
                      className="h-[12mm]"
                    />
                  ))}
              <span>
                {lesson.closed ??
                  ([
                    ...row.chips.filter((chip) => chip.date === lesson.date).map((chip) => chip.name),
                    ...row.runThroughs
                      .filter((run) => run.date === lesson.date)
                      .map((run) => (run.kind === 'test' ? 'Test' : 'Run-through')),
                    ...row.kept
                      .filter((kept) => kept.date === lesson.date)
                      .map((kept) => `${kept.name}, ${keptWords(kept)}`),
                  ].join('; ') ||
                    'Review')}
              </span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-4 text-[9pt]">{CAUTION}</p>
    </article>
  )
}
