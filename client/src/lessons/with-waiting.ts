import type { Waiting } from '../shared/waiting'
import type { Schema } from '../api/client'
import type { Facts, Register, RegisterFact, RegisterItem, RegisterStudent } from './data'

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

type Against = RegisterStudent['against'][number]

/** The register with what one student has against a principle changed. */
const withAgainst = (
  register: Register,
  studentId: string,
  change: (against: readonly Against[]) => Against[],
): Register => ({
  ...register,
  students: register.students.map((student) =>
    student.studentId === studentId ? { ...student, against: change(student.against) } : student,
  ),
})

const withSeen = <T extends { today: Schema['RegisterSeen'][] }>(one: T, fact: Facts['observation']): T =>
  one.today.some((seen) => seen.id === fact.id)
    ? one
    : {
        ...one,
        today: [
          ...one.today,
          {
            id: fact.id,
            sign: fact.sign,
            stage: fact.stage,
            words: fact.words ?? '',
            weight: fact.weight,
            mode: fact.mode ?? null,
            inRunThrough: fact.inRunThrough ?? false,
          },
        ],
      }

const withTried = (correction: Schema['RegisterOpenCorrection'], fact: Facts['way']) => ({
  ...correction,
  triedToday: [
    ...correction.triedToday.filter(({ way, cause }) => way !== fact.way || cause !== (fact.cause ?? '')),
    ...(fact.done ? [{ way: fact.way, cause: fact.cause ?? '' }] : []),
  ],
})

/** One that is new is called as it reads until the server has its name. */
const newAgainst = (fact: Facts['observation'], principleId: string): Against => ({
  principleId,
  principle: fact.words ?? '',
  correction: {
    faultId: null,
    words: fact.words ?? '',
    weight: fact.weight ?? 'shape',
    stuck: false,
    triedToday: [],
  },
  today: [],
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
    case 'observation': {
      const { principleId } = fact
      if (!principleId) return withCells(register, fact.studentId, fact, (cell) => withSeen(cell, fact))
      return withAgainst(register, fact.studentId, (against) =>
        (against.some((one) => one.principleId === principleId)
          ? against
          : [...against, newAgainst(fact, principleId)]
        ).map((one) => (one.principleId === principleId ? withSeen(one, fact) : one)),
      )
    }
    case 'way':
      if (fact.principleId)
        return withAgainst(register, fact.studentId, (against) =>
          against.map((one) =>
            one.principleId === fact.principleId ? { ...one, correction: withTried(one.correction, fact) } : one,
          ),
        )
      return withCells(register, fact.studentId, fact, (cell) => ({
        ...cell,
        open: cell.open.map((correction) =>
          correction.faultId !== fact.faultId || correction.words !== fact.words
            ? correction
            : withTried(correction, fact),
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
          against: student.against.map((one) => ({
            ...one,
            today: one.today.filter((seen) => seen.id !== fact.observationId),
          })),
        })),
      }
  }
}
