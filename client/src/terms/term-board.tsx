import type { MenuItem } from '../ui/menu'
import { dayMonth, longDate, shortDay, shortPosture } from '../ui/words'
import type { Schema } from '../api/client'
import type { Plan, PlanChip, Step } from './data'
import { keptWords, kindWords } from './PlanDetails'
import { Minutes, RowHead } from './PlanHeads'

/** What can be done to a posture on the board, without dragging it. */
export function menuOf(
  plan: Plan,
  id: string,
  take: ((step: Step) => unknown) | undefined,
  open: () => void,
): readonly MenuItem[] {
  const chip = plan.rows.flatMap((row) => row.chips).find((one) => one.id === id)
  if (!chip) return []
  const lessons = plan.lessons.filter((one) => one.number !== null && !one.held && one.date !== chip.date)
  return [
    { name: 'Why it is here', act: open },
    ...(take && !chip.taught
      ? [
          {
            name: chip.pinned ? 'Let it move' : 'Keep on this date',
            act: () => void take({ kind: 'pin', chip: id, date: chip.pinned ? null : chip.date }),
          },
          {
            name: 'Move to',
            disabled: lessons.length === 0,
            items: lessons.map((lesson) => ({
              name: `Lesson ${lesson.number}, ${dayMonth(lesson.date)}`,
              act: () => void take({ kind: 'pin', chip: id, date: lesson.date }),
            })),
          },
        ]
      : []),
  ]
}

export function chipInFocus(plan: Plan | undefined) {
  const id = (document.activeElement as HTMLElement | null)?.dataset.chip
  return plan?.rows.flatMap((row) => row.chips.map((one) => ({ row, one }))).find(({ one }) => one.id === id)
}

/** What pointing at a posture shows. */
const cardOf = (chip: PlanChip) => (
  <>
    <b className="font-serif text-base">{chip.name}</b>
    <span className="text-soft">
      {kindWords[chip.kind]}
      {chip.taught ? 'taught on' : 'new on'} {longDate(chip.date)}, {chip.minutes} min
    </span>
    <span>{chip.because}</span>
  </>
)

/** What a lesson does to keep what is known: it stays where the plan puts it. */
function keptChip(row: Schema['PlanRow'], kept: Schema['PlanRefreshed'], column: number) {
  const what = `${kept.name}, ${keptWords(kept)}`
  return {
    id: `kept ${row.cohortId} ${kept.date} ${kept.name}`,
    column,
    name: `${keptWords(kept)} ${shortPosture(kept.name)}`,
    card: (
      <>
        <b className="font-serif text-base">{what}</b>
        <span className="text-soft">
          kept, {longDate(kept.date)}, {kept.minutes} min
        </span>
        <span>{kept.because}</span>
      </>
    ),
    quiet: true,
    knots: [],
    done: true,
    says: `kept, ${what}, ${row.name}, on ${dayMonth(kept.date)}, ${kept.minutes} minutes. ${kept.because}`,
  }
}

/** So many lessons side by side still have room for the day. */
const MOST_WITH_DAYS = 24

/** The plan as the board draws it. */
export function termBoard(data: Plan, next: string | undefined, today: string, whole: boolean) {
  const column = Object.fromEntries(data.lessons.map((lesson, at) => [lesson.date, at]))
  // Then a column has room for the lesson's number only, and the first of each month says which.
  const crowded = whole && data.lessons.length > MOST_WITH_DAYS
  return {
    label: `${data.term}, ${data.class}`,
    columns: data.lessons.map((lesson, at) => ({
      id: lesson.date,
      closed: lesson.closed ?? undefined,
      current: lesson.date === next,
      past: lesson.held && lesson.date < today,
      says: `${lesson.number === null ? 'No lesson' : `Lesson ${lesson.number}`}, ${longDate(lesson.date)}`,
      head: (
        <>
          <span className="font-bold">{lesson.number ?? '–'}</span>{' '}
          {!crowded && (
            <span className="text-soft">
              {whole && data.lessons.length > 16 ? Number(lesson.date.slice(8)) : shortDay(lesson.date)}
            </span>
          )}
          {crowded && (
            <span className="-mx-1.5 block h-4 text-small text-soft">
              {data.lessons[at - 1]?.date.slice(0, 7) !== lesson.date.slice(0, 7) &&
                dayMonth(lesson.date).split(' ')[1]?.slice(0, 3)}
            </span>
          )}
        </>
      ),
    })),
    rows: data.rows.map((row) => ({
      id: row.cohortId,
      colour: row.colour,
      head: <RowHead row={row} />,
      chips: [
        ...row.chips.map((one) => ({
          id: one.id,
          column: column[one.date] ?? 0,
          name: shortPosture(one.name),
          card: cardOf(one),
          quiet: one.kind !== 'posture',
          pinned: one.pinned,
          knots: one.reviews.map((review) => column[review.date] ?? 0),
          done: one.taught,
          says: `${kindWords[one.kind]}${one.name}, ${row.name}, ${one.taught ? 'taught' : 'new'} on ${dayMonth(one.date)}${one.pinned ? ', fixed' : ''}${one.was ? `, announced for ${dayMonth(one.was)}` : ''}, ${one.minutes} minutes, reviewed ${one.reviews.map((review) => dayMonth(review.date)).join(', ') || 'next term'}`,
        })),
        ...row.kept.map((kept) => keptChip(row, kept, column[kept.date] ?? 0)),
      ],
      ghosts: row.chips.flatMap((one) =>
        one.was && column[one.was] !== undefined
          ? [
              {
                column: column[one.was]!,
                name: shortPosture(one.name),
                went: `${one.date > one.was ? '→' : '←'} ${shortDay(one.date)}`,
              },
            ]
          : [],
      ),
      boxes: row.runThroughs.map((run) => ({
        column: column[run.date] ?? 0,
        name: run.kind === 'test' ? 'Test' : 'Run-through',
      })),
    })),
    foot: {
      head: (
        <>
          <span className="font-bold">Teachers’ minutes</span>
          <br />
          <span className="text-soft">used, of what there is</span>
        </>
      ),
      cells: data.lessons.map((lesson) => <Minutes key={lesson.date} lesson={lesson} whole={whole} />),
    },
  }
}
