import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Opening } from '../shared/Opening'
import { useSearch } from '../shared/search'
import type { Schema } from '../api/client'
import { arrangementQuery, lessonQuery } from './data'
import { useSignedIn } from '../shared/session'
import { Option, Select } from '../ui/Select'
import { ToggleGroup } from '../ui/ToggleGroup'
import { Empty, Heading } from '../ui/states'
import { clockTime, longDate } from '../ui/words'
import { idOf, type Arrangement } from './arranging'
import { ArrangementPicture, inkOf } from './ArrangementPicture'
import { ArrangingByHand, useArranging } from './ArrangingByHand'
import { BlockWords } from './BlockWords'
import { FloorView } from './FloorView'
import { LessonPrint } from './LessonPrint'
import { WatchTonight } from './WatchTonight'

type Sheet = Schema['LessonSheet']

/** Before the teacher somebody stands in for. */
const STAND_IN = 'for '

/** One lesson on its minutes: every cohort's lane, who leads what when; the chosen block in words below, to be moved by hand. */
export function LessonScreen() {
  const { classId, date } = useParams() as { classId: string; date: string }
  const { today, person } = useSignedIn()
  const [chosen, setChosen] = useState<string>()
  const [whose, setWhose] = useState('')
  const [search, set] = useSearch()
  const view = search.get('view') === 'floor' ? 'floor' : 'minutes'
  const lesson = useQuery(lessonQuery({ classId, date }))
  const arrangement = useQuery(arrangementQuery({ classId, date }, lesson.data?.planned === true))
  const arranging = useArranging({ classId, date }, arrangement.data, person.role !== 'assistant')
  if (!lesson.data || (lesson.data.planned && !arrangement.data))
    return <Opening of={[lesson, arrangement]} what="Opening the lesson" />
  const sheet = lesson.data
  const arranged = arrangement.data
  const shown =
    arranged?.blocks.find((block) => idOf(block) === chosen) ??
    // What has no task of its own is at another minute now.
    arranged?.blocks.find((block) => chosen?.startsWith(`${block.cohortId} ${block.kind} `)) ??
    arranged?.blocks.find((block) => block.kind === 'new')
  return (
    <>
      <div className="screen-only">
        <Heading
          title={longDate(sheet.date)}
          facts={`${sheet.class}, lesson ${sheet.number} · ${sheet.hall}, ${clockTime(sheet.start)} to ${clockTime(sheet.end)}${arranged?.focus ? ` · focus: ${arranged.focus}` : ''}`}
        >
          {arranged?.teachers.map((teacher) => (
            <span key={teacher.id} className="flex items-center gap-1.5 font-semibold">
              <span
                aria-hidden
                className="grid h-5 w-5 place-items-center rounded-full text-small font-bold text-white"
                style={{ background: inkOf(sheet.staff, teacher.name) }}
              >
                {teacher.name[0]}
              </span>
              {teacher.name.split(' ')[0]}
              {teacher.isAssistant && ', assistant'}
            </span>
          ))}
          {arranged && (
            <ToggleGroup
              label="What is shown"
              value={view}
              onChange={(to) => set({ view: to === 'floor' ? to : null })}
              options={[
                { value: 'minutes', name: 'Minutes' },
                { value: 'floor', name: 'Floor' },
              ]}
            />
          )}
          {date <= today && (
            <Link to={`/lessons/${classId}/${date}/mark`} className="button">
              Mark this lesson
            </Link>
          )}
          {date < today && (
            <Link to={`/lessons/${classId}/${date}/back`} className="button">
              Look back
            </Link>
          )}
          {arranged && (
            <Link
              to={`/lessons/${classId}/${date}/hall`}
              className={`button ${date === today ? 'button-primary' : ''}`}
            >
              Open the hall
            </Link>
          )}
          {arranged && (
            <Select label="Whose sheet is printed" value={whose} onChange={setWhose}>
              <Option value="">Sheet for the wall</Option>
              {arranged.teachers.map((teacher) => (
                <Option key={teacher.id} value={teacher.id}>
                  Sheet for {teacher.name.split(' ')[0]}
                </Option>
              ))}
              {arranged.teachers.map((teacher) => (
                <Option key={teacher.id} value={`${STAND_IN}${teacher.id}`}>
                  Sheet for who stands in for {teacher.name.split(' ')[0]}
                </Option>
              ))}
            </Select>
          )}
          <button
            type="button"
            className={`button ${date === today && arranged ? '' : 'button-primary'}`}
            onClick={() => window.print()}
          >
            Print
          </button>
        </Heading>
        {!arranged ? (
          <Empty>
            This lesson is not planned.{' '}
            <Link to={`/term/${classId}`} className="quiet-link">
              Plan the term
            </Link>{' '}
            first.
          </Empty>
        ) : (
          <>
            <ArrangingByHand
              lesson={{ classId, date }}
              start={sheet.start}
              arrangement={arranged}
              arranging={arranging}
            />
            {view === 'floor' ? (
              <div className="border-y border-line">
                <FloorView
                  lesson={{ classId, date }}
                  arrangement={arranged}
                  cohorts={sheet.cohorts}
                  start={sheet.start}
                  inkOf={(name) => inkOf(sheet.staff, name) ?? ''}
                />
              </div>
            ) : (
              <>
                <ArrangementPicture
                  arrangement={arranged}
                  cohorts={sheet.cohorts}
                  staff={sheet.staff}
                  start={sheet.start}
                  chosen={shown && idOf(shown)}
                  choose={setChosen}
                  move={arranging.may ? (block, start) => arranging.pin(block, { start }) : undefined}
                  onKey={arranging.key}
                />
                <HowGood arrangement={arranged} />
                <p className="px-5 pt-2 text-soft">
                  Solid: led, under the thread of whoever leads. Dashed: the cohort practises by itself; a bar at its
                  foot is a teacher coming by.{' '}
                  {arranging.may &&
                    'Drag a block to another minute, or press Shift and an arrow on it; everything else is arranged around it.'}
                </p>
                <div className="grid gap-8 px-5 py-4 lg:grid-cols-[5fr_4fr_4fr]">
                  {shown && (
                    <BlockWords
                      block={shown}
                      arrangement={arranged}
                      cohort={sheet.cohorts.find((one) => one.cohortId === shown.cohortId)}
                      start={sheet.start}
                      arranging={arranging}
                    />
                  )}
                  <WatchTonight arrangement={arranged} start={sheet.start} arranging={arranging} />
                  <ForThesePeople sheet={sheet} />
                </div>
              </>
            )}
          </>
        )}
      </div>
      <LessonPrint
        sheet={sheet}
        arrangement={arranged}
        whose={{ teacherId: whose.replace(STAND_IN, ''), standIn: whose.startsWith(STAND_IN) }}
      />
    </>
  )
}

/** How far from the best there is it may be; of what has no room it is said elsewhere what would help. */
function HowGood({ arrangement: { shortfalls, gap, meetsNeedsBest } }: { arrangement: Arrangement }) {
  if (shortfalls.length > 0) return null
  const farthest = `at most ${(gap * 100).toFixed(1)} % from the best there is`
  return (
    <p className="px-5 pt-2">
      {gap === 0 && 'Proven: no arrangement of this lesson is better.'}
      {gap > 0 &&
        meetsNeedsBest &&
        `Proven: with who is there nobody can be led for longer, and nobody else be looked at. Comings and goings counted, it is ${farthest}.`}
      {gap > 0 && !meetsNeedsBest && `Everything asked is there, and it is ${farthest}.`}
    </p>
  )
}

function ForThesePeople({ sheet }: { sheet: Sheet }) {
  const attended = sheet.cohorts.filter((cohort) => cohort.attended)
  return (
    <section>
      <h2 className="text-lg">For these people</h2>
      {attended.map((cohort) => (
        <p key={cohort.cohortId} className="mt-1">
          <b>{cohort.name}</b> has somebody beside it all lesson.
        </p>
      ))}
      {sheet.care.map((care) => (
        <p key={care.says} className={`mt-1 ${care.open ? 'border-l-4 border-lacquer pl-2 font-semibold' : ''}`}>
          {care.says}.{' '}
          {care.open && (
            <Link to="/people?view=safety" className="quiet-link">
              Settle it
            </Link>
          )}
        </p>
      ))}
      <div className="mt-2 border-l-4 border-ochre-mark pl-3 text-small">
        {[...new Set([...sheet.cohorts.flatMap((cohort) => cohort.cautions), ...sheet.cautions])].map((caution) => (
          <p key={caution} className="mb-1">
            {caution}
          </p>
        ))}
      </div>
    </section>
  )
}
