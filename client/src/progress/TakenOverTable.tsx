import { useState } from 'react'
import type { Schema } from '../api/client'
import { useUndo } from '../shared/undo'
import { Checkbox } from '../ui/Checkbox'
import { DropdownMenu } from '../ui/DropdownMenu'
import { placeAround, useGrid } from '../ui/grid'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Ribbon } from '../ui/Ribbon'
import { Sole } from '../ui/Sole'
import { Toolbar, ToolbarButton } from '../ui/Toolbar'
import { people, shortPosture, stageWords } from '../ui/words'
import type { Held, Saying } from './TakenOverScreen'

type Row = Schema['TakenOverRow']
type Section = Schema['TakenOverSectionColumns']

const held: readonly { stage: Held; key: string }[] = [
  { stage: 'notMet', key: '0' },
  { stage: 'shown', key: '1' },
  { stage: 'alone', key: '3' },
]

interface TakenOverTableProps {
  sections: readonly Section[]
  rows: readonly Row[]
  busy: boolean
  tell: (saying: Saying) => void
}

/** People by postures, section by section. One cell, a row from some place on, or a whole section for some of them is said at once. */
export function TakenOverTable({ sections, rows, busy, tell }: TakenOverTableProps) {
  const grid = useGrid<HTMLTableElement>()
  const { last, undo } = useUndo()
  const [at, setAt] = useState<readonly [row: number, column: number]>()
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const columns = sections.flatMap((section) => section.columns)
  const chosen = rows.flatMap((row, place) => (ticked.has(row.studentId) ? [place] : []))
  const who = chosen.length > 0 ? chosen : rows.map((_, place) => place)
  const whose =
    chosen.length === 1 ? rows[chosen[0]!]!.name : chosen.length > 1 ? `the ${chosen.length} ticked` : 'everybody'
  const here = at && { row: rows[at[0]]!, column: columns[at[1]]! }
  const set = (stage: Held) =>
    at && here && tell({ rows: [at[0]], columns: [at[1]], stage, what: `${here.row.name}, ${here.column.name}` })
  const onwards = () =>
    at &&
    here &&
    tell({
      rows: chosen.includes(at[0]) ? chosen : [at[0]],
      columns: columns.map((_, place) => place).slice(at[1]),
      stage: 'notMet',
      what: `not met from ${here.column.name} on`,
    })
  const upToHere = () =>
    at &&
    here &&
    tell({
      rows: chosen.includes(at[0]) ? chosen : [at[0]],
      columns: columns.map((_, place) => place).slice(0, at[1] + 1),
      stage: 'alone',
      what: `alone up to ${here.column.name}`,
    })
  useKeys((event) => {
    const wanted = held.find(({ key }) => key === event.key)
    if (!at || !wanted || busy) return false
    set(wanted.stage)
    return true
  })
  const spans = placed(sections)
  return (
    <div className="min-w-0 border-t border-line">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 bg-paper px-5 py-2">
        <Toolbar label="What is said here" className="flex-1">
          <span className="mr-2 min-w-60">
            {here ? (
              <b>
                {here.row.name}: {here.column.name}
              </b>
            ) : (
              <span className="text-soft">Choose a place in the table, or tick people and choose a section.</span>
            )}
          </span>
          {held.map(({ stage, key }) => (
            <ToolbarButton key={stage} disabled={!at || busy} onClick={() => set(stage)}>
              {stageWords[stage]} <Kbd>{key}</Kbd>
            </ToolbarButton>
          ))}
          <ToolbarButton disabled={!at || busy} onClick={onwards}>
            not met from here on
          </ToolbarButton>
          <ToolbarButton disabled={!at || busy} onClick={upToHere}>
            alone up to here
          </ToolbarButton>
        </Toolbar>
        <button type="button" className="button" disabled={!last || busy} onClick={undo}>
          {last ? `Undo ${last.what}` : 'Undo'} <Kbd>z</Kbd>
        </button>
      </div>
      <div className="overflow-auto border-y border-line bg-paper lg:max-h-[calc(100vh-300px)]">
        <table
          role="grid"
          aria-label="What people came with"
          className="border-collapse"
          {...grid}
          onClick={(event) => {
            const place = placeAround(event.target as Element)
            if (place && place[1] >= 0) setAt(place)
          }}
          onFocus={(event) => {
            grid.onFocus(event)
            const place = placeAround(event.target)
            if (place && place[1] >= 0) setAt(place)
          }}
        >
          <thead>
            <tr>
              <th
                scope="col"
                rowSpan={2}
                className="sticky top-0 left-0 z-20 min-w-52 border-b border-line bg-paper px-3 py-2 text-left align-bottom"
              >
                <Checkbox
                  checked={chosen.length === rows.length ? true : chosen.length > 0 ? 'indeterminate' : false}
                  onChange={(all) => setTicked(new Set(all ? rows.map((row) => row.studentId) : []))}
                >
                  {chosen.length > 0 ? `${people(chosen.length)} ticked` : 'Tick people'}
                </Checkbox>
              </th>
              {spans.map((section) => (
                <th
                  key={section.formId + section.section}
                  scope="colgroup"
                  colSpan={section.columns.length}
                  className="sticky top-0 z-10 h-13 border-b border-l border-line bg-paper px-2 text-left"
                >
                  <DropdownMenu
                    className="quiet-link flex items-center gap-1 whitespace-nowrap"
                    disabled={busy}
                    name={section.columns.length > 2 ? section.section : '…'}
                    label={`${section.section} of ${section.form}, for ${whose}`}
                    items={[
                      ...held.map(({ stage }) => ({
                        name: `${section.section}: ${stageWords[stage]} for ${whose}`,
                        act: () =>
                          tell({ rows: who, columns: section.places, stage, what: `${section.section} for ${whose}` }),
                      })),
                      {
                        name: `All of ${section.form}: alone for ${whose}`,
                        act: () =>
                          tell({
                            rows: who,
                            columns: spans.filter((one) => one.form === section.form).flatMap((one) => one.places),
                            stage: 'alone',
                            what: `${section.form} for ${whose}`,
                          }),
                      },
                    ]}
                  />
                </th>
              ))}
            </tr>
            <tr>
              {spans.map((section) =>
                section.columns.map((column, place) => (
                  <th
                    key={section.section + column.postureId + column.side}
                    scope="col"
                    className={`sticky top-13 z-10 h-36 border-b border-line bg-paper align-bottom text-small font-normal ${place === 0 ? 'border-l' : ''}`}
                  >
                    <span className="inline-block rotate-180 py-1 font-serif whitespace-nowrap [writing-mode:vertical-rl]">
                      {shortPosture(column.name)}
                    </span>
                  </th>
                )),
              )}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, place) => (
              <tr key={row.studentId} className={ticked.has(row.studentId) ? 'bg-pine-tint' : ''}>
                <th
                  scope="row"
                  className="sticky left-0 z-10 border-b border-fine bg-paper px-3 py-1 text-left font-normal"
                >
                  <span className="flex items-center gap-2">
                    <Checkbox
                      grid={`${place},-1`}
                      checked={ticked.has(row.studentId)}
                      label={`Tick ${row.name}`}
                      onChange={(now) =>
                        setTicked(
                          new Set(
                            now ? [...ticked, row.studentId] : [...ticked].filter((one) => one !== row.studentId),
                          ),
                        )
                      }
                    />
                    <Ribbon colour={row.colour} half={row.half} size={20} />
                    <span className="whitespace-nowrap">{row.name}</span>
                  </span>
                </th>
                {row.cells.map((cell, column) => (
                  <Cell
                    key={column}
                    cell={cell}
                    column={columns[column]!}
                    name={row.name}
                    place={[place, column]}
                    isChosen={at?.[0] === place && at[1] === column}
                  />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  )
}

/** Each section with where its columns stand among all. */
const placed = (sections: readonly Section[]) =>
  sections.map((section, at) => {
    const from = sections.slice(0, at).reduce((sum, before) => sum + before.columns.length, 0)
    return { ...section, places: section.columns.map((_, place) => from + place) }
  })

function Cell({
  cell,
  column,
  name,
  place,
  isChosen,
}: {
  cell: Row['cells'][number]
  column: Section['columns'][number]
  name: string
  place: readonly [number, number]
  isChosen: boolean
}) {
  const says = [
    stageWords[cell.stage],
    cell.said && 'as said here',
    cell.seen && `seen here since: ${stageWords[cell.seen]}`,
  ]
    .filter(Boolean)
    .join(', ')
  return (
    <td
      role="gridcell"
      data-grid={place.join()}
      tabIndex={-1}
      aria-label={`${name}, ${column.name}: ${says}`}
      aria-selected={isChosen || undefined}
      className={`border-b border-fine p-0 ${isChosen ? 'bg-white ring-2 ring-river ring-inset' : ''}`}
    >
      <span aria-hidden className="relative grid h-11 w-9 cursor-pointer place-items-center">
        <Sole stage={cell.seen ?? cell.stage} takenOver={!cell.seen} side={column.side} size={30} />
        {cell.said && <span className="absolute right-0.5 bottom-0.5 size-1.5 rounded-full bg-pine" />}
      </span>
    </td>
  )
}
