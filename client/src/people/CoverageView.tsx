import { useQuery } from '@tanstack/react-query'
import { Fragment, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Opening } from '../shared/Opening'
import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { ContextMenu } from '../ui/ContextMenu'
import { useGrid } from '../ui/grid'
import type { MenuItem } from '../ui/menu'
import { Panel } from '../ui/Panel'
import { demandWords } from '../ui/words'
import { coverageQuery, type Cohort, type SchoolClass } from './data'

type Row = Schema['CoverageRow']
type Cell = Schema['CoverageCell']

/** Posture by member: the least adapted mode each needs, what is still to be written, and what is best left out. */
export function CoverageView({ cohort, schoolClass }: { cohort: Cohort; schoolClass: SchoolClass }) {
  const { isHead } = useSignedIn()
  const grid = useGrid<HTMLTableElement>()
  const navigate = useNavigate()
  const [at, setAt] = useState<[number, number]>()
  const [pressed, setPressed] = useState<[number, number]>()
  const coverage = useQuery(coverageQuery(cohort.id))
  if (!coverage.data) return <Opening of={[coverage]} what="Working out who can do what" />
  const data = coverage.data
  const row = at && data.rows[at[0]]
  const member = at && data.members[at[1]]
  const cell = row && data.choices[row.cells[at[1]]!]
  const write = (postureId: string, mode: string) =>
    `/forms/postures/${postureId}?edit=1&version=${mode}&back=${encodeURIComponent(`/people?view=coverage&cohort=${cohort.id}`)}`
  const menu = (place: number, column: number): readonly MenuItem[] => {
    const [its, who] = [data.rows[place]!, data.members[column]!]
    const choice = data.choices[its.cells[column]!]!
    return [
      { name: 'Why so', act: () => setAt([place, column]) },
      ...(isHead && choice.fate === 'toWrite' && choice.mode
        ? [{ name: `Write the ${choice.mode} version`, act: () => void navigate(write(its.postureId, choice.mode!)) }]
        : []),
      { name: `Open ${its.name}`, act: () => void navigate(`/forms/postures/${its.postureId}?side=${its.side}`) },
      { name: `${who.name} in the roster`, act: () => void navigate(`/people?view=roster&student=${who.studentId}`) },
    ]
  }
  return (
    <div className="grid flex-1 border-t border-line lg:grid-cols-[minmax(0,1fr)_330px]">
      <div className="min-w-0 px-5 py-4">
        <h2 className="text-xl">{data.cohort}: who can do what, and how</h2>
        <p className="mt-1 mb-3 text-xl">
          <b>{data.summary}</b> <span className="text-soft">{schoolClass.name}</span>
        </p>
        {data.rows.length === 0 ? (
          isHead && (
            <Link className="button button-primary" to={`/people?view=assign&cohort=${cohort.id}`}>
              Assign a segment
            </Link>
          )
        ) : (
          <ContextMenu
            items={pressed ? menu(...pressed) : []}
            onOpen={(element) => {
              const place = element.closest<HTMLElement>('[data-grid]')?.dataset.grid?.split(',').map(Number)
              setPressed(place && [place[0]!, place[1]!])
            }}
          >
            <div className="overflow-auto border border-line bg-paper lg:max-h-[calc(100vh-290px)]">
              <table role="grid" aria-label={`${data.cohort}: who can do what`} className="border-collapse" {...grid}>
                <thead>
                  <tr>
                    <th
                      scope="col"
                      className="sticky top-0 left-0 z-20 min-w-48 border-b border-line bg-paper px-3 py-2 text-left text-soft"
                    >
                      Posture
                    </th>
                    {data.members.map((one) => (
                      <th
                        key={one.studentId}
                        scope="col"
                        className="sticky top-0 z-10 border-b border-line bg-paper px-1.5 py-2 text-center text-small font-semibold whitespace-nowrap"
                      >
                        {one.name}
                        {one.hasLimits && <span className="block text-small font-normal text-ochre">limits</span>}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {data.rows.map((one, place) => (
                    <tr key={one.postureId + one.side} className="border-b border-fine">
                      <th scope="row" className="sticky left-0 z-10 bg-paper px-3 py-1.5 text-left font-normal">
                        <span className="font-serif text-base font-semibold">{one.name}</span>
                        <Verdict row={one} />
                      </th>
                      {one.cells.map((choice, column) => {
                        const cell = data.choices[choice]!
                        return (
                          <td key={data.members[column]!.studentId} className="p-0.5 text-center">
                            <button
                              type="button"
                              data-grid={`${place},${column}`}
                              tabIndex={-1}
                              aria-label={`${data.members[column]!.name}, ${one.name}: ${saying(cell)}`}
                              aria-pressed={at?.[0] === place && at[1] === column}
                              className={`grid min-h-9 w-full min-w-[72px] place-items-center rounded-sm border px-1 text-small ${look(cell, data.mode)} ${at?.[0] === place && at[1] === column ? 'outline-2 outline-river' : ''}`}
                              onClick={() => setAt([place, column])}
                            >
                              {cell.fate === 'fits'
                                ? cell.mode
                                : cell.fate === 'toWrite'
                                  ? `${cell.mode}?`
                                  : 'leaves out'}
                            </button>
                          </td>
                        )
                      })}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </ContextMenu>
        )}
        <p className="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-soft">
          <span>
            <Swatch className="border-line bg-paper" /> as the group does it
          </span>
          <span>
            <Swatch className="border-pine bg-pine-tint" /> a more adapted version
          </span>
          <span>
            <Swatch className="border-dashed border-ochre-mark bg-white" /> a version still to be written
          </span>
          <span>
            <Swatch className="border-lacquer bg-white" /> leaves the posture out
          </span>
        </p>
      </div>
      <Panel
        title={row && member ? `${member.name}: ${row.name}` : 'Choose a cell'}
        close={row && member ? () => setAt(undefined) : undefined}
        atHand
      >
        {row && member && cell ? (
          <section className="grid gap-2">
            <p>{saying(cell)}</p>
            {cell.because.length > 0 && (
              <p className="text-soft">
                Ruled out because it would ask for {cell.because.map((demand) => demandWords[demand]).join(', ')}.
              </p>
            )}
            <p className="text-soft">Written: {['standing', ...row.versions].join(', ')}</p>
          </section>
        ) : (
          <p className="text-soft">
            A cell says why.{' '}
            {isHead && 'Limits that rule something out are shown here, and every look is written down.'}
          </p>
        )}
        {data.rows.some((one) => one.verdict === 'needsVersion') && (
          <section>
            <h3 className="text-lg">To be written</h3>
            <ul className="mt-1 grid gap-1">
              {data.rows
                .filter((one) => one.verdict === 'needsVersion')
                .map((one) => (
                  <li key={one.postureId + one.side}>
                    {one.name}:{' '}
                    {one.write.map((mode) => (
                      <Fragment key={mode}>
                        {isHead ? (
                          <Link className="quiet-link mr-3" to={write(one.postureId, mode)}>
                            Write the {mode} version
                          </Link>
                        ) : (
                          <span className="text-soft">{mode}</span>
                        )}
                      </Fragment>
                    ))}
                  </li>
                ))}
            </ul>
          </section>
        )}
        {data.rows.some((one) => one.verdict === 'leaveOut') && (
          <section>
            <h3 className="text-lg">Best left out</h3>
            {data.rows
              .filter((one) => one.verdict === 'leaveOut')
              .map((one) => (
                <p key={one.postureId + one.side}>
                  {one.name}{' '}
                  <span className="text-soft">
                    {one.ruledOutBy.length > 0 && `(${one.ruledOutBy.map((demand) => demandWords[demand]).join(', ')})`}
                  </span>
                </p>
              ))}
            {isHead && (
              <Link className="quiet-link" to={`/people?view=assign&cohort=${cohort.id}`}>
                Leave them out of the segment
              </Link>
            )}
          </section>
        )}
        <section className="border-l-4 border-ochre-mark pl-3 text-small">
          {data.cautions.map((caution) => (
            <p key={caution} className="mb-1">
              {caution}
            </p>
          ))}
        </section>
      </Panel>
    </div>
  )
}

function Verdict({ row }: { row: Row }) {
  if (row.verdict === 'taught') return null
  return (
    <span className={`block text-small font-semibold ${row.verdict === 'leaveOut' ? 'text-lacquer' : 'text-ochre'}`}>
      {row.verdict === 'leaveOut' ? 'best left out' : `needs a ${row.write.join(' and a ')} version`}
    </span>
  )
}

const Swatch = ({ className }: { className: string }) => (
  <span className={`mr-1.5 inline-block h-3.5 w-6 rounded-sm border align-[-2px] ${className}`} aria-hidden />
)

function look(cell: Cell, mode: string) {
  if (cell.fate === 'noneFits') return 'border-lacquer bg-white text-lacquer'
  if (cell.fate === 'toWrite') return 'border-dashed border-ochre-mark bg-white text-ochre'
  return cell.mode === mode ? 'border-transparent text-soft' : 'border-pine bg-pine-tint font-semibold text-pine'
}

function saying(cell: Cell) {
  if (cell.fate === 'fits') return `${cell.mode}`
  return cell.fate === 'toWrite' ? `a ${cell.mode} version has to be written first` : 'nothing fits: leaves it out'
}
