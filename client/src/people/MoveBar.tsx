import { useMutation, useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { placesOf, studentsQuery } from '../shared/people'
import { useUndo } from '../shared/undo'
import { DropdownMenu } from '../ui/DropdownMenu'
import { Refusal } from '../ui/states'
import { people } from '../ui/words'
import { moveStudents, type School, type Student } from './data'

type Move = Omit<Schema['StudentMove'], 'version'>

/** Moves several students at once; the move can be taken back. Nothing moves before a place is chosen from the menu. */
export function MoveBar({
  school,
  students,
  letGo,
}: {
  school: School
  students: Student[]
  letGo: (ids: readonly string[]) => void
}) {
  const all = useQuery(studentsQuery())
  const { did, refused } = useUndo()
  const move = useMutation(moveStudents)
  const current = (moves: Move[]) => {
    const version = new Map((all.data ?? []).map((student) => [student.id, student.version]))
    return moves.map((one) => ({ ...one, version: version.get(one.id) ?? 0 }))
  }
  const go = (what: string, to: (student: Student) => Partial<Move>) => {
    const moves = students.map((student) => ({
      id: student.id,
      sashId: null,
      half: null,
      cohortIds: null,
      ...to(student),
    }))
    const before = students.map(({ id, sashId, half, cohortIds }) => ({ id, sashId, half, cohortIds }))
    move.mutate(
      { moves: current(moves) },
      {
        onSuccess: () => {
          did({ what, says: `${what[0]!.toUpperCase()}${what.slice(1)}: done.`, back: () => takeBack(before) })
          // Whoever was chosen while this was under way stays chosen.
          letGo(before.map(({ id }) => id))
        },
      },
    )
  }
  /** Their versions have moved on by the move itself: what is there now is asked for first. */
  const takeBack = async (before: Move[]) => {
    const now = (await all.refetch()).data ?? []
    const version = new Map(now.map((student) => [student.id, student.version]))
    await move.mutateAsync({ moves: before.map((one) => ({ ...one, version: version.get(one.id) ?? 0 })) })
  }
  const toCohort = (id: string) => {
    const schoolClass = school.classes.find((one) => one.cohorts.some((cohort) => cohort.id === id))!
    const cohort = schoolClass.cohorts.find((one) => one.id === id)!
    // Their place in this class changes; a class they did not come to yet becomes theirs.
    go(`moving ${people(students.length)} to ${cohort.name}`, (student) => {
      const others = placesOf(school, student).filter((place) => place.schoolClass.id !== schoolClass.id)
      return {
        cohortIds: [
          ...(placesOf(school, student)[0]?.schoolClass.id === schoolClass.id
            ? [id, ...others.map((place) => place.cohort.id)]
            : [...others.map((place) => place.cohort.id), id]),
        ],
      }
    })
  }
  const toLevel = (sash: School['sashes'][number], half: Schema['Half']) =>
    go(`moving ${people(students.length)} to ${sash.name}${half === 'none' ? '' : `, ${half}`}`, () => ({
      sashId: sash.id,
      half,
    }))
  if (students.length === 0 && !move.isError && !refused) return null
  return (
    <div
      role="region"
      aria-label="Move students"
      className="mb-3 flex flex-wrap items-center gap-3 rounded border border-line bg-pine-tint px-3 py-2"
    >
      {students.length > 0 && (
        <>
          <b>{people(students.length)} chosen</b>
          <DropdownMenu
            name="Move to a level"
            disabled={move.isPending}
            items={school.sashes.flatMap((sash) =>
              (sash.hasHalves ? (['newer', 'senior'] as const) : (['none'] as const)).map((half) => ({
                name: half === 'none' ? sash.name : `${sash.name}, ${half}`,
                act: () => toLevel(sash, half),
              })),
            )}
          />
          <DropdownMenu
            name="Move to a cohort"
            disabled={move.isPending}
            items={school.classes.map((schoolClass) => ({
              name: schoolClass.name,
              items: schoolClass.cohorts.map((cohort) => ({ name: cohort.name, act: () => toCohort(cohort.id) })),
            }))}
          />
          <button type="button" className="quiet-link" onClick={() => letGo(students.map(({ id }) => id))}>
            Choose nobody
          </button>
        </>
      )}
      {(move.error ?? refused) && <Refusal error={(move.error ?? refused)!} />}
    </div>
  )
}
