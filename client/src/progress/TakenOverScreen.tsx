import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { peopleQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { Choice } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Option } from '../ui/Select'
import { Empty, Heading, Refusal } from '../ui/states'
import { stageWords } from '../ui/words'
import { checkTakenOver, sayTakenOver, takenOverQuery } from './data'
import { TakenOverTable } from './TakenOverTable'

export type Held = Extract<Schema['Stage'], 'notMet' | 'shown' | 'alone'>

/** What is said at once: some people, some columns, one word. */
export interface Saying {
  rows: readonly number[]
  columns: readonly number[]
  stage: Held
  /** As it goes on after "Undo". */
  what: string
}

/** What the people of a cohort came with: by their sash, and where the head says otherwise. */
export function TakenOverScreen() {
  const { isHead, movingIn } = useSignedIn()
  const { cohortId } = useParams()
  const navigate = useNavigate()
  const school = useQuery(peopleQuery())
  const cohorts = (school.data?.classes ?? []).flatMap((one) =>
    one.cohorts.map((cohort) => ({ id: cohort.id, name: `${cohort.name}, ${one.name}`, sash: cohort.sashId })),
  )
  // Whoever is at the first level brings nothing: the others are looked at first.
  const bottom = school.data?.sashes.find((sash) => sash.order === 1)?.id
  const chosen = cohortId ?? (cohorts.find(({ sash }) => sash !== null && sash !== bottom) ?? cohorts[0])?.id
  const check = useMutation(checkTakenOver)
  if (!school.data) return <Opening of={[school]} what="Opening the school" />
  if (!isHead) return <Empty>What people came with is for your head of school to say.</Empty>
  if (!chosen)
    return (
      <Empty next={[{ name: 'Add the first class', to: '/people?view=classes' }]}>
        There is no cohort yet, and so nobody to say anything about.
      </Empty>
    )
  return (
    <>
      <Heading
        title="What people already know"
        facts="What lies below somebody’s sash counts as done alone, what their own level asks as shown, until somebody here has seen it. Say where it is otherwise."
      >
        <div className="w-72">
          <Choice label="Cohort" value={chosen} onChange={(id) => void navigate(`/progress/taken-over/${id}`)}>
            {cohorts.map((cohort) => (
              <Option key={cohort.id} value={cohort.id}>
                {cohort.name}
              </Option>
            ))}
          </Choice>
        </div>
        {movingIn && (
          <button
            type="button"
            className="button button-primary"
            disabled={check.isPending}
            onClick={() => check.mutate(undefined, { onSuccess: () => void navigate('/moving-in') })}
          >
            That is right for everybody
          </button>
        )}
      </Heading>
      {check.isError && <Refusal error={check.error} />}
      <Cohort key={chosen} id={chosen} />
    </>
  )
}

function Cohort({ id }: { id: string }) {
  const { did } = useUndo()
  const table = useQuery(takenOverQuery(id))
  const say = useMutation(sayTakenOver)
  const [said, setSaid] = useState('')
  if (!table.data) return <Opening of={[table]} what="Looking at what people came with" />
  const { rows, sections } = table.data
  if (rows.length === 0)
    return <Empty next={[{ name: 'Open the roster', to: '/people?view=roster' }]}>Nobody is in this cohort yet.</Empty>
  const columns = sections.flatMap((section) => section.columns)
  if (columns.length === 0)
    return (
      <Empty next={[{ name: 'Write or bring one', to: '/forms' }]}>
        There is no form yet, and so nothing anybody could know.
      </Empty>
    )
  const tell = async ({ rows: who, columns: which, stage, what }: Saying) => {
    const changed = who.flatMap((row) =>
      which
        .map((column) => ({ row: rows[row]!, cell: rows[row]!.cells[column]!, column: columns[column]! }))
        .filter(({ cell }) => cell.stage !== stage),
    )
    if (changed.length === 0) return
    const marks = (stageOf: (was: Schema['Stage']) => Schema['Stage']) =>
      changed.map(({ row, cell, column }) => ({
        id: newId(),
        studentId: row.studentId,
        postureId: column.postureId,
        side: column.side,
        stage: stageOf(cell.stage),
      }))
    await say.mutateAsync({ cohortId: id, marks: marks(() => stage) })
    setSaid(`${changed.length === 1 ? '1 entry is' : `${changed.length} entries are`} now ${stageWords[stage]}.`)
    did({ what, back: () => say.mutateAsync({ cohortId: id, marks: marks((was) => was) }) })
  }
  return (
    <>
      {say.isError && <Refusal error={say.error} />}
      <p role="status" className="sr-only">
        {said}
      </p>
      <TakenOverTable
        sections={sections}
        rows={rows}
        busy={say.isPending}
        tell={(saying) => void tell(saying).catch(() => undefined)}
      />
      <p className="max-w-prose px-5 py-4 text-soft">
        This counts for planning and for what is needed first. It never counts towards <i>settled</i> or the next sash,
        and the first time somebody here sees it, what was seen counts instead.{' '}
        <Link to="/people?view=ladder" className="quiet-link">
          What the ladder asks
        </Link>
      </p>
    </>
  )
}
