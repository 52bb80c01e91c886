import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/react-virtual'
import { memo, useMemo, useState, type CSSProperties } from 'react'
import type { Schema } from '../api/client'
import { ContextMenu } from '../ui/ContextMenu'
import { placeAround, useGrid } from '../ui/grid'
import type { MenuItem } from '../ui/menu'
import { Ribbon } from '../ui/Ribbon'
import { SOLE_RATIO, soleLook, soleSays } from '../ui/Sole'
import { useMedia } from '../ui/use-media'
import { shortPosture } from '../ui/words'
import { eyesWords } from './eyes'

type Row = Schema['ProgressRow']

interface BoardProps {
  name: string
  columns: Schema['ProgressColumn'][]
  rows: Row[]
  chosen: string | null
  chosenColumn: number
  open: (row: Row, column?: Schema['ProgressColumn']) => void
  openColumn: (column: Schema['ProgressColumn']) => void
  menu: (row: Row, column?: Schema['ProgressColumn']) => readonly MenuItem[]
  nobody: string
}

/** Pixels of a row and of its parts, at the reader's own size of letters; as large as a fingertip where it is touched. */
function useSizes() {
  const touched = useMedia('(pointer: coarse)')
  const scale = parseFloat(getComputedStyle(document.documentElement).fontSize) / 14
  return useMemo(() => {
    const of = (pixels: number) => Math.round(pixels * scale)
    const least = touched ? 44 : 0
    const [row, cell] = [Math.max(of(34), least), Math.max(of(28), least)]
    // A sole is as high as its row but for the line below and a little air, and stands in the middle of its cell.
    return { row, cell, beside: (cell - SOLE_RATIO * (row - 5)) / 2, head: of(156), name: of(180), seen: of(84) }
  }, [touched, scale])
}

/** What is in sight, and whatever has the focus, so that scrolling does not take it away. */
const inSightOrFocused = (axis: 0 | 1) => (range: Range) => {
  const shown = defaultRangeExtractor(range)
  const focused = placeAround(document.activeElement)?.[axis] ?? -1
  return focused < 0 || focused >= range.count || shown.includes(focused) ? shown : [...shown, focused]
}
const rowsInSight = inSightOrFocused(0)
const columnsInSight = inSightOrFocused(1)

/** Who can do what, one row for each student. What is pressed or pointed at is heard here; scrolling draws none of it anew. */
export function ProgressBoard({
  name,
  columns,
  rows,
  chosen,
  chosenColumn,
  open,
  openColumn,
  menu,
  nobody,
}: BoardProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null)
  const sizes = useSizes()
  const width = sizes.name + columns.length * sizes.cell + sizes.seen
  const [pressed, setPressed] = useState<readonly [Row, Schema['ProgressColumn'] | undefined]>()
  const cellOf = (target: EventTarget) => {
    const [row, column] = placeAround(target as Element) ?? [-1, -1]
    return rows[row] && ([rows[row], columns[column]] as const)
  }
  const openCell = (target: EventTarget) => {
    const cell = cellOf(target)
    const head = (target as Element).closest<HTMLElement>('[data-column]')
    if (cell) open(...cell)
    else if (head) openColumn(columns[Number(head.dataset.column)]!)
  }
  return (
    <div
      ref={setScroller}
      className="board max-h-[calc(100vh-202px)] overflow-auto bg-paper max-lg:max-h-[calc(100vh-230px)]"
      style={{ '--head': `${sizes.head}px`, '--names': `${sizes.name}px` } as CSSProperties}
    >
      <ContextMenu items={pressed ? menu(...pressed) : []} onOpen={(element) => setPressed(cellOf(element))}>
        <div
          className="relative"
          style={{ width, '--cell': `${sizes.cell}px`, '--beside': `${sizes.beside}px` } as CSSProperties}
          // What a cell says is shown to whoever points at it; as an attribute of every cell it would be drawn with each.
          onPointerOver={({ target }) => {
            if (target instanceof HTMLElement && target.ariaLabel) target.title = target.ariaLabel
          }}
          onClick={(event) => openCell(event.target)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return
            event.preventDefault()
            openCell(event.target)
          }}
        >
          <BoardBody
            scroller={scroller}
            name={name}
            columns={columns}
            rows={rows}
            sizes={sizes}
            chosen={chosen}
            chosenColumn={chosenColumn}
          />
        </div>
      </ContextMenu>
      {rows.length === 0 && <p className="p-5 text-soft">{nobody}</p>}
    </div>
  )
}

interface BodyProps extends Pick<BoardProps, 'name' | 'columns' | 'rows' | 'chosen' | 'chosenColumn'> {
  scroller: HTMLElement | null
  sizes: ReturnType<typeof useSizes>
}

/** Only what is in sight is drawn, however many students and postures there are; each row is laid out and painted by itself. */
function BoardBody({ scroller, name, columns, rows, sizes, chosen, chosenColumn }: BodyProps) {
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => sizes.row,
    rangeExtractor: rowsInSight,
    overscan: 4,
    // The heads above and the names beside keep their places, and so take theirs off what is in sight.
    scrollPaddingEnd: sizes.head,
  })
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller,
    estimateSize: () => sizes.cell,
    rangeExtractor: columnsInSight,
    overscan: 1,
    scrollPaddingEnd: sizes.name,
  })
  const grid = useGrid<HTMLDivElement>({
    first: [0, -1],
    last: [rows.length - 1, columns.length - 1],
    bring: (row, column) => {
      down.scrollToIndex(row)
      if (column >= 0) across.scrollToIndex(column)
      requestAnimationFrame(() => {
        scroller?.querySelector<HTMLElement>(`[data-grid="${row},${column}"]`)?.focus()
      })
    },
  })
  const shown = down.getVirtualItems()
  const indexes = across.getVirtualIndexes()
  // oxlint-disable-next-line react/exhaustive-deps -- the same columns are the same list, so that no row is drawn again for them
  const shownColumns = useMemo(() => indexes, [indexes.join()])
  return (
    <div {...grid}>
      <div
        role="grid"
        aria-label={`Who can do what in ${name}`}
        aria-rowcount={rows.length + 1}
        aria-colcount={columns.length + 2}
      >
        <BoardHeads shown={rows.length} columns={columns} sizes={sizes} chosen={chosen === null ? chosenColumn : -1} />
        <div role="presentation" className="relative" style={{ height: down.getTotalSize() }}>
          {shown.map(({ index, start }) => {
            const row = rows[index]!
            return (
              <BoardRow
                key={row.studentId}
                at={index}
                top={start}
                sizes={sizes}
                row={row}
                columns={columns}
                shown={shownColumns}
                isChosen={row.studentId === chosen}
                chosenColumn={row.studentId === chosen ? chosenColumn : -1}
              />
            )
          })}
        </div>
      </div>
      {/* One column for all rows keeps its place; a row's own would be a layer each. */}
      <div className="pointer-events-none absolute inset-x-0 bottom-0 z-10" style={{ top: sizes.head }}>
        <div className="pointer-events-auto sticky left-0 h-full bg-paper" style={{ width: sizes.name }}>
          {shown.map(({ index, start }) => (
            <BoardName
              key={index}
              at={index}
              top={start}
              height={sizes.row}
              row={rows[index]!}
              isChosen={rows[index]!.studentId === chosen}
            />
          ))}
        </div>
      </div>
    </div>
  )
}

interface BoardHeadsProps {
  shown: number
  columns: BoardProps['columns']
  sizes: ReturnType<typeof useSizes>
  /** The column that is looked at as a whole. */
  chosen: number
}

/** What each column is about; scrolling draws none of it anew. */
const BoardHeads = memo(function BoardHeads({ shown, columns, sizes, chosen }: BoardHeadsProps) {
  return (
    <div role="row" className="sticky top-0 z-20 flex items-end bg-paper" style={{ height: sizes.head }}>
      <div role="columnheader" className="sticky left-0 z-10 self-stretch bg-paper" style={{ width: sizes.name }}>
        <span className="absolute bottom-2 left-5 text-soft">{shown} shown</span>
      </div>
      {columns.map((column, at) => (
        <div
          key={column.postureId + column.side}
          role="columnheader"
          data-column={at}
          className={`slanted cursor-pointer pb-1 hover:underline ${at === chosen ? 'font-bold text-pine' : ''}`}
          style={{ width: sizes.cell }}
        >
          <span>{shortPosture(column.name)}</span>
        </div>
      ))}
      <div
        role="columnheader"
        className="px-3 pb-2 text-right whitespace-nowrap text-soft"
        style={{ width: sizes.seen }}
      >
        last seen
      </div>
    </div>
  )
})

const nameId = (row: Row) => `name-${row.studentId}`

interface BoardNameProps {
  at: number
  top: number
  height: number
  row: Row
  isChosen: boolean
}

/** Who a row is about: its header, drawn in the column that keeps its place. */
const BoardName = memo(function BoardName({ at, top, height, row, isChosen }: BoardNameProps) {
  return (
    <div
      role="rowheader"
      id={nameId(row)}
      data-grid={`${at},-1`}
      tabIndex={-1}
      className={`absolute flex w-full cursor-pointer items-center gap-2 border-b border-fine pr-2 pl-5 whitespace-nowrap hover:underline ${isChosen ? 'bg-pine-tint' : ''}`}
      style={{ top, height }}
    >
      <Ribbon colour={row.sashColour} half={row.half} size={18} />
      <span className="truncate">{row.name}</span>
    </div>
  )
})

interface BoardRowProps {
  at: number
  top: number
  sizes: ReturnType<typeof useSizes>
  row: Row
  columns: BoardProps['columns']
  shown: readonly number[]
  isChosen: boolean
  chosenColumn: number
}

/** Drawn anew only when it changes itself. */
const BoardRow = memo(function BoardRow({
  at,
  top,
  sizes,
  row,
  columns,
  shown,
  isChosen,
  chosenColumn,
}: BoardRowProps) {
  return (
    <div
      role="row"
      aria-rowindex={at + 2}
      aria-owns={nameId(row)}
      className={`absolute grid auto-cols-(--cell) border-b border-fine contain-strict ${isChosen ? 'bg-pine-tint' : ''}`}
      style={{ top, left: sizes.name, right: 0, height: sizes.row }}
    >
      {shown.map((c) => {
        const column = columns[c]!
        const standing = { ...row.cells[c]!, side: column.side }
        const says = soleSays(`${row.name}, ${column.name}`, standing)
        const look = soleLook(standing)
        return (
          <div
            key={c}
            role="gridcell"
            aria-colindex={c + 2}
            aria-label={says}
            aria-selected={c === chosenColumn || undefined}
            data-grid={`${at},${c}`}
            tabIndex={-1}
            className={`${look.className} board-cell ${c === chosenColumn ? 'ring-2 ring-river ring-inset' : ''}`}
            style={{ ...look.style, gridColumn: c + 1 }}
          />
        )
      })}
      <div
        role="gridcell"
        aria-colindex={columns.length + 2}
        className={`absolute right-0 flex h-full items-center justify-end px-3 whitespace-nowrap ${row.longUnseen ? 'font-bold text-ochre' : 'text-soft'}`}
        style={{ width: sizes.seen }}
      >
        <span title={eyesWords(row.eyes)}>
          {row.seenDays === null ? 'never' : row.seenDays === 0 ? 'today' : `${row.seenDays} d`}
        </span>
      </div>
    </div>
  )
})
