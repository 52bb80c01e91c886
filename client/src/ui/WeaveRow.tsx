import { useDraggable, useDroppable } from '@dnd-kit/core'
import { readable, visibleLine } from './colour'
import { HoverCard } from './HoverCard'
import type { WeaveChip, WeaveColumn, WeaveMove, WeaveRow } from './weave-types'

const CHIP = 33
const LANE = 4.8

interface RowProps {
  row: WeaveRow
  at: number
  columns: WeaveColumn[]
  template: { gridTemplateColumns: string }
  lit?: string
  chosen?: string
  glowing: ReadonlySet<string>
  moving?: WeaveMove
  movable: boolean
  point: (chip: string | undefined) => void
  choose: (chip: string) => void
}

/** One row: its chips in the lessons that introduce them, and the threads that say when they come back. */
export function Row({ row, at, columns, template, lit, chosen, glowing, moving, movable, point, choose }: RowProps) {
  const boxed = new Set(row.boxes.map((box) => box.column))
  const standing = (column: number) => row.chips.filter((chip) => chip.column === column).length
  const stacked = Math.max(
    1,
    ...columns.map(
      (_, column) =>
        (boxed.has(column) ? Math.max(1, standing(column)) : standing(column)) +
        row.ghosts.filter((ghost) => ghost.column === column).length,
    ),
  )
  const height = 8 + stacked * CHIP + 4 + row.chips.length * LANE + 8
  const mine = moving && row.chips.some((chip) => chip.id === moving.chip) ? moving : undefined
  return (
    <div
      role="row"
      className="relative grid border-b border-line"
      style={{ ...template, minHeight: Math.max(height, 76) }}
    >
      <div role="rowheader" className="sticky left-0 z-20 border-r border-line bg-plaster">
        {row.head}
      </div>
      {columns.map((column, c) => (
        <Cell key={column.id} id={`${row.id}|${column.id}`} column={column} move={mine} at={c}>
          <div className="relative z-10 grid gap-0.5 px-1 pt-2">
            {row.chips
              .filter((chip) => chip.column === c)
              .map((chip, order) => (
                <Chip
                  key={chip.id}
                  chip={chip}
                  colour={row.colour}
                  place={`${at * 10 + order},${c}`}
                  lit={chip.id === lit}
                  chosen={chip.id === chosen}
                  glows={glowing.has(chip.id)}
                  movable={movable && !chip.done}
                  point={point}
                  choose={choose}
                />
              ))}
            {boxed.has(c) && standing(c) === 0 && row.ghosts.some((ghost) => ghost.column === c) && (
              <span className="chip" />
            )}
            {row.ghosts
              .filter((ghost) => ghost.column === c)
              .map((ghost) => (
                <span
                  key={ghost.name}
                  className="chip block overflow-hidden rounded border-[1.5px] border-dotted border-soft px-1.5 text-small leading-[14px] text-soft"
                  title={`${ghost.name}: ${ghost.went}`}
                >
                  <b className="block font-semibold whitespace-nowrap">{ghost.went}</b>
                  <span className="block truncate">{ghost.name}</span>
                </span>
              ))}
          </div>
          {column.closed && at === 0 && (
            <span className="absolute inset-x-1 bottom-2 z-10 bg-paper/80 @max-[48px]:sr-only text-center text-small text-soft">
              {column.closed}
            </span>
          )}
        </Cell>
      ))}
      <Boxes row={row} columns={columns} />
      <Threads row={row} columns={columns.length} top={8 + stacked * CHIP + 4} lit={lit} />
    </div>
  )
}

const tones = {
  here: 'bg-paper text-soft',
  fits: 'bg-pine-tint text-pine',
  pushes: 'bg-white text-river',
  over: 'bg-floorboard text-ochre',
  never: 'bg-plaster text-soft',
} as const

/** One lesson of one row; while a chip of the row is being moved it says what the lesson would cost. */
function Cell({
  id,
  column,
  move,
  at,
  children,
}: {
  id: string
  column: WeaveColumn
  move?: WeaveMove
  at: number
  children: React.ReactNode
}) {
  const { setNodeRef, isOver } = useDroppable({ id, disabled: !move })
  const cost = move?.costs?.[column.id]
  const target = move && (isOver || move.at === at)
  return (
    <div
      ref={setNodeRef}
      role="gridcell"
      className={`@container relative min-w-0 border-r border-fine ${column.closed ? 'hatched bg-floorboard' : column.past ? 'bg-plaster/60' : ''} ${target ? 'outline-3 -outline-offset-3 outline-river' : ''}`}
    >
      {children}
      {cost && (
        <span
          className={`absolute inset-x-0.5 bottom-0.5 z-20 rounded px-1 py-0.5 text-small leading-[13px] font-semibold ${tones[cost.verdict]}`}
        >
          {cost.says}
        </span>
      )}
    </div>
  )
}

interface ChipProps {
  chip: WeaveChip
  colour: string
  place: string
  lit: boolean
  chosen: boolean
  glows: boolean
  movable: boolean
  point: (chip: string | undefined) => void
  choose: (chip: string) => void
}

function Chip({ chip, colour, place, lit, chosen, glows, movable, point, choose }: ChipProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: chip.id, disabled: !movable })
  return (
    <HoverCard card={chip.card} off={chosen}>
      <button
        ref={setNodeRef}
        {...listeners}
        type="button"
        data-grid={place}
        data-chip={chip.id}
        tabIndex={-1}
        aria-label={chip.says}
        aria-pressed={chosen}
        className={`chip relative flex items-center rounded px-1.5 text-left text-small leading-[14px] ${chip.quiet ? 'border-[1.5px] border-dashed bg-white' : 'font-bold'} ${lit ? 'ring-2 ring-river' : ''} ${glows ? 'chip-glow' : ''} ${isDragging ? 'z-40 shadow-lg' : ''} ${movable ? 'touch-manipulation' : ''}`}
        style={{
          ...(chip.quiet ? { borderColor: visibleLine(colour) } : readable(colour)),
          transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
        }}
        onClick={() => choose(chip.id)}
        onMouseEnter={() => point(chip.id)}
        onMouseLeave={() => point(undefined)}
        onFocus={() => point(chip.id)}
        onBlur={() => point(undefined)}
      >
        <span className="line-clamp-2">{chip.name}</span>
        {chip.pinned && <span aria-hidden className="nail absolute -top-1 -right-1" />}
      </button>
    </HoverCard>
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
    <div className="pointer-events-none absolute top-2 right-0" style={{ left: 'var(--weave-head)' }}>
      {runs.map((run) => (
        <span
          key={run.from}
          className="absolute flex h-[31px] items-center overflow-hidden rounded border-[1.5px] bg-white px-1 text-small leading-[1.05] font-bold"
          style={{
            left: `calc(${(run.from / columns.length) * 100}% + 4px)`,
            width: `calc(${((run.to - run.from + 1) / columns.length) * 100}% - 8px)`,
            borderColor: visibleLine(row.colour),
          }}
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
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-y-0 right-0 h-full"
      style={{ left: 'var(--weave-head)', width: 'calc(100% - var(--weave-head))' }}
    >
      {row.chips.map((chip, lane) => {
        const y = top + 6 + lane * LANE
        const strong = chip.id === lit
        const opacity = strong ? 1 : anyLit ? 0.25 : 0.75
        const last = chip.knots.at(-1)
        return (
          <g key={chip.id} stroke={colour} strokeWidth={strong ? 2.4 : 1.2} opacity={opacity}>
            {last !== undefined && (
              <line
                x1={x(chip.column, 0.1)}
                x2={x(chip.column, 0.1)}
                y1={8 + CHIP * row.chips.filter((one) => one.column === chip.column).length - 2}
                y2={y}
              />
            )}
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
