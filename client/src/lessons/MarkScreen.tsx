import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { useSignedIn } from '../app/session'
import { Kbd } from '../ui/Kbd'
import { moveInGrid, useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Sole } from '../ui/Sole'
import { Empty, Failure, Heading, Refusal, Waiting } from '../ui/states'
import { longDate, shortPosture } from '../ui/words'
import { MarkPanel } from './MarkPanel'
import { TookMinutes } from './TookMinutes'
import { useRegister } from './use-register'

type Student = Schema['RegisterStudentRow']
type Item = Schema['RegisterItem']

const howWords: Record<Schema['TaughtHow'], string> = {
  introduced: 'new',
  reviewed: 'review',
  runThrough: 'run-through',
}

/** The register of one lesson: who was there, what was taught, and what was seen, cohort by cohort. */
export function MarkScreen() {
  const { classId, date } = useParams() as { classId: string; date: string }
  const { person } = useSignedIn()
  const teaches = person.role !== 'assistant'
  const [search, setSearch] = useSearchParams()
  const [place, setPlace] = useState<{ student: string; item: number }>()
  const [correcting, setCorrecting] = useState(false)
  const table = useRef<HTMLDivElement>(null)
  const lesson = { classId, date }
  const register = useQuery({
    queryKey: ['register', classId, date],
    queryFn: () => answer(api.GET('/api/classes/{classId}/lessons/{date}/register', { params: { path: lesson } })),
  })
  const { attend, taught, observe, withdraw, lastMark } = useRegister(lesson)

  const cohort =
    register.data?.cohorts.find((one) => one.cohortId === search.get('cohort')) ?? register.data?.cohorts[0]
  const students = register.data?.students.filter((student) => student.cohortId === cohort?.cohortId) ?? []
  const student = students.find((one) => one.studentId === place?.student)
  const item = place === undefined ? undefined : cohort?.items[place.item]

  const mark = (sign: Schema['RegisterMark']['sign'], rest: Partial<Schema['RegisterMark']> = {}) => {
    if (student && item)
      observe.mutate({ studentId: student.studentId, postureId: item.postureId, side: item.side, sign, ...rest })
  }
  useKeys((event) => {
    if (event.key === 'z' && lastMark) withdraw.mutate(lastMark)
    else if (event.key === 'Escape' && (place || correcting)) {
      if (correcting) setCorrecting(false)
      else setPlace(undefined)
    } else if (!student || !item) return false
    else if (event.key === '2') mark('stage', { stage: 'follows' })
    else if (event.key === '3') mark('stage', { stage: 'alone' })
    else if (event.key === '4') mark('stage', { stage: 'flowing' })
    else if (event.key === 's') mark('fine')
    else if (event.key === 'x') setCorrecting(true)
    else return false
    return true
  })

  if (register.isError) return <Failure error={register.error} retry={() => void register.refetch()} />
  if (register.isPending) return <Waiting what="Opening the register" />
  const data = register.data
  if (!data.held) return <Empty>This lesson has not been held yet. It can be marked from its day on.</Empty>
  if (!cohort) return <Empty>This class has no cohorts yet.</Empty>
  const unsaid = students.filter((one) => one.present === null)
  const failed = [attend, taught, observe, withdraw].find((one) => one.isError)
  return (
    <>
      <Heading
        title={`Mark ${longDate(date)}`}
        facts={
          <>
            <Link to={`/lessons/${classId}/${date}`} className="quiet-link">
              {data.class}, lesson {data.number}
            </Link>{' '}
            · {data.students.filter((one) => one.present).length} here,{' '}
            {data.students.filter((one) => one.present === false).length} away ·{' '}
            {data.recorded ? 'what was taught is recorded' : 'what was taught is not said yet'}
          </>
        }
      >
        {lastMark && (
          <button
            type="button"
            className="button"
            onClick={() => withdraw.mutate(lastMark)}
            disabled={withdraw.isPending}
          >
            Undo the last mark <Kbd>z</Kbd>
          </button>
        )}
        {teaches && (
          <button
            type="button"
            className={data.recorded ? 'button' : 'button button-primary'}
            disabled={data.recorded || taught.isPending}
            onClick={() => taught.mutate(allTaught(data))}
          >
            {data.recorded ? 'Taught: recorded' : 'All taught as planned'}
          </button>
        )}
      </Heading>
      {failed?.error && (
        <div className="px-5 pb-3">
          <Refusal error={failed.error} />
        </div>
      )}
      <div role="group" aria-label="Cohort" className="flex flex-wrap gap-1 border-y border-line bg-paper px-4 py-1.5">
        {data.cohorts.map((one) => (
          <button
            key={one.cohortId}
            type="button"
            aria-pressed={one === cohort}
            className={`flex min-h-11 items-center gap-2 rounded px-3 font-serif text-base font-semibold ${one === cohort ? 'bg-pine-tint' : 'hover:bg-plaster'}`}
            onClick={() => {
              setSearch({ cohort: one.cohortId }, { replace: true })
              setPlace(undefined)
            }}
          >
            <Ribbon colour={one.colour} half={one.half} size={24} />
            {one.name}
          </button>
        ))}
      </div>
      <div className="grid flex-1 lg:grid-cols-[minmax(0,1fr)_350px]">
        <div
          ref={table}
          className="overflow-x-auto bg-paper pb-6"
          onKeyDown={(event) => table.current && moveInGrid(table.current, event)}
        >
          <table className="border-collapse">
            <thead>
              <tr className="border-b border-line align-bottom">
                <th scope="col" className="min-w-40 px-5 py-2 text-left">
                  {students.length} in {cohort.name}
                </th>
                <th scope="col" className="px-2 py-2">
                  {unsaid.length > 0 ? (
                    <button
                      type="button"
                      className="button"
                      onClick={() => attend.mutate(unsaid.map((one) => ({ studentId: one.studentId, present: true })))}
                    >
                      All here
                    </button>
                  ) : (
                    'Here'
                  )}
                </th>
                {cohort.items.map((one) => (
                  <th key={one.kind + one.name} scope="col" className="w-32 px-2 py-2 text-left align-bottom">
                    <span className="font-serif" title={one.name}>
                      {one.kind === 'link' ? shortPosture(one.name) : one.name}
                    </span>
                    <label className="mt-1 flex items-center gap-1.5 font-normal text-soft">
                      <input
                        type="checkbox"
                        checked={one.taught}
                        disabled={!teaches}
                        onChange={(event) =>
                          taught.mutate(
                            allTaught(data, { cohort: cohort.cohortId, item: one, taught: event.target.checked }),
                          )
                        }
                      />
                      {howWords[one.how]}
                    </label>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {students.map((one, row) => (
                <StudentRow
                  key={one.studentId}
                  student={one}
                  row={row}
                  items={cohort.items}
                  place={place}
                  choose={setPlace}
                  attend={(present) => attend.mutate([{ studentId: one.studentId, present }])}
                />
              ))}
            </tbody>
          </table>
          {teaches && (
            <TookMinutes
              key={cohort.cohortId}
              items={cohort.items}
              say={(one, took) =>
                taught.mutate(allTaught(data, { cohort: cohort.cohortId, item: one, taught: true, took }))
              }
            />
          )}
          {cohort.items.length === 0 && (
            <p className="px-5 py-3 text-soft">Nothing was planned for this cohort in this lesson.</p>
          )}
        </div>
        <MarkPanel
          student={student}
          item={item}
          cell={student && place ? student.cells[place.item] : undefined}
          correcting={correcting}
          setCorrecting={setCorrecting}
          mark={mark}
          withdraw={(id) => withdraw.mutate(id)}
          busy={observe.isPending}
        />
      </div>
    </>
  )
}

/** Everything ticked, with one tick changed. */
function allTaught(
  register: Schema['RegisterResponse'],
  change?: { cohort: string; item: Item; taught: boolean; took?: number | null },
) {
  return register.cohorts.flatMap((cohort) =>
    cohort.items
      .filter((item) =>
        change && cohort.cohortId === change.cohort && item === change.item ? change.taught : item.taught,
      )
      .map((item) => ({
        cohortId: cohort.cohortId,
        postureId: item.postureId,
        side: item.side,
        how: item.how,
        kind: item.kind,
        from: item.from,
        minutes: change && item === change.item && change.took !== undefined ? change.took : item.took,
      })),
  )
}

interface StudentRowProps {
  student: Student
  row: number
  items: Item[]
  place?: { student: string; item: number }
  choose: (place: { student: string; item: number }) => void
  attend: (present: boolean) => void
}

function StudentRow({ student, row, items, place, choose, attend }: StudentRowProps) {
  return (
    <tr className="border-b border-fine">
      <th
        scope="row"
        className={`px-5 py-1 text-left text-base ${student.present === false ? 'text-soft line-through' : ''}`}
      >
        {student.name}
      </th>
      <td className="px-2 py-1">
        <button
          type="button"
          data-grid={`${row},0`}
          aria-label={`${student.name}: ${student.present === null ? 'not said' : student.present ? 'here' : 'away'}`}
          className={`button min-h-11 w-20 ${student.present ? 'border-pine bg-pine-tint text-pine' : ''}`}
          onClick={() => attend(student.present !== true)}
        >
          {student.present === null ? '–' : student.present ? 'here' : 'away'}
        </button>
      </td>
      {student.cells.map((cell, at) => {
        const chosen = place?.student === student.studentId && place.item === at
        // A link is taught, and shows in the postures it joins: nothing is marked on it by itself.
        if (items[at]!.kind === 'link') return <td key={items[at]!.name} />
        return (
          <td key={cell.postureId + cell.side} className="px-2 py-1">
            <button
              type="button"
              data-grid={`${row},${at + 1}`}
              aria-pressed={chosen}
              className={`flex min-h-11 w-full items-center gap-2 rounded px-2 ${chosen ? 'bg-pine-tint ring-2 ring-river' : 'hover:bg-plaster'}`}
              onClick={() => choose({ student: student.studentId, item: at })}
              onFocus={() => choose({ student: student.studentId, item: at })}
            >
              <Sole
                stage={cell.stage}
                side={cell.side}
                correction={cell.correction}
                fading={cell.fading}
                of={`${student.name}, ${items[at]!.name}`}
                size={34}
              />
              {cell.today.length > 0 && <span className="text-[13.5px] font-semibold text-pine">seen</span>}
            </button>
          </td>
        )
      })}
    </tr>
  )
}
