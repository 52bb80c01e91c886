import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { useSignedIn } from '../app/session'
import { moveInGrid, useKeys } from '../ui/keys'
import { Panel } from '../ui/Panel'
import { Ribbon } from '../ui/Ribbon'
import { Sole } from '../ui/Sole'
import { SoleKey } from '../ui/SoleKey'
import { Empty, Failure, Heading, Tabs, Waiting } from '../ui/states'
import { shortPosture } from '../ui/words'
import { StudentHistory } from './StudentHistory'

type Row = Schema['ProgressRow']
type Show = 'all' | 'corrections' | 'unseen'

/** Students by postures, drawn with soles: who can do what, what needs correcting, who has not been seen. */
export function ProgressScreen() {
  const { classId } = useParams()
  const { today } = useSignedIn()
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [show, setShow] = useState<Show>('all')
  const table = useRef<HTMLDivElement>(null)
  const school = useQuery({ queryKey: ['people'], queryFn: () => answer(api.GET('/api/people')) })
  const lessons = useQuery({ queryKey: ['lessons'], queryFn: () => answer(api.GET('/api/lessons')) })
  const meeting =
    school.data?.classes.find((one) => one.id === classId) ??
    school.data?.classes.toSorted((a, b) => b.cohorts.length - a.cohorts.length)[0]
  const progress = useQuery({
    queryKey: ['progress', meeting?.id],
    enabled: meeting !== undefined,
    queryFn: () => answer(api.GET('/api/classes/{classId}/progress', { params: { path: { classId: meeting!.id } } })),
  })
  const studentId = search.get('student')
  const choose = (row: Row, column?: Schema['ProgressColumn']) =>
    setSearch(
      column ? { student: row.studentId, posture: column.postureId, side: column.side } : { student: row.studentId },
      { replace: true },
    )
  useKeys((event) => {
    if (event.key !== 'Escape' || !studentId) return false
    setSearch({}, { replace: true })
    return true
  })

  const failed = school.error ?? progress.error
  if (failed) return <Failure error={failed} retry={() => void progress.refetch()} />
  if (!school.data) return <Waiting what="Opening the records" />
  if (!meeting) return <Empty>There is no class yet.</Empty>
  if (!progress.data) return <Waiting what="Opening the records" />
  const data = progress.data
  const rows = data.rows.filter(
    (row) =>
      show === 'all' || (show === 'unseen' ? row.longUnseen : row.cells.some((cell) => cell.correction !== null)),
  )
  const last = lessons.data?.filter((lesson) => lesson.classId === meeting.id && lesson.date <= today).at(-1)
  return (
    <>
      <Heading
        title="Who can do what"
        facts={`${data.rows.length} students · ${data.openCorrections} corrections open`}
      >
        <Tabs
          label="Show"
          value={show}
          options={[
            { value: 'all', name: 'Everybody' },
            {
              value: 'corrections',
              name: `Corrections ${data.rows.filter((row) => row.cells.some((cell) => cell.correction !== null)).length}`,
            },
            { value: 'unseen', name: `Not seen ${data.longUnseen}` },
          ]}
          onChange={setShow}
        />
        {school.data.classes.length > 1 && (
          <Tabs
            label="Class"
            value={meeting.id}
            options={school.data.classes.map((one) => ({ value: one.id, name: one.name }))}
            onChange={(id) => void navigate(`/progress/${id}`)}
          />
        )}
        {last && (
          <Link to={`/lessons/${last.classId}/${last.date}/mark`} className="button button-primary">
            {last.date === today ? 'Mark today’s lesson' : 'Mark the last lesson'}
          </Link>
        )}
      </Heading>
      <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_340px]">
        <div
          ref={table}
          className="max-h-[calc(100vh-150px)] overflow-auto bg-paper"
          onKeyDown={(event) => table.current && moveInGrid(table.current, event)}
        >
          <table className="border-separate border-spacing-0">
            <thead>
              <tr>
                <th
                  scope="col"
                  className="sticky top-0 left-0 z-50 min-w-44 bg-paper px-5 pb-2 text-left align-bottom font-normal text-soft"
                >
                  {rows.length} shown
                </th>
                {data.columns.map((column, c) => (
                  // Each head lies over the next, so that slanted names are not cut off.
                  <th
                    key={column.postureId + column.side}
                    scope="col"
                    className="slanted sticky top-0 h-40 w-7 min-w-7 bg-paper pb-1 align-bottom font-normal"
                    style={{ zIndex: 15 + data.columns.length - c }}
                  >
                    <span>{shortPosture(column.name)}</span>
                  </th>
                ))}
                <th
                  scope="col"
                  className="sticky top-0 z-12 min-w-20 bg-paper px-3 pb-2 text-right align-bottom font-normal whitespace-nowrap text-soft"
                >
                  last seen
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row, at) => (
                <tr key={row.studentId} className={row.studentId === studentId ? 'bg-pine-tint' : ''}>
                  <th
                    scope="row"
                    className={`sticky left-0 z-10 border-b border-fine px-5 py-0.5 text-left ${row.studentId === studentId ? 'bg-pine-tint' : 'bg-paper'}`}
                  >
                    <button
                      type="button"
                      className="flex items-center gap-2 whitespace-nowrap hover:underline"
                      onClick={() => choose(row)}
                    >
                      <Ribbon colour={row.sashColour} half={row.half} size={18} />
                      {row.name}
                    </button>
                  </th>
                  {row.cells.map((cell, c) => {
                    const column = data.columns[c]!
                    const isChosen =
                      row.studentId === studentId &&
                      column.postureId === search.get('posture') &&
                      column.side === search.get('side')
                    return (
                      <td key={c} className="border-b border-fine p-0 text-center">
                        <button
                          type="button"
                          data-grid={`${at},${c}`}
                          tabIndex={(at === 0 && c === 0) || isChosen ? 0 : -1}
                          aria-pressed={isChosen}
                          className={`inline-grid place-items-center rounded px-0.5 py-px ${isChosen ? 'ring-2 ring-river' : ''}`}
                          onClick={() => choose(row, column)}
                        >
                          <Sole
                            stage={cell.stage}
                            side={column.side}
                            correction={cell.correction}
                            fading={cell.fading}
                            of={`${row.name}, ${column.name}`}
                            size={29}
                          />
                        </button>
                      </td>
                    )
                  })}
                  <td
                    className={`border-b border-fine px-3 text-right whitespace-nowrap ${row.longUnseen ? 'font-bold text-ochre' : 'text-soft'}`}
                  >
                    {row.seenDays === null ? 'never' : row.seenDays === 0 ? 'today' : `${row.seenDays} d`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length === 0 && (
            <p className="p-5 text-soft">
              {show === 'unseen' ? 'Everybody has been seen in the last two weeks.' : 'No corrections are open.'}
            </p>
          )}
        </div>
        {studentId ? (
          <StudentHistory
            key={studentId}
            studentId={studentId}
            posture={search.get('posture')}
            side={search.get('side')}
            close={() => setSearch({}, { replace: true })}
          />
        ) : (
          <Panel title="Choose a sole">
            <p>
              A sole is one student in one posture. Choose one to see what was observed, or a name for everything about
              that student.
            </p>
            {data.reTeach.length > 0 && (
              <section>
                <h3>Teach again</h3>
                {data.reTeach.map((proposal) => (
                  <p key={proposal.cohort + proposal.posture + proposal.words}>
                    <b>
                      {proposal.cohort}: {proposal.posture}.
                    </b>{' '}
                    {proposal.have} of {proposal.observed} watched: {proposal.words}.
                  </p>
                ))}
              </section>
            )}
            <SoleKey />
          </Panel>
        )}
      </div>
    </>
  )
}
