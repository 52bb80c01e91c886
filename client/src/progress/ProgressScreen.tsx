import { counted } from '../ui/words'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { lessonsQuery } from '../lessons/data'
import { Opening } from '../shared/Opening'
import { peopleQuery, termsQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { rulesQuery } from '../shared/ways'
import type { MenuItem } from '../ui/menu'
import { Panel } from '../ui/Panel'
import { Option, Select } from '../ui/Select'
import { SoleKey } from '../ui/SoleKey'
import { Empty, Heading } from '../ui/states'
import { ToggleGroup } from '../ui/ToggleGroup'
import { ClassChoice } from './ClassChoice'
import { progressQuery } from './data'
import { FairEyes } from './FairEyes'
import { ProgressBoard } from './ProgressBoard'
import { PosturePanel } from './PosturePanel'
import { StudentHistory } from './StudentHistory'
import { WeeksBar } from './WeeksBar'

type Row = Schema['ProgressRow']
type Show = 'all' | 'corrections' | 'unseen'

/** Students by postures, drawn with soles: who can do what, what needs correcting, who has not been seen. */
export function ProgressScreen() {
  const { classId } = useParams()
  const { today, isHead, person } = useSignedIn()
  const teaches = person.role !== 'assistant'
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [show, setShow] = useState<Show>('all')
  const [zoomed, setZoomed] = useState('')
  const school = useQuery(peopleQuery())
  const lessons = useQuery(lessonsQuery())
  const schoolClass =
    school.data?.classes.find((one) => one.id === classId) ??
    school.data?.classes.toSorted((a, b) => b.cohorts.length - a.cohorts.length)[0]
  const unseenDays = useQuery(rulesQuery()).data?.unseenDays ?? 0
  const [on, setOn] = useState<string>()
  const progress = useQuery(progressQuery(schoolClass?.id, on))
  const terms = useQuery(termsQuery()).data
  const held = progress.data?.held
  const played = useMemo(
    () =>
      (terms ?? [])
        .toSorted((a, b) => a.start.localeCompare(b.start))
        .map(({ id, name, start, end }) => ({
          id,
          name: name.includes(start.slice(0, 4)) ? name : `${name} ${start.slice(0, 4)}`,
          lessons: (held ?? []).filter((date) => date >= start && date <= end && date < today),
        }))
        .filter((term) => term.lessons.length > 0),
    [terms, held, today],
  )
  const studentId = search.get('student')
  const choose = (row: Row, column?: Schema['ProgressColumn']) =>
    setSearch(
      column ? { student: row.studentId, posture: column.postureId, side: column.side } : { student: row.studentId },
      { replace: true },
    )
  const choosePosture = (column: Schema['ProgressColumn']) =>
    setSearch({ posture: column.postureId, side: column.side }, { replace: true })

  if (!school.data) return <Opening of={[school]} what="Opening the records" />
  if (!schoolClass)
    return (
      <Empty next={isHead && [{ name: 'Add the first class', to: '/people' }]}>
        There is no class yet, and so nobody to watch.
      </Empty>
    )
  if (!progress.data) return <Opening of={[progress]} what="Opening the records" />
  const data = progress.data
  const cohorts = [...new Map(data.rows.map((row) => [row.cohortId, row.cohort]))]
  // Of another class, it is one of all its levels again.
  const level = cohorts.some(([id]) => id === zoomed) ? zoomed : ''
  const board = zoomedTo(data, level)
  const rows = board.rows.filter(
    (row) => show === 'all' || (show === 'unseen' ? row.longUnseen : row.openCorrections > 0),
  )
  const isChosen = (column: Schema['ProgressColumn']) =>
    column.postureId === search.get('posture') && column.side === search.get('side')
  const chosenColumn = data.columns.findIndex(isChosen)
  const last = lessons.data?.filter((lesson) => lesson.classId === schoolClass.id && lesson.date <= today).at(-1)
  const menu = (row: Row, column?: Schema['ProgressColumn']): readonly MenuItem[] => [
    { name: column ? 'What was seen' : `Everything about ${row.name}`, act: () => choose(row, column) },
    ...(column
      ? [
          { name: `Who needs ${column.name}, and who could help`, act: () => choosePosture(column) },
          {
            name: `Open ${column.name}`,
            act: () => void navigate(`/forms/postures/${column.postureId}?side=${column.side}`),
          },
        ]
      : [
          {
            name: `${row.name} in the roster`,
            act: () => void navigate(`/people?view=roster&student=${row.studentId}`),
          },
        ]),
    ...(last
      ? [
          {
            name: last.date === today ? 'Mark today’s lesson' : 'Mark the last lesson',
            act: () => void navigate(`/lessons/${last.classId}/${last.date}/mark`),
          },
        ]
      : []),
  ]
  return (
    <>
      <Heading
        title="Who can do what"
        facts={
          <>
            {counted(data.rows.length, 'student')} ·{' '}
            <Link to={`/progress/${schoolClass.id}/corrections`} className="quiet-link">
              {counted(
                data.rows.reduce((sum, row) => sum + row.openCorrections, 0),
                'correction',
              )}{' '}
              open
            </Link>{' '}
            ·{' '}
            {teaches && (
              <>
                <Link to={`/progress/${schoolClass.id}/home`} className="quiet-link">
                  home practice
                </Link>{' '}
                ·{' '}
                <Link to={`/progress/${schoolClass.id}/next-sash`} className="quiet-link">
                  next sash
                </Link>{' '}
                ·{' '}
              </>
            )}
            <a className="quiet-link" href={`/api/classes/${schoolClass.id}/progress.csv`} download>
              as a table
            </a>
          </>
        }
      >
        <ToggleGroup
          label="Show"
          value={show}
          options={[
            { value: 'all', name: 'Everybody' },
            {
              value: 'corrections',
              name: `With a correction ${data.rows.filter((row) => row.openCorrections > 0).length}`,
            },
            { value: 'unseen', name: `Not seen ${data.longUnseen}` },
          ]}
          onChange={setShow}
        />
        <ClassChoice
          classes={school.data.classes}
          value={schoolClass.id}
          onChange={(id) => {
            setOn(undefined)
            void navigate(`/progress/${id}`)
          }}
        />
        {cohorts.length > 1 && (
          <Select label="Which level" value={level} onChange={setZoomed}>
            <Option value="">All levels</Option>
            {cohorts.map(([id, name]) => (
              <Option key={id} value={id}>
                {name}
              </Option>
            ))}
          </Select>
        )}
        {last && (
          <Link to={`/lessons/${last.classId}/${last.date}/mark`} className="button button-primary">
            {last.date === today ? 'Mark today’s lesson' : 'Mark the last lesson'}
          </Link>
        )}
      </Heading>
      <WeeksBar key={schoolClass.id} terms={played} on={on} show={setOn} waiting={progress.isPlaceholderData} />
      <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_340px]">
        <ProgressBoard
          name={schoolClass.name}
          columns={board.columns}
          rows={rows}
          chosen={studentId}
          chosenColumn={board.columns.findIndex(isChosen)}
          open={choose}
          openColumn={choosePosture}
          menu={menu}
          nobody={
            show === 'unseen' ? `Everybody has been seen in the last ${unseenDays} days.` : 'No corrections are open.'
          }
        />
        {studentId ? (
          <StudentHistory
            key={studentId}
            studentId={studentId}
            posture={search.get('posture')}
            side={search.get('side')}
            choose={({ postureId, side }) =>
              setSearch({ student: studentId, posture: postureId, side }, { replace: true })
            }
            close={() => setSearch({}, { replace: true })}
          />
        ) : chosenColumn >= 0 ? (
          <PosturePanel
            column={data.columns[chosenColumn]!}
            at={chosenColumn}
            rows={data.rows}
            choose={(row) => choose(row, data.columns[chosenColumn])}
            close={() => setSearch({}, { replace: true })}
          />
        ) : (
          <Panel title="Choose a sole">
            <p>
              A sole is one student in one posture. Choose one to see what was observed, or a name for everything about
              that student. The name of a posture says who needs it, and who could help.
            </p>
            <FairEyes rows={rows} choose={choose} />
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

/** The board of one cohort: its people, and what any of them has met. Empty for all. */
function zoomedTo({ columns, rows }: Schema['ProgressTable'], cohortId: string) {
  if (!cohortId) return { columns, rows }
  const its = rows.filter((row) => row.cohortId === cohortId)
  const isMet = columns.map((_, at) => its.some((row) => row.cells[at]!.stage !== 'notMet'))
  return {
    columns: columns.filter((_, at) => isMet[at]),
    rows: its.map((row) => ({ ...row, cells: row.cells.filter((_, at) => isMet[at]) })),
  }
}
