import type { Waiting } from '../shared/waiting'
import type { Register, RegisterFact, RegisterItem } from './data'

const isItem = (
  item: Pick<RegisterItem, 'postureId' | 'side' | 'kind' | 'from'>,
  of: Pick<RegisterItem, 'postureId' | 'side' | 'kind' | 'from'>,
) =>
  item.postureId === of.postureId &&
  item.side === of.side &&
  item.kind === of.kind &&
  item.from?.postureId === of.from?.postureId &&
  item.from?.side === of.from?.side

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
      return {
        ...register,
        students: register.students.map((student) =>
          student.studentId !== fact.studentId
            ? student
            : {
                ...student,
                cells: student.cells.map((cell) =>
                  cell.postureId !== fact.postureId ||
                  cell.side !== fact.side ||
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
                          },
                        ],
                      },
                ),
              },
        ),
      }
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
