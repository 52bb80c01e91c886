import type { Waiting } from '../shared/waiting'
import type { Register, RegisterFact, RegisterItem, RegisterStudent } from './data'

/** What is watched: a posture on a side, or a link that leads on from one. */
type Watched = Pick<RegisterItem, 'postureId' | 'side'> & { from?: RegisterItem['from'] }

const isSame = (one: Watched, other: Watched) =>
  one.postureId === other.postureId &&
  one.side === other.side &&
  one.from?.postureId === other.from?.postureId &&
  one.from?.side === other.from?.side

const isItem = (item: RegisterItem, of: Pick<RegisterItem, 'kind'> & Watched) =>
  item.kind === of.kind && isSame(item, of)

type Cell = RegisterStudent['cells'][number]

/** The register with one student's cells changed where they are about what is watched. */
const withCells = (register: Register, studentId: string, of: Watched, change: (cell: Cell) => Cell): Register => ({
  ...register,
  students: register.students.map((student) =>
    student.studentId !== studentId
      ? student
      : { ...student, cells: student.cells.map((cell) => (isSame(cell, of) ? change(cell) : cell)) },
  ),
})

/** The register as it will be when everything that still waits has landed: what was tapped shows at once. Stages and corrections are judgements and stay the server's. */
export function withWaiting(register: Register, entries: readonly Waiting[]): Register {
  return entries
    .filter((entry) => entry.refused === undefined)
    .reduce((now, entry) => withFact(now, entry.variables as RegisterFact), register)
}

function withFact(register: Register, { kind, fact }: RegisterFact): Register {
  switch (kind) {
    case 'attendance':
      return {
        ...register,
        students: register.students.map((student) =>
          student.studentId === fact.studentId ? { ...student, present: fact.present } : student,
        ),
      }
    case 'taught':
      return {
        ...register,
        recorded: true,
        cohorts: register.cohorts.map((cohort) =>
          cohort.cohortId !== fact.cohortId
            ? cohort
            : {
                ...cohort,
                items: cohort.items.map((item) =>
                  isItem(item, fact) ? { ...item, taught: fact.taught, took: fact.minutes } : item,
                ),
              },
        ),
      }
    case 'observation':
      return withCells(register, fact.studentId, fact, (cell) =>
        cell.today.some((seen) => seen.id === fact.id)
          ? cell
          : {
              ...cell,
              today: [
                ...cell.today,
                {
                  id: fact.id,
                  sign: fact.sign,
                  stage: fact.stage,
                  words: fact.words ?? '',
                  weight: fact.weight,
                  mode: fact.mode ?? null,
                },
              ],
            },
      )
    case 'way':
      return withCells(register, fact.studentId, fact, (cell) => ({
        ...cell,
        open: cell.open.map((correction) =>
          correction.faultId !== fact.faultId || correction.words !== fact.words
            ? correction
            : {
                ...correction,
                triedToday: [
                  ...correction.triedToday.filter(({ way, cause }) => way !== fact.way || cause !== (fact.cause ?? '')),
                  ...(fact.done ? [{ way: fact.way, cause: fact.cause ?? '' }] : []),
                ],
              },
        ),
      }))
    case 'withdrawal':
      return {
        ...register,
        students: register.students.map((student) => ({
          ...student,
          cells: student.cells.map((cell) => ({
            ...cell,
            today: cell.today.filter((seen) => seen.id !== fact.observationId),
          })),
        })),
      }
  }
}
