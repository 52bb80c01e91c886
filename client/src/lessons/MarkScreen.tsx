import { useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { WaitingNote } from '../shared/WaitingNote'
import { Checkbox } from '../ui/Checkbox'
import { useGrid } from '../ui/grid'
import { Kbd } from '../ui/Kbd'
import { useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Sole } from '../ui/Sole'
import { Empty, Heading } from '../ui/states'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { VisuallyHidden } from '../ui/VisuallyHidden'
import { longDate, shortPosture, stageWords } from '../ui/words'
import type { RegisterItem, RegisterStudent } from './data'
import { MarkPanel } from './MarkPanel'
import { TookMinutes } from './TookMinutes'
import { useRegister } from './use-register'

type Mark = Schema['RegisterMark']

const howWords: Record<Schema['TaughtHow'], string> = {
  introduced: 'new',
  reviewed: 'review',
  runThrough: 'run-through',
}

const signWords = (sign: Mark['sign'], rest: Partial<Mark>) =>
  sign === 'stage' && rest.stage ? stageWords[rest.stage] : sign === 'fine' ? 'seen and fine' : (rest.words ?? sign)

/** The register of one lesson: who was there, what was taught, and what was seen, cohort by cohort. What is tapped counts at once, and waits for the network where there is none. */
export function MarkScreen() {
  const { classId, date } = useParams() as { classId: string; date: string }
  const { person } = useSignedIn()
  const teaches = person.role !== 'assistant'
  const [search, setSearch] = useSearchParams()
  const [place, setPlace] = useState<{ student: string; item: number }>()
  const [correcting, setCorrecting] = useState(false)
  const { register, data, entries, add, observe, withdraw } = useRegister({ classId, date })
  const { last, undo } = useUndo()

  const cohort = data?.cohorts.find((one) => one.cohortId === search.get('cohort')) ?? data?.cohorts[0]
  const students = data?.students.filter((one) => one.cohortId === cohort?.cohortId) ?? []
  const student = students.find((one) => one.studentId === place?.student)
  const item = place === undefined ? undefined : cohort?.items[place.item]

  const mark = (sign: Mark['sign'], rest: Partial<Mark> = {}) => {
    if (!student || !item) return
    observe(
      {
        studentId: student.studentId,
        postureId: item.postureId,
        side: item.side,
        sign,
        stage: null,
        faultId: null,
        words: null,
        weight: null,
        ...rest,
      },
      `${student.name}, ${item.name}: ${signWords(sign, rest)}`,
    )
  }
  const attend = (who: readonly RegisterStudent[], present: boolean) => {
    for (const one of who)
      add('attendance', { studentId: one.studentId, present }, `${one.name}: ${present ? 'here' : 'away'}`)
  }
  const say = (cohortId: string, one: RegisterItem, taught: boolean, minutes = one.took) =>
    add(
      'taught',
      {
        cohortId,
        postureId: one.postureId,
        side: one.side,
        kind: one.kind,
        from: one.from,
        how: one.how,
        taught,
        minutes: taught ? minutes : null,
      },
      `${one.name}: ${taught ? 'taught' : 'not taught'}`,
    )
  useKeys((event) => {
    if (event.key === 'Escape' && correcting) setCorrecting(false)
    else if (!student || !item) return false
    else if (event.key === '2') mark('stage', { stage: 'follows' })
    else if (event.key === '3') mark('stage', { stage: 'alone' })
    else if (event.key === '4') mark('stage', { stage: 'flowing' })
    else if (event.key === 's') mark('fine')
    else if (event.key === 'x') setCorrecting(true)
    else return false
    return true
  })

  if (!data) return <Opening of={[register]} what="Opening the register" />
  if (!data.held)
    return (
      <Empty>
        This lesson has not been held yet. It can be marked from its day on.
        <p className="mt-3">
          <Link className="button button-primary" to={`/lessons/${classId}/${date}`}>
            Open the lesson
          </Link>
        </p>
      </Empty>
    )
  if (!cohort)
    return (
      <Empty>
        This class has no cohorts yet.
        <p className="mt-3">
          <Link className="button button-primary" to="/people">
            Add a cohort
          </Link>
        </p>
      </Empty>
    )
  const open = data.cohorts.flatMap((one) =>
    one.items.filter(({ taught }) => taught === null).map((unsaid) => ({ cohortId: one.cohortId, unsaid })),
  )
  return (
    <Tabs
      value={cohort.cohortId}
      onChange={(id) => {
        setSearch({ cohort: id }, { replace: true })
        setPlace(undefined)
      }}
    >
      <Heading
        title={`Mark ${longDate(date)}`}
        facts={
          <>
            <Link to={`/lessons/${classId}/${date}`} className="quiet-link">
              {data.class}, lesson {data.number}
            </Link>{' '}
            · {data.students.filter((one) => one.present).length} here,{' '}
            {data.students.filter((one) => one.present === false).length} away ·{' '}
            {open.length === 0
              ? 'what was taught is recorded'
              : data.recorded
                ? `of ${open.length} things it is not said yet whether they were taught`
                : 'what was taught is not said yet'}
          </>
        }
      >
        {last && (
          <button type="button" className="button" onClick={undo}>
            Undo the last mark <Kbd>z</Kbd>
          </button>
        )}
        {teaches && open.length > 0 && (
          <button
            type="button"
            className={data.recorded ? 'button' : 'button button-primary'}
            onClick={() => open.forEach(({ cohortId, unsaid }) => say(cohortId, unsaid, true))}
          >
            {data.recorded ? 'The rest as planned' : 'All taught as planned'}
          </button>
        )}
      </Heading>
      <div className="px-5 pb-3 empty:hidden">
        <WaitingNote entries={entries} />
      </div>
      <VisuallyHidden>
        <p role="status">{last && `Marked: ${last.what}`}</p>
      </VisuallyHidden>
      <div className="border-y border-line bg-paper px-4 py-1.5">
        <TabList
          label="Cohort"
          options={data.cohorts.map((one) => ({
            value: one.cohortId,
            name: (
              <span className="flex min-h-9 items-center gap-2 font-serif text-base">
                <Ribbon colour={one.colour} half={one.half} size={24} />
                {one.name}
              </span>
            ),
          }))}
        />
      </div>
      <TabPanel value={cohort.cohortId} className="grid flex-1 outline-none lg:grid-cols-[minmax(0,1fr)_350px]">
        <div className={`overflow-x-auto bg-paper ${student ? 'max-lg:pb-[46vh]' : 'pb-6'}`}>
          <RegisterTable
            name={cohort.name}
            items={cohort.items}
            students={students}
            place={place}
            choose={setPlace}
            attend={attend}
            say={teaches ? (one, taught) => say(cohort.cohortId, one, taught) : undefined}
          />
          {teaches && (
            <TookMinutes
              key={cohort.cohortId}
              items={cohort.items}
              say={(one, took) => say(cohort.cohortId, one, true, took)}
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
          withdraw={(id) => withdraw(id, 'an observation')}
          close={() => {
            setCorrecting(false)
            setPlace(undefined)
          }}
        />
      </TabPanel>
    </Tabs>
  )
}

interface RegisterTableProps {
  name: string
  items: RegisterItem[]
  students: RegisterStudent[]
  place: { student: string; item: number } | undefined
  choose: (place: { student: string; item: number }) => void
  attend: (who: readonly RegisterStudent[], present: boolean) => void
  /** Absent for whoever does not say what was taught. */
  say: ((item: RegisterItem, taught: boolean) => void) | undefined
}

function RegisterTable({ name, items, students, place, choose, attend, say }: RegisterTableProps) {
  const grid = useGrid<HTMLTableElement>()
  const unsaid = students.filter((one) => one.present === null)
  return (
    <table role="grid" aria-label={`Register of ${name}`} className="border-collapse" {...grid}>
      <thead>
        <tr className="border-b border-line align-bottom">
          <th scope="col" className="sticky left-0 z-10 min-w-40 bg-paper px-5 py-2 text-left">
            {students.length} in {name}
          </th>
          <th scope="col" className="px-2 py-2">
            {unsaid.length > 0 ? (
              <button
                type="button"
                data-grid="0,0"
                tabIndex={-1}
                className="button"
                onClick={() => attend(unsaid, true)}
              >
                All here
              </button>
            ) : (
              'Here'
            )}
          </th>
          {items.map((one, at) => (
            <th key={one.kind + one.name} scope="col" className="min-w-28 px-2 py-2 text-left align-bottom">
              <span className="font-serif">{one.kind === 'link' ? shortPosture(one.name) : one.name}</span>
              <TaughtTick item={one} at={at + 1} say={say} />
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {students.map((one, row) => (
          <StudentRow
            key={one.studentId}
            student={one}
            row={row + 1}
            items={items}
            place={place}
            choose={choose}
            attend={(present) => attend([one], present)}
          />
        ))}
      </tbody>
    </table>
  )
}

/** Taught, not taught, or nobody has said so yet. */
function TaughtTick({ item, at, say }: { item: RegisterItem; at: number; say: RegisterTableProps['say'] }) {
  const words = `${howWords[item.how]}${item.taught === null ? ', not said' : item.taught ? '' : ', not taught'}`
  return say ? (
    <Checkbox
      className="mt-1 font-normal text-soft"
      grid={`0,${at}`}
      label={`${item.name}, ${words}`}
      checked={item.taught ?? 'indeterminate'}
      onChange={(taught) => say(item, taught)}
    >
      {words}
    </Checkbox>
  ) : (
    <span className="mt-1 block font-normal text-soft">{words}</span>
  )
}

interface StudentRowProps {
  student: RegisterStudent
  row: number
  items: RegisterItem[]
  place?: { student: string; item: number }
  choose: (place: { student: string; item: number }) => void
  attend: (present: boolean) => void
}

function StudentRow({ student, row, items, place, choose, attend }: StudentRowProps) {
  return (
    <tr className="border-b border-fine">
      <th
        scope="row"
        className={`sticky left-0 z-10 bg-paper px-5 py-1 text-left text-base ${student.present === false ? 'text-soft line-through' : ''}`}
      >
        {student.name}
      </th>
      <td className="px-2 py-1">
        <button
          type="button"
          data-grid={`${row},0`}
          tabIndex={-1}
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
        const now = cell.today.at(-1)
        return (
          <td key={cell.postureId + cell.side} aria-selected={chosen} className="px-2 py-1">
            <button
              type="button"
              data-grid={`${row},${at + 1}`}
              tabIndex={-1}
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
              {now && (
                <span className="text-small font-semibold text-pine">{now.stage ? stageWords[now.stage] : 'seen'}</span>
              )}
            </button>
          </td>
        )
      })}
    </tr>
  )
}
