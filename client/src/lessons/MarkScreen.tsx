import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { useSearch } from '../shared/search'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { WaitingNote } from '../shared/WaitingNote'
import { Kbd } from '../ui/Kbd'
import type { MenuItem } from '../ui/menu'
import { useKeys } from '../ui/keys'
import { Ribbon } from '../ui/Ribbon'
import { Empty, Heading } from '../ui/states'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { VisuallyHidden } from '../ui/VisuallyHidden'
import { counted, longDate, stageWords } from '../ui/words'
import { AddTaught } from './AddTaught'
import type { Register, RegisterItem, RegisterStudent } from './data'
import { MarkPanel } from './MarkPanel'
import { EverybodyPanel } from './EverybodyPanel'
import { RegisterTable, type Place } from './RegisterTable'
import { TookMinutes } from './TookMinutes'
import { useRegister } from './use-register'
import { useSweep } from './use-sweep'
import { keyOf } from './went'

type Mark = Schema['RegisterMark']

const markable = ['follows', 'alone', 'flowing'] as const

function signWords(sign: Mark['sign'], { principleId, stage, words }: Partial<Mark>): string {
  if (principleId && sign !== 'fault') return `${words}, ${sign === 'fine' ? 'kept' : sign}`
  if (stage) return stageWords[stage]
  return words ?? (sign === 'fine' ? 'seen and fine' : '')
}

/** The register of one lesson: who was there, what was taught, and what was seen, cohort by cohort. What is tapped counts at once, and waits for the network where there is none. */
export function MarkScreen() {
  const { classId, date } = useParams() as { classId: string; date: string }
  const { person, isHead } = useSignedIn()
  const teaches = person.role !== 'assistant'
  const [search, set] = useSearch()
  const [place, setPlace] = useState<Place>()
  const [correcting, setCorrecting] = useState(false)
  const [seenAs, setSeenAs] = useState<{ item: number; inRunThrough: boolean }>()
  const [doneIn, setDoneIn] = useState<{ student: string; mode: string }>()
  const { register, data, entries, add, observe, observeAll, withdraw, tryWay } = useRegister({ classId, date })
  const { last, undo } = useUndo()

  const cohort = data?.cohorts.find((one) => one.cohortId === search.get('cohort')) ?? data?.cohorts[0]
  const students = data?.students.filter((one) => one.cohortId === cohort?.cohortId) ?? []
  const student = students.find((one) => one.studentId === place?.student)
  const item = place === undefined ? undefined : cohort?.items[place.item]

  const observed = (student: RegisterStudent, item: RegisterItem, sign: Mark['sign'], rest: Partial<Mark> = {}) =>
    observe(student, item, sign, rest, signWords(sign, rest))
  const mode = doneIn && doneIn.student === student?.studentId ? doneIn.mode : (student?.mode ?? 'standing')
  // What was run through tonight was seen so, unless it is said otherwise.
  const said = seenAs && seenAs.item === place?.item ? { inRunThrough: seenAs.inRunThrough } : undefined
  const isInRunThrough = said?.inRunThrough ?? item?.how === 'runThrough'
  const { sweep, of } = useSweep(cohort?.items ?? [], place, isInRunThrough)
  /** What was seen of all of them, but where it stopped; the first stop is opened next. */
  const markThrough = (who: readonly RegisterStudent[], as: string, sign: Mark['sign'], rest: Partial<Mark>) => {
    if (!place || !item) return
    // Of one thing the register knows how it is seen; a sweep goes through all of it in one way.
    const [its, how] = sweep.downTo ? [of, { inRunThrough: isInRunThrough }] : [[item], {}]
    if (its.length > 0)
      observeAll(
        who.flatMap((student) => its.map((item) => ({ student, item }))),
        sign,
        { ...how, ...rest },
        signWords(sign, rest),
        `${as}, ${item.name}${sweep.downTo ? ` to ${sweep.downTo.name}` : ''}`,
      )
    const stop = Math.min(...sweep.stops)
    if (!Number.isFinite(stop)) return
    setPlace({ ...place, item: stop })
    setCorrecting(place.student !== null)
  }
  const mark = (sign: Mark['sign'], rest?: Partial<Mark>) => {
    if (!student || !item) return
    const seen = { mode, ...said, ...rest }
    if (!sweep.downTo || sign === 'fault' || sign === 'noted' || rest?.principleId) observed(student, item, sign, seen)
    else markThrough([student], student.name, sign, seen)
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
  /** What can be said of what was pressed in the table, without opening it. */
  const menu = (row: number, column: number): readonly MenuItem[] => {
    const [one, its] = [students[row - 1], cohort?.items[column - 1]]
    if (row === 0)
      return cohort?.items[column - 1]
        ? [{ name: 'Everybody …', act: () => setPlace({ student: null, item: column - 1 }) }]
        : []
    if (!one) return []
    if (column === 0)
      return [
        { name: 'Here', act: () => attend([one], true) },
        { name: 'Away', act: () => attend([one], false) },
      ]
    if (!its) return []
    const seen = one.cells[column - 1]?.today.at(-1)
    return [
      ...markable.map((stage) => ({ name: stageWords[stage], act: () => observed(one, its, 'stage', { stage }) })),
      { name: 'seen and fine', act: () => observed(one, its, 'fine') },
      {
        name: 'correction …',
        act: () => {
          setPlace({ student: one.studentId, item: column - 1 })
          setCorrecting(true)
        },
      },
      ...(seen ? [{ name: 'Withdraw what was seen last', act: () => withdraw(seen.id, 'an observation') }] : []),
    ]
  }
  useKeys((event) => {
    if (event.key === 'Escape' && correcting) setCorrecting(false)
    else if (!student || !item) return false
    else if (event.key === '2') mark('stage', { stage: 'follows' })
    else if (event.key === '3') mark('stage', { stage: 'alone' })
    else if (event.key === '4') mark('stage', { stage: 'flowing' })
    else if (event.key === 's') mark('fine')
    else if (event.key === 'x') setCorrecting(true)
    else if (event.key === 'e' && place) setPlace({ student: null, item: place.item })
    else return false
    return true
  })

  if (!data) return <Opening of={[register]} what="Opening the register" />
  if (!data.held)
    return (
      <Empty next={[{ name: 'Open the lesson', to: `/lessons/${classId}/${date}` }]}>
        This lesson has not been held yet. It can be marked from its day on.
      </Empty>
    )
  if (!cohort)
    return <Empty next={isHead && [{ name: 'Add a cohort', to: '/people' }]}>This class has no cohorts yet.</Empty>
  const open = data.cohorts.flatMap((one) =>
    one.items.filter(({ taught }) => taught === null).map((unsaid) => ({ cohortId: one.cohortId, unsaid })),
  )
  return (
    <Tabs
      value={cohort.cohortId}
      onChange={(id) => {
        set({ cohort: id })
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
            {data.students.filter((one) => one.present === false).length} away · {whatIsSaid(data, open.length)}
          </>
        }
      >
        <button type="button" className="button" disabled={!last} onClick={undo}>
          Undo the last mark <Kbd>z</Kbd>
        </button>
        {data.recorded && (
          <Link to={`/lessons/${classId}/${date}/back`} className="button">
            Look back
          </Link>
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
        <div className="flex min-w-0 flex-col bg-paper">
          <div className={`overflow-x-auto bg-paper ${student ? 'max-lg:pb-[46vh]' : 'pb-6'}`}>
            <RegisterTable
              name={cohort.name}
              items={cohort.items}
              students={students}
              place={place}
              choose={setPlace}
              attend={attend}
              say={teaches ? (one, taught) => say(cohort.cohortId, one, taught) : undefined}
              menu={menu}
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
            {teaches && (
              <AddTaught
                key={`more ${cohort.cohortId}`}
                items={cohort.items}
                add={({ name, ...what }) =>
                  add(
                    'taught',
                    { cohortId: cohort.cohortId, ...what, from: null, taught: true, minutes: null },
                    `${name}: taught`,
                  )
                }
              />
            )}
          </div>
          <div className={`sticky bottom-0 z-30 ${student ? 'max-lg:bottom-[calc(46vh+3.5rem)]' : 'max-md:bottom-14'}`}>
            <WaitingNote entries={entries} />
          </div>
        </div>
        {place?.student === null && item ? (
          <EverybodyPanel
            key={keyOf(cohort.cohortId, item)}
            item={item}
            students={students}
            sweep={sweep}
            mark={(who, sign, rest = {}) => markThrough(who, counted(who.length, 'person', 'people'), sign, rest)}
            close={() => setPlace(undefined)}
          />
        ) : (
          <MarkPanel
            student={student}
            item={item}
            cell={student && place ? student.cells[place.item] : undefined}
            mode={mode}
            setMode={(mode) => student && setDoneIn({ student: student.studentId, mode })}
            inRunThrough={isInRunThrough}
            setInRunThrough={(inRunThrough) => place && setSeenAs({ item: place.item, inRunThrough })}
            sweep={sweep}
            correcting={correcting}
            setCorrecting={setCorrecting}
            mark={mark}
            tryWay={(...tried) => student && item && tryWay(student, item, ...tried)}
            withdraw={(id) => withdraw(id, 'an observation')}
            close={() => {
              setCorrecting(false)
              setPlace(undefined)
            }}
          />
        )}
      </TabPanel>
    </Tabs>
  )
}

function whatIsSaid({ cohorts, recorded }: Register, open: number) {
  if (cohorts.every(({ items }) => items.length === 0)) return 'no plan says what was to be taught'
  if (open === 0) return 'what was taught is recorded'
  return recorded ? `of ${counted(open, 'thing')} it is not said yet whether taught` : 'what was taught is not said yet'
}
