import { useQuery } from '@tanstack/react-query'
import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useRef, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { lessonsQuery } from '../lessons/data'
import { Opening } from '../shared/Opening'
import { peopleQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { useGrid } from '../ui/grid'
import { Panel } from '../ui/Panel'
import { Ribbon } from '../ui/Ribbon'
import { Sole } from '../ui/Sole'
import { SoleKey } from '../ui/SoleKey'
import { Empty, Heading } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { useSteady } from '../ui/use-steady'
import { shortPosture } from '../ui/words'
import { progressQuery } from './data'
import { StudentHistory } from './StudentHistory'

type Row = Schema['ProgressRow']
type Show = 'all' | 'corrections' | 'unseen'

/** Students by postures, drawn with soles: who can do what, what needs correcting, who has not been seen. */
export function ProgressScreen() {
  const { classId } = useParams()
  const { today, isHead } = useSignedIn()
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [show, setShow] = useState<Show>('all')
  const school = useQuery(peopleQuery())
  const lessons = useQuery(lessonsQuery())
  const schoolClass =
    school.data?.classes.find((one) => one.id === classId) ??
    school.data?.classes.toSorted((a, b) => b.cohorts.length - a.cohorts.length)[0]
  const progress = useQuery(progressQuery(schoolClass?.id))
  const studentId = search.get('student')
  const choose = (row: Row, column?: Schema['ProgressColumn']) =>
    setSearch(
      column ? { student: row.studentId, posture: column.postureId, side: column.side } : { student: row.studentId },
      { replace: true },
    )
  const { open } = useSteady({ open: choose })

  if (!school.data) return <Opening of={[school]} what="Opening the records" />
  if (!schoolClass)
    return (
      <Empty>
        There is no class yet, and so nobody to watch.
        {isHead && (
          <p className="mt-3">
            <Link className="button button-primary" to="/people">
              Add the first class
            </Link>
          </p>
        )}
      </Empty>
    )
  if (!progress.data) return <Opening of={[progress]} what="Opening the records" />
  const data = progress.data
  const rows = data.rows.filter(
    (row) =>
      show === 'all' || (show === 'unseen' ? row.longUnseen : row.cells.some((cell) => cell.correction !== null)),
  )
  const last = lessons.data?.filter((lesson) => lesson.classId === schoolClass.id && lesson.date <= today).at(-1)
  return (
    <>
      <Heading
        title="Who can do what"
        facts={`${data.rows.length} students · ${data.openCorrections} corrections open`}
      >
        <ToggleGroup
          label="Show"
          value={show}
          options={[
            { value: 'all', name: 'Everybody' },
            {
              value: 'corrections',
              name: `With a correction ${data.rows.filter((row) => row.cells.some((cell) => cell.correction !== null)).length}`,
            },
            { value: 'unseen', name: `Not seen ${data.longUnseen}` },
          ]}
          onChange={setShow}
        />
        {school.data.classes.length > 1 && (
          <ToggleGroup
            label="Class"
            value={schoolClass.id}
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
        <Board
          name={schoolClass.name}
          columns={data.columns}
          rows={rows}
          chosen={studentId}
          chosenColumn={data.columns.findIndex(
            (column) => column.postureId === search.get('posture') && column.side === search.get('side'),
          )}
          open={open}
          nobody={show === 'unseen' ? 'Everybody has been seen in the last two weeks.' : 'No corrections are open.'}
        />
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

interface BoardProps {
  name: string
  columns: Schema['ProgressColumn'][]
  rows: Row[]
  chosen: string | null
  chosenColumn: number
  open: (row: Row, column?: Schema['ProgressColumn']) => void
  nobody: string
}

const ROW = 34

/** Only the rows in sight are drawn, however many students there are. */
function Board({ name, columns, rows, chosen, chosenColumn, open, nobody }: BoardProps) {
  const scroller = useRef<HTMLDivElement>(null)
  // eslint-disable-next-line react-hooks/incompatible-library -- what it hands out is used in this drawing only
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  })
  const grid = useGrid<HTMLTableElement>((row, column) => {
    if (row >= rows.length) return
    virtual.scrollToIndex(row)
    requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(`[data-grid="${row},${column}"]`)?.focus())
  })
  const shown = virtual.getVirtualItems()
  const before = shown[0]?.start ?? 0
  const after = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0)
  return (
    <div ref={scroller} className="max-h-[calc(100vh-150px)] overflow-auto bg-paper max-lg:max-h-[calc(100vh-230px)]">
      <table
        role="grid"
        aria-label={`Who can do what in ${name}`}
        aria-rowcount={rows.length + 1}
        className="border-separate border-spacing-0"
        {...grid}
      >
        <thead>
          <tr>
            <th
              scope="col"
              className="sticky top-0 left-0 z-50 min-w-44 bg-paper px-5 pb-2 text-left align-bottom font-normal text-soft"
            >
              {rows.length} shown
            </th>
            {columns.map((column, at) => (
              // Each head lies over the next, so that slanted names are not cut off.
              <th
                key={column.postureId + column.side}
                scope="col"
                className="slanted sticky top-0 h-40 w-7 min-w-7 bg-paper pb-1 align-bottom font-normal"
                style={{ zIndex: 15 + columns.length - at }}
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
          {before > 0 && <tr aria-hidden style={{ height: before }} />}
          {shown.map(({ index }) => {
            const row = rows[index]!
            return (
              <BoardRow
                key={row.studentId}
                at={index}
                row={row}
                columns={columns}
                isChosen={row.studentId === chosen}
                chosenColumn={row.studentId === chosen ? chosenColumn : -1}
                open={open}
              />
            )
          })}
          {after > 0 && <tr aria-hidden style={{ height: after }} />}
        </tbody>
      </table>
      {rows.length === 0 && <p className="p-5 text-soft">{nobody}</p>}
    </div>
  )
}

interface BoardRowProps {
  at: number
  row: Row
  columns: BoardProps['columns']
  isChosen: boolean
  chosenColumn: number
  open: BoardProps['open']
}

/** Drawn anew only when it changes itself. */
const BoardRow = memo(function BoardRow({ at, row, columns, isChosen, chosenColumn, open }: BoardRowProps) {
  return (
    <tr aria-rowindex={at + 2} className={isChosen ? 'bg-pine-tint' : ''} style={{ height: ROW }}>
      <th
        scope="row"
        className={`sticky left-0 z-10 border-b border-fine px-5 py-0.5 text-left ${isChosen ? 'bg-pine-tint' : 'bg-paper'}`}
      >
        <button
          type="button"
          data-grid={`${at},-1`}
          tabIndex={-1}
          className="flex items-center gap-2 whitespace-nowrap hover:underline"
          onClick={() => open(row)}
        >
          <Ribbon colour={row.sashColour} half={row.half} size={18} />
          {row.name}
        </button>
      </th>
      {row.cells.map((cell, c) => {
        const column = columns[c]!
        return (
          <td key={c} aria-selected={c === chosenColumn} className="border-b border-fine p-0 text-center">
            <button
              type="button"
              data-grid={`${at},${c}`}
              tabIndex={-1}
              className={`inline-grid place-items-center rounded px-0.5 py-px ${c === chosenColumn ? 'ring-2 ring-river' : ''}`}
              onClick={() => open(row, column)}
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
  )
})
