import { DndContext, PointerSensor, pointerWithin, useSensor, useSensors } from '@dnd-kit/core'
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react'
import { ContextMenu } from './ContextMenu'
import { useGrid } from './grid'
import type { MenuItem } from './menu'
import { Row } from './WeaveRow'
import type { WeaveColumn, WeaveMove, WeaveRow } from './weave-types'

interface WeaveProps {
  label: string
  columns: WeaveColumn[]
  rows: WeaveRow[]
  /** Under each column. */
  foot: { head: ReactNode; cells: ReactNode[] }
  /** Above the heads of the rows. */
  corner?: ReactNode
  /** The whole term in the width there is; otherwise wide enough to read. */
  whole?: boolean
  chosen?: string
  onChoose: (chip: string) => void
  chosenColumn?: string
  onColumn?: (column: string) => void
  /** What can be done to a chip. */
  menu: (chip: string) => readonly MenuItem[]
  /** Lets chips be moved: taken up, brought to a column by pointer or by keys, put down. */
  move?: {
    now?: WeaveMove
    start: (chip: string, at?: number) => void
    drop: (chip: string, column: string) => void
    cancel: () => void
  }
}

const NARROWEST = 78

/** Rows of chips over columns of lessons; from each chip a thread runs along its row with a knot where it is taken up again. */
export function Weave({
  label,
  columns,
  rows,
  foot,
  corner,
  whole = false,
  chosen,
  onChoose,
  chosenColumn,
  onColumn,
  menu,
  move,
}: WeaveProps) {
  const { ref: container, onFocus, onKeyDown } = useGrid<HTMLDivElement>()
  const [pressed, setPressed] = useState<string>()
  const [pointed, setPointed] = useState<string>()
  const glowing = useMoved(rows)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }))
  const narrowest = whole ? 0 : NARROWEST
  const template = { gridTemplateColumns: `var(--weave-head) repeat(${columns.length}, minmax(${narrowest}px, 1fr))` }
  useKeepFocus(container, rows, move?.now)

  const press = (event: KeyboardEvent<HTMLDivElement>) => {
    const chip = (event.target as HTMLElement).dataset.chip
    const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
    const standing = rows.flatMap((row) => row.chips).find((one) => one.id === chip)
    if (move && chip && standing && !standing.done && event.shiftKey && step !== 0) {
      event.preventDefault()
      const from = move.now?.chip === chip && move.now.at !== undefined ? move.now.at : standing.column
      move.start(chip, Math.min(columns.length - 1, Math.max(0, from + step)))
    } else if (move?.now?.at !== undefined && chip === move.now.chip && (event.key === 'Enter' || event.key === ' ')) {
      event.preventDefault()
      move.drop(chip, columns[move.now.at]!.id)
    } else if (move?.now && event.key === 'Escape') {
      event.preventDefault()
      event.stopPropagation()
      move.cancel()
    } else onKeyDown(event)
  }

  const told =
    move?.now?.at === undefined
      ? undefined
      : { column: columns[move.now.at]!, cost: move.now.costs?.[columns[move.now.at]!.id] }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      autoScroll={{ threshold: { x: 0.15, y: 0 } }}
      accessibility={{ announcements: silent }}
      onDragStart={({ active }) => move?.start(String(active.id))}
      onDragCancel={() => move?.cancel()}
      onDragEnd={({ active, over }) => {
        const [row, column] = String(over?.id ?? '').split('|')
        if (column && rows.find((one) => one.id === row)?.chips.some((chip) => chip.id === active.id))
          move?.drop(String(active.id), column)
        else move?.cancel()
      }}
    >
      <ContextMenu
        items={pressed === undefined ? [] : menu(pressed)}
        onOpen={(element) => setPressed(element.closest<HTMLElement>('[data-chip]')?.dataset.chip)}
      >
        <div
          ref={container}
          role="grid"
          aria-label={label}
          className={`weave overflow-x-auto border-y border-line bg-paper ${whole ? 'weave-whole' : ''}`}
          onKeyDown={press}
          onFocus={onFocus}
        >
          <div style={{ minWidth: `calc(var(--weave-head) + ${narrowest * columns.length}px)` }}>
            <div role="row" className="grid border-b border-line bg-plaster" style={template}>
              <div role="columnheader" className="sticky left-0 z-20 bg-plaster px-3 py-1">
                {corner}
              </div>
              {columns.map((column, c) => (
                <div
                  key={column.id}
                  role="columnheader"
                  className={`whitespace-nowrap ${column.current ? 'border-b-3 border-pine' : ''}`}
                >
                  {onColumn ? (
                    <button
                      type="button"
                      data-grid={`-1,${c}`}
                      tabIndex={-1}
                      aria-label={column.says}
                      aria-pressed={column.id === chosenColumn}
                      className={`w-full overflow-hidden px-2 pt-2 pb-1.5 text-left hover:bg-fine ${column.id === chosenColumn ? 'bg-pine-tint' : ''}`}
                      onClick={() => onColumn(column.id)}
                    >
                      {column.head}
                    </button>
                  ) : (
                    <div className="overflow-hidden px-2 pt-2 pb-1.5">{column.head}</div>
                  )}
                </div>
              ))}
            </div>
            {rows.map((row, at) => (
              <Row
                key={row.id}
                row={row}
                at={at}
                columns={columns}
                template={template}
                lit={move?.now?.chip ?? pointed ?? chosen}
                chosen={chosen}
                glowing={glowing}
                moving={move?.now}
                movable={move !== undefined}
                point={setPointed}
                choose={onChoose}
              />
            ))}
            <div role="row" className="grid bg-plaster" style={template}>
              <div role="rowheader" className="sticky left-0 z-20 bg-plaster px-3 py-2.5">
                {foot.head}
              </div>
              {foot.cells.map((cell, at) => (
                <div key={columns[at]?.id} role="gridcell" className="overflow-hidden px-1.5 py-2.5">
                  {cell}
                </div>
              ))}
            </div>
          </div>
        </div>
      </ContextMenu>
      <p aria-live="polite" className="sr-only">
        {told && `${told.column.says}: ${told.cost?.says ?? ''}. Enter puts it there, Escape leaves it where it is.`}
      </p>
    </DndContext>
  )
}

/** The board says in its own words where a chip is. */
const silent = {
  onDragStart: () => undefined,
  onDragOver: () => undefined,
  onDragEnd: () => undefined,
  onDragCancel: () => undefined,
}

/** The chips that are in another column than a moment ago. */
function useMoved(rows: WeaveRow[]): ReadonlySet<string> {
  const [seen, setSeen] = useState<Map<string, number>>()
  const [moved, setMoved] = useState<ReadonlySet<string>>(new Set())
  const now = new Map(rows.flatMap((row) => row.chips).map((chip) => [chip.id, chip.column]))
  if (!seen || now.size !== seen.size || [...now].some(([id, column]) => seen.get(id) !== column)) {
    setSeen(now)
    setMoved(
      new Set(seen ? [...now].filter(([id, column]) => seen.has(id) && seen.get(id) !== column).map(([id]) => id) : []),
    )
  }
  return moved
}

/** A chip that was put down by keys keeps the focus in its new place. */
function useKeepFocus(
  container: React.RefObject<HTMLDivElement | null>,
  rows: WeaveRow[],
  moving: WeaveMove | undefined,
) {
  const held = useRef<string>(undefined)
  useEffect(() => {
    if (moving?.at !== undefined) held.current = moving.chip
  }, [moving])
  useEffect(() => {
    const chip =
      held.current && !moving
        ? container.current?.querySelector<HTMLElement>(`[data-chip="${held.current}"]`)
        : undefined
    if (!chip || document.activeElement === chip) return
    if (document.activeElement === document.body) chip.focus()
    else held.current = undefined
  }, [rows, moving, container])
}
