import type { Schema } from '../api/client'
import { Panel } from '../ui/Panel'
import { Sole } from '../ui/Sole'
import { stageWords, weightWords } from '../ui/words'

type Row = Schema['ProgressRow']
type Cell = Schema['ProgressCell']

interface PosturePanelProps {
  column: Schema['ProgressColumn']
  at: number
  rows: Row[]
  choose: (row: Row) => void
  close: () => void
}

const ranks = Object.keys(stageWords) as Schema['Stage'][]
const rankOf = (cell: Cell) => ranks.indexOf(cell.stage)
const heavy = (cell: Cell) => (cell.correction === null ? 0 : cell.correction === 'keyPoint' ? 2 : 1)

/** Somebody to follow: they can do it without anybody to copy, seen here, with nothing open and nothing faded. */
const couldHelp = (cell: Cell) =>
  rankOf(cell) >= ranks.indexOf('alone') && cell.correction === null && !cell.fading && !cell.takenOver

/** One posture across the class: who needs it, and who could help. */
export function PosturePanel({ column, at, rows, choose, close }: PosturePanelProps) {
  const met = rows.map((row) => ({ row, cell: row.cells[at]! })).filter(({ cell }) => cell.stage !== 'notMet')
  const helpers = met.filter(({ cell }) => couldHelp(cell)).toSorted((a, b) => rankOf(b.cell) - rankOf(a.cell))
  const needing = met
    .filter(({ cell }) => cell.correction !== null || cell.fading || rankOf(cell) < ranks.indexOf('alone'))
    .toSorted((a, b) => heavy(b.cell) - heavy(a.cell) || rankOf(a.cell) - rankOf(b.cell))
  const notMet = rows.length - met.length
  return (
    <Panel
      title={column.name}
      facts={ranks
        .slice(1)
        .map((stage) => [stage, met.filter(({ cell }) => cell.stage === stage).length] as const)
        .filter(([, count]) => count > 0)
        .map(([stage, count]) => `${count} ${stageWords[stage]}`)
        .concat(notMet > 0 ? [`${notMet} have not met it`] : [])
        .join(' · ')}
      close={close}
    >
      <People
        heading={`Who needs it: ${needing.length}`}
        nobody="Nobody who has met it."
        people={needing}
        column={column}
        choose={choose}
      />
      <People
        heading={`Who could help: ${helpers.length}`}
        nobody="Nobody was seen doing it alone with nothing to mend."
        people={helpers}
        column={column}
        choose={choose}
      />
    </Panel>
  )
}

function People({
  heading,
  nobody,
  people,
  column,
  choose,
}: {
  heading: string
  nobody: string
  people: { row: Row; cell: Cell }[]
  column: Schema['ProgressColumn']
  choose: (row: Row) => void
}) {
  return (
    <section>
      <h3>{heading}</h3>
      <ul>
        {people.map(({ row, cell }) => (
          <li key={row.studentId} className="border-b border-fine">
            <button
              type="button"
              className="flex min-h-9 w-full items-center gap-2 text-left hover:bg-pine-tint"
              onClick={() => choose(row)}
            >
              <Sole {...cell} side={column.side} size={26} />
              <b className="flex-1">{row.name}</b>
              <span className="text-soft">
                {[
                  row.cohort,
                  cell.correction === null ? stageWords[cell.stage] : `${weightWords[cell.correction]} to mend`,
                  cell.stuck ? 'stuck' : '',
                  cell.fading ? 'fading' : '',
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
            </button>
          </li>
        ))}
        {people.length === 0 && <li className="text-soft">{nobody}</li>}
      </ul>
    </section>
  )
}
