import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { placesOf } from '../app/places'
import { Refusal } from '../ui/states'
import { people } from '../ui/words'
import { useRefreshPeople, useStudents, type School, type Student } from './queries'

type Move = Omit<Schema['StudentMove'], 'version'>

/** Moves several students at once, and takes the move back. */
export function MoveBar({ school, students, clear }: { school: School; students: Student[]; clear: () => void }) {
  const refresh = useRefreshPeople()
  const all = useStudents()
  const [back, setBack] = useState<{ what: string; moves: Move[] }>()
  const move = useMutation({
    mutationFn: async ({ moves }: { what: string; moves: Move[]; undone?: boolean }) => {
      const version = new Map((all.data ?? []).map((student) => [student.id, student.version]))
      await answer(
        api.POST('/api/students/moves', {
          body: { moves: moves.map((one) => ({ ...one, version: version.get(one.id) ?? 0 })) },
        }),
      )
    },
    onSuccess: async (_, { what, moves, undone }) => {
      const before = moves.map(({ id }) => all.data!.find((student) => student.id === id)!)
      setBack(
        undone
          ? undefined
          : { what, moves: before.map(({ id, sashId, half, cohortIds }) => ({ id, sashId, half, cohortIds })) },
      )
      clear()
      await refresh()
    },
  })
  const go = (what: string, to: (student: Student) => Partial<Move>) =>
    move.mutate({
      what,
      moves: students.map((student) => ({ id: student.id, sashId: null, half: null, cohortIds: null, ...to(student) })),
    })
  const toCohort = (id: string) => {
    const meeting = school.classes.find((one) => one.cohorts.some((cohort) => cohort.id === id))!
    const cohort = meeting.cohorts.find((one) => one.id === id)!
    // Their place in this class changes; a class they did not come to yet becomes theirs.
    go(`moving ${people(students.length)} to ${cohort.name}`, (student) => {
      const others = placesOf(school, student).filter((place) => place.meeting.id !== meeting.id)
      return {
        cohortIds: [
          ...(placesOf(school, student)[0]?.meeting.id === meeting.id
            ? [id, ...others.map((place) => place.cohort.id)]
            : [...others.map((place) => place.cohort.id), id]),
        ],
      }
    })
  }
  const toLevel = (value: string) => {
    const [sashId, half] = value.split(' ') as [string, Schema['Half']]
    const sash = school.sashes.find((one) => one.id === sashId)!
    go(`moving ${people(students.length)} to ${sash.name}${half === 'none' ? '' : `, ${half}`}`, () => ({
      sashId,
      half,
    }))
  }
  if (students.length === 0 && !back && !move.isError) return null
  return (
    <div
      role="region"
      aria-label="Move students"
      className="mb-3 flex flex-wrap items-center gap-3 rounded border border-line bg-pine-tint px-3 py-2"
    >
      {students.length > 0 && (
        <>
          <b>{people(students.length)} chosen</b>
          <select
            className="field"
            aria-label="Move to a level"
            value=""
            disabled={move.isPending}
            onChange={(event) => toLevel(event.target.value)}
          >
            <option value="" disabled>
              to a level…
            </option>
            {school.sashes.flatMap((sash) =>
              (sash.hasHalves ? (['newer', 'senior'] as const) : (['none'] as const)).map((half) => (
                <option key={sash.id + half} value={`${sash.id} ${half}`}>
                  {sash.name} {half === 'none' ? '' : half}
                </option>
              )),
            )}
          </select>
          <select
            className="field"
            aria-label="Move to a cohort"
            value=""
            disabled={move.isPending}
            onChange={(event) => toCohort(event.target.value)}
          >
            <option value="" disabled>
              to a cohort…
            </option>
            {school.classes.flatMap((meeting) =>
              meeting.cohorts.map((cohort) => (
                <option key={cohort.id} value={cohort.id}>
                  {meeting.name}: {cohort.name}
                </option>
              )),
            )}
          </select>
          <button type="button" className="quiet-link" onClick={clear}>
            Choose nobody
          </button>
        </>
      )}
      {back && students.length === 0 && (
        <button
          type="button"
          className="button"
          disabled={move.isPending}
          onClick={() => move.mutate({ ...back, undone: true })}
        >
          Undo {back.what}
        </button>
      )}
      {move.isError && <Refusal error={move.error} reload={() => void refresh()} />}
    </div>
  )
}
