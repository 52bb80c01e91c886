import { memo, useCallback, useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { useSignedIn } from '../shared/session'
import { useQuery } from '@tanstack/react-query'
import { leave } from '../shared/leaving'
import { placesOf, studentsQuery } from '../shared/people'
import { useSearch } from '../shared/search'
import { Ribbon } from '../ui/Ribbon'
import { Empty } from '../ui/states'
import { Option, Select } from '../ui/Select'
import { useSteady } from '../ui/use-steady'
import { useWhenSeen } from '../ui/use-when-seen'
import { halfWords, shortDay } from '../ui/words'
import { MoveBar } from './MoveBar'
import { modeNames, type School, type Student } from './data'
import { StudentPanel } from './StudentPanel'
import { Checkbox } from '../ui/Checkbox'

interface Filters {
  text: string
  classId: string
  sashId: string
  mode: string
  who: 'here' | 'waiting' | 'left' | 'all'
}

const nobodyOut: Filters = { text: '', classId: '', sashId: '', mode: '', who: 'here' }

/** So many rows are drawn at first, and again so many whenever their end comes near: a letter typed shows within a frame however long the roster. */
const FIRST = 20

/** Every student: found, filtered, chosen several at once and moved. */
export function RosterView({ school }: { school: School }) {
  const { isHead } = useSignedIn()
  const [search, set] = useSearch()
  const [filters, setFilters] = useState(() => ({ ...nobodyOut, who: whoIn(search.get('who')) }))
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [limit, setLimit] = useState(FIRST)
  // Who has been written here one after the other: they are seen whatever is filtered.
  const [written, setWritten] = useState<{ ids: readonly string[]; before?: Schema['StudentText'] }>({ ids: [] })
  // Each form for somebody new is one of its own: what was begun before is not gone on with.
  const [begun, setBegun] = useState(0)
  const end = useWhenSeen(() => setLimit((before) => before + FIRST), limit)
  const students = useQuery(studentsQuery())
  const chosen = search.get('student')
  const rows = useMemo(() => (students.data ?? []).map((student) => describe(school, student)), [school, students.data])
  const shown = useMemo(() => rows.filter(matching(filters, chosen, written.ids)), [rows, filters, chosen, written])
  const pick = useCallback(
    (id: string, on: boolean) =>
      setPicked((before) => (on ? new Set([...before, id]) : new Set([...before].filter((one) => one !== id)))),
    [],
  )
  const go = (student: string | null) =>
    leave(() => {
      setWritten(({ ids }) => ({ ids }))
      setBegun((before) => before + 1)
      set({ student })
    })
  const { open, close } = useSteady({
    open: (id: string) => go(id),
    // A save that is answered late closes whom it was about, and nobody who was opened since.
    close: (id: string | null) => search.get('student') === id && set({ student: null }),
  })
  if (!students.data) return <Opening of={[students]} what="Opening the roster" />
  const student = students.data.find((one) => one.id === chosen)
  const filter = (part: Partial<Filters>) => {
    setFilters((before) => ({ ...before, ...part }))
    setWritten({ ids: [] })
    setLimit(FIRST)
  }
  const total = rows.filter(matching({ ...nobodyOut, who: filters.who }, chosen, written.ids)).length
  const choice = (
    label: string,
    value: string,
    onChange: (value: string) => void,
    options: readonly (readonly [string, string])[],
  ) => (
    <Select label={label} value={value} onChange={(chosen) => onChange(chosen)}>
      {options.map(([id, name]) => (
        <Option key={id} value={id}>
          {name}
        </Option>
      ))}
    </Select>
  )
  return (
    <div className={`grid flex-1 border-t border-line ${chosen ? 'lg:grid-cols-[minmax(0,1fr)_420px]' : ''}`}>
      <div className="@container min-w-0 overflow-x-auto px-5 pt-3 pb-10">
        <div className="flex flex-wrap items-center gap-3 pb-3">
          <input
            type="search"
            className="field w-52"
            aria-label="Filter the roster"
            placeholder="Name"
            value={filters.text}
            onChange={(event) => filter({ text: event.target.value })}
          />
          {choice('Class', filters.classId, (classId) => filter({ classId }), [
            ['', 'every class'],
            ...school.classes.map((one) => [one.id, one.name] as const),
          ])}
          {choice('Sash', filters.sashId, (sashId) => filter({ sashId }), [
            ['', 'every sash'],
            ...school.sashes.map((one) => [one.id, one.name] as const),
          ])}
          {choice('Mode', filters.mode, (mode) => filter({ mode }), [
            ['', 'every mode'],
            ...modeNames.map((one) => [one, one] as const),
          ])}
          {isHead &&
            choice('Who', filters.who, (who) => filter({ who: who as Filters['who'] }), [
              ['here', 'who learns here'],
              ['waiting', 'without a class'],
              ['left', 'who left'],
              ['all', 'everybody'],
            ])}
          <span className="text-soft" role="status">
            {shown.length} of {total}
          </span>
          {isHead && (
            <span className="ml-auto flex items-center gap-4">
              <a className="quiet-link" href="/api/students.csv" download>
                Export
              </a>
              <Link className="quiet-link" to="/people?view=import">
                Import
              </Link>
              <button type="button" className="button" onClick={() => go('new')}>
                Add a student
              </button>
            </span>
          )}
        </div>
        {isHead && (
          <MoveBar
            school={school}
            students={students.data.filter((one) => picked.has(one.id))}
            letGo={(ids) => setPicked((before) => new Set([...before].filter((one) => !ids.includes(one))))}
          />
        )}
        <table className="w-full min-w-[760px] table-fixed border-collapse bg-paper">
          <thead>
            <tr className="border-b border-line text-left text-soft">
              {isHead && (
                <th scope="col" className="w-10 py-2 pl-3">
                  <Checkbox
                    label="Choose all shown"
                    checked={shown.length > 0 && shown.every((row) => picked.has(row.student.id))}
                    onChange={(checked) => setPicked(new Set(checked ? shown.map((row) => row.student.id) : []))}
                  />
                </th>
              )}
              {columns.map(([head, width]) => (
                <th key={head} scope="col" className={`px-3 py-2 font-semibold ${width}`}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {/* A row of the table is used again for whoever comes to stand there: making rows anew costs a frame. */}
            {shown.slice(0, limit).map((row, at) => (
              <RosterRow
                key={at}
                row={row}
                isChosen={row.student.id === chosen}
                isPicked={picked.has(row.student.id)}
                open={open}
                pick={isHead ? pick : undefined}
              />
            ))}
          </tbody>
        </table>
        {limit < shown.length && <div ref={end} aria-hidden className="h-px" />}
        {shown.length === 0 &&
          (rows.length === 0 && isHead ? (
            <Empty
              next={[
                { name: 'Import a spreadsheet', to: '/people?view=import' },
                { name: 'Add the first student', act: () => go('new') },
              ]}
            >
              Nobody is on the roster yet.
            </Empty>
          ) : (
            <p className="p-4 text-soft">Nobody matches.</p>
          ))}
      </div>
      {(student !== undefined || chosen === 'new') && (
        <StudentPanel
          key={student ? student.id : `new ${begun} ${written.ids.length}`}
          student={student}
          school={school}
          close={() => close(chosen)}
          after={student ? undefined : written.before}
          added={(id, before) => {
            setWritten(({ ids }) => ({ ids: [...ids, id], before }))
            if (!before && search.get('student') === 'new') set({ student: id })
          }}
        />
      )}
    </div>
  )
}

interface Row {
  student: Student
  sash: School['sashes'][number] | undefined
  cohorts: string
  classes: string
  classIds: string[]
  state: Exclude<Filters['who'], 'all'>
  sought: string
}

function describe(school: School, student: Student): Row {
  const places = placesOf(school, student)
  const sash = school.sashes.find((one) => one.id === student.sashId)
  const cohorts = places.map(({ cohort }) => cohort.name).join(', ')
  return {
    student,
    sash,
    cohorts,
    classes: places.map(({ schoolClass }) => schoolClass.name).join(', '),
    classIds: places.map(({ schoolClass }) => schoolClass.id),
    state: student.left ? 'left' : student.cohortIds.length === 0 ? 'waiting' : 'here',
    sought: plain(
      [
        student.name,
        sash?.name,
        halfWords[student.half],
        cohorts,
        ...places.map(({ schoolClass }) => schoolClass.name),
      ].join(' '),
    ),
  }
}

/** Small letters without accents. */
const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

const whoIn = (said: string | null): Filters['who'] =>
  (['waiting', 'left', 'all'] as const).find((who) => who === said) ?? 'here'

/** Whoever is open stays in sight, whatever is filtered: somebody just added is not looked for. */
function matching({ text, classId, sashId, mode, who }: Filters, open: string | null, written: readonly string[]) {
  const words = plain(text).split(' ')
  return (row: Row) =>
    row.student.id === open ||
    written.includes(row.student.id) ||
    ((who === 'all' || row.state === who) &&
      (!classId || row.classIds.includes(classId)) &&
      (!sashId || row.student.sashId === sashId) &&
      (!mode || row.student.mode === mode) &&
      words.every((word) => row.sought.includes(word)))
}

/** Beside an open panel there is no room for it, and the panel says it. */
const SINCE = 'w-[11%] @max-5xl:hidden'

const columns = [
  ['Name', 'w-[24%]'],
  ['Sash', 'w-[19%]'],
  ['Since', SINCE],
  ['Cohort', 'w-[13%]'],
  ['Class', 'w-[18%]'],
  ['Mode', 'w-[104px]'],
  ['', 'w-[72px]'],
] as const

const RosterRow = memo(function RosterRow({
  row: { student, sash, cohorts, classes, state },
  isChosen,
  isPicked,
  open,
  pick,
}: {
  row: Row
  isChosen: boolean
  isPicked: boolean
  open: (id: string) => void
  pick: ((id: string, on: boolean) => void) | undefined
}) {
  return (
    <tr className={`border-b border-fine ${isChosen ? 'bg-pine-tint' : ''}`}>
      {pick && (
        <td className="py-1.5 pl-3">
          <Checkbox
            label={`Choose ${student.name}`}
            checked={isPicked}
            onChange={(checked) => pick(student.id, checked)}
          />
        </td>
      )}
      <th scope="row" className="px-3 py-1.5 text-left font-semibold">
        {student.name}
        {student.hasLimits && <span className="ml-2 text-small font-normal text-ochre">limits</span>}
      </th>
      <td className="px-3 py-1.5">
        <span className="flex items-center gap-2 whitespace-nowrap">
          <Ribbon colour={sash?.colour ?? '#cccccc'} half={student.half} size={20} />
          {sash?.name} {halfWords[student.half]}
        </span>
      </td>
      <td className={`px-3 py-1.5 whitespace-nowrap text-soft ${SINCE}`}>
        {shortDay(student.sashSince)} {student.sashSince.slice(0, 4)}
      </td>
      <td className="px-3 py-1.5">
        {state === 'left' ? (
          <span className="text-soft">left {shortDay(student.left!)}</span>
        ) : (
          cohorts || <span className="text-ochre">none yet</span>
        )}
      </td>
      <td className="px-3 py-1.5">{classes}</td>
      <td className="px-3 py-1.5">{student.mode}</td>
      <td className="px-3 py-1.5 text-right">
        <button
          type="button"
          className="quiet-link"
          aria-label={`Open ${student.name}`}
          onClick={() => open(student.id)}
        >
          Open
        </button>
      </td>
    </tr>
  )
})
