import { useRef, useState, type ReactNode } from 'react'
import { readable, visibleLine } from './colour'
import { moveInGrid } from './keys'

export interface WeaveColumn {
  id: string
  head: ReactNode
  /** Why nothing happens in this column. */
  closed?: string
  current?: boolean
  past?: boolean
}

export interface WeaveChip {
  id: string
  column: number
  name: string
  /** Drawn lightly: it goes with what stands beside it. */
  quiet?: boolean
  /** Columns in which the thread has a knot, in order. */
  knots: number[]
  /** For screen readers: everything the picture says about this chip. */
  says: string
  done: boolean
}

export interface WeaveRow {
  id: string
  head: ReactNode
  colour: string
  chips: WeaveChip[]
  /** Outlined boxes: run-throughs and tests. */
  boxes: { column: number; name: string }[]
}

interface WeaveProps {
  label: string
  columns: WeaveColumn[]
  rows: WeaveRow[]
  /** Under each column. */
  foot: { head: ReactNode; cells: ReactNode[] }
  chosen?: string
  onChoose: (chip: string) => void
}

const HEAD = 196
const NARROWEST = 78
const CHIP = 33
const LANE = 4.8

/** Rows of chips over columns of lessons; from each chip a thread runs along its row with a knot where it is taken up again. */
export function Weave({ label, columns, rows, foot, chosen, onChoose }: WeaveProps) {
  const container = useRef<HTMLDivElement>(null)
  const [pointed, setPointed] = useState<string>()
  const template = { gridTemplateColumns: `${HEAD}px repeat(${columns.length}, minmax(${NARROWEST}px, 1fr))` }
  return (
    <div
      ref={container}
      role="table"
      aria-label={label}
      className="overflow-x-auto border-y border-line bg-paper"
      onKeyDown={(event) => container.current && moveInGrid(container.current, event)}
    >
      <div style={{ minWidth: HEAD + NARROWEST * columns.length }}>
        <div role="row" className="grid border-b border-line bg-plaster" style={template}>
          <div role="columnheader" className="sticky left-0 z-20 bg-plaster" />
          {columns.map((column) => (
            <div key={column.id} role="columnheader" className={`px-2 pt-2 pb-1.5 whitespace-nowrap ${column.current ? 'border-b-3 border-pine' : ''}`}>
              {column.head}
            </div>
          ))}
        </div>
        {rows.map((row, at) => (
          <Row key={row.id} row={row} at={at} columns={columns} template={template} lit={pointed ?? chosen} chosen={chosen} point={setPointed} choose={onChoose} />
        ))}
        <div role="row" className="grid bg-plaster" style={template}>
          <div role="rowheader" className="sticky left-0 z-20 bg-plaster px-3 py-2.5">
            {foot.head}
          </div>
          {foot.cells.map((cell, at) => (
            <div key={columns[at]?.id} role="cell" className="px-1.5 py-2.5">
              {cell}
            </div>
          ))}
        </div>
      </div>
    </div>
  )
}

interface RowProps {
  row: WeaveRow
  at: number
  columns: WeaveColumn[]
  template: { gridTemplateColumns: string }
  lit?: string
  chosen?: string
  point: (chip: string | undefined) => void
  choose: (chip: string) => void
}

function Row({ row, at, columns, template, lit, chosen, point, choose }: RowProps) {
  const stacked = Math.max(1, ...columns.map((_, column) => row.chips.filter((chip) => chip.column === column).length))
  const height = 8 + stacked * CHIP + 4 + row.chips.length * LANE + 8
  const colours = readable(row.colour)
  return (
    <div role="row" className="relative grid border-b border-line" style={{ ...template, minHeight: Math.max(height, 76) }}>
      <div role="rowheader" className="sticky left-0 z-20 border-r border-line bg-plaster">
        {row.head}
      </div>
      {columns.map((column, c) => (
        <div key={column.id} role="cell" className={`relative min-w-0 border-r border-fine ${column.closed ? 'hatched bg-floorboard' : column.past ? 'bg-plaster/60' : ''}`}>
          <div className="relative z-10 grid gap-0.5 px-1 pt-2">
            {row.chips
              .filter((chip) => chip.column === c)
              .map((chip, order) => (
                <button
                  key={chip.id}
                  type="button"
                  data-grid={`${at * 10 + order},${c}`}
                  title={chip.name}
                  aria-label={chip.says}
                  aria-pressed={chip.id === chosen}
                  className={`chip flex items-center rounded px-1.5 text-left text-[12px] leading-[14px] ${chip.quiet ? 'border-[1.5px] border-dashed bg-white' : 'font-bold'} ${chip.id === lit ? 'ring-2 ring-river' : ''}`}
                  style={chip.quiet ? { borderColor: visibleLine(row.colour) } : colours}
                  onClick={() => choose(chip.id)}
                  onMouseEnter={() => point(chip.id)}
                  onMouseLeave={() => point(undefined)}
                  onFocus={() => point(chip.id)}
                  onBlur={() => point(undefined)}
                >
                  <span className="line-clamp-2">{chip.name}</span>
                </button>
              ))}
          </div>
          {column.closed && at === 0 && <span className="absolute inset-x-1 top-9 z-10 bg-paper/80 text-center text-[12px] text-soft">{column.closed}</span>}
        </div>
      ))}
      <Boxes row={row} columns={columns} />
      <Threads row={row} columns={columns.length} top={8 + stacked * CHIP + 4} lit={lit} />
    </div>
  )
}

/** Outlined boxes, one for each unbroken run of the same name. */
function Boxes({ row, columns }: { row: WeaveRow; columns: WeaveColumn[] }) {
  const runs = row.boxes
    .toSorted((a, b) => a.column - b.column)
    .reduce<{ name: string; from: number; to: number }[]>((all, box) => {
      const last = all.at(-1)
      if (last?.name === box.name && last.to + 1 === box.column) last.to = box.column
      else all.push({ name: box.name, from: box.column, to: box.column })
      return all
    }, [])
  return (
    <div className="pointer-events-none absolute top-2 right-0" style={{ left: HEAD }}>
      {runs.map((run) => (
        <span
          key={run.from}
          className="absolute flex h-[31px] items-center rounded border-[1.5px] bg-white px-1 text-[11.5px] font-bold whitespace-nowrap"
          style={{ left: `calc(${(run.from / columns.length) * 100}% + 4px)`, width: `calc(${((run.to - run.from + 1) / columns.length) * 100}% - 8px)`, borderColor: visibleLine(row.colour) }}
        >
          {run.name}
        </span>
      ))}
    </div>
  )
}

/** Drawn in units of one column, so that the picture follows the width of the table. */
function Threads({ row, columns, top, lit }: { row: WeaveRow; columns: number; top: number; lit?: string }) {
  const colour = visibleLine(row.colour)
  const x = (column: number, within: number) => `${((column + within) / columns) * 100}%`
  const anyLit = row.chips.some((chip) => chip.id === lit)
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-y-0 right-0 h-full" style={{ left: HEAD, width: `calc(100% - ${HEAD}px)` }}>
      {row.chips.map((chip, lane) => {
        const y = top + 6 + lane * LANE
        const strong = chip.id === lit
        const opacity = strong ? 1 : anyLit ? 0.25 : 0.75
        const last = chip.knots.at(-1)
        return (
          <g key={chip.id} stroke={colour} strokeWidth={strong ? 2.4 : 1.2} opacity={opacity}>
            {last !== undefined && <line x1={x(chip.column, 0.1)} x2={x(chip.column, 0.1)} y1={8 + CHIP * row.chips.filter((one) => one.column === chip.column).length - 2} y2={y} />}
            {last !== undefined && <line x1={x(chip.column, 0.1)} x2={x(last, 0.5)} y1={y} y2={y} />}
            {chip.knots.map((knot) => (
              <circle key={knot} cx={x(knot, 0.5)} cy={y} r={strong ? 3.6 : 2.5} className="fill-paper" />
            ))}
          </g>
        )
      })}
    </svg>
  )
}
