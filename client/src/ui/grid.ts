import { useEffect, useRef, type KeyboardEvent } from 'react'

type Place = readonly [row: number, column: number]

const steps: Record<string, readonly [down: number, right: number]> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
}

const placeOf = (element: HTMLElement): Place => element.dataset.grid!.split(',').map(Number) as unknown as Place

/** Where a key leads from a cell: arrows to the nearest in that direction, Home and End along the row, with Ctrl over the whole grid. */
export function nextInGrid(places: readonly Place[], from: Place, key: string, ctrl = false): Place | undefined {
  const [row, column] = from
  const sorted = places.toSorted((a, b) => a[0] - b[0] || a[1] - b[1])
  if (key === 'Home' || key === 'End') {
    const all = ctrl ? sorted : sorted.filter((place) => place[0] === row)
    return key === 'Home' ? all[0] : all.at(-1)
  }
  const step = steps[key]
  if (!step) return undefined
  const [down, right] = step
  const ahead = sorted.filter(([r, c]) =>
    down !== 0 ? Math.sign(r - row) === down : r === row && Math.sign(c - column) === right,
  )
  const distance = ([r, c]: Place) => Math.abs(r - row) * 10_000 + Math.abs(c - column)
  return ahead.toSorted((a, b) => distance(a) - distance(b))[0]
}

/** A full table of which only the part in sight is drawn: a cell stands at every place from the first to the last. */
export interface InSight {
  first: Place
  last: Place
  /** Draws a place that is not drawn, and gives its cell the focus. */
  bring: (row: number, column: number) => void
}

/** Where a key leads in a full table: the next place, but not past its edges. */
function nextInTable({ first, last }: InSight, [row, column]: Place, key: string, ctrl: boolean): Place | undefined {
  if (key === 'Home') return [ctrl ? first[0] : row, first[1]]
  if (key === 'End') return [ctrl ? last[0] : row, last[1]]
  const step = steps[key]
  if (!step) return undefined
  const to: Place = [row + step[0], column + step[1]]
  return to.every((at, axis) => at >= first[axis]! && at <= last[axis]!) ? to : undefined
}

/** The place of whatever has the focus, or was pressed; undefined outside any cell. */
export function placeAround(element: Element | null): Place | undefined {
  const cell = element?.closest<HTMLElement>('[data-grid]')
  return cell ? placeOf(cell) : undefined
}

/**
 * A grid as screen readers and keyboards expect it: one stop for the tab key, arrows, Home and End between its cells. Cells carry
 * data-grid="row,column" and tabIndex={-1}; which of them is the stop is kept here, beside React, so that moving through a large grid draws nothing anew.
 * @param inSight Of whoever draws only a part. The cell that has the focus has to stay drawn.
 */
export function useGrid<T extends HTMLElement>(inSight?: InSight) {
  const container = useRef<T>(null)
  const stop = useRef<string>(undefined)
  const held = useRef<HTMLElement>(undefined)

  const cells = () => [...(container.current?.querySelectorAll<HTMLElement>('[data-grid]') ?? [])]
  const settle = (chosen?: HTMLElement) => {
    const inside = (which: string) => container.current?.querySelector<HTMLElement>(which)
    const now = chosen ?? inside(`[data-grid="${stop.current}"]`) ?? inside('[data-grid]')
    for (const cell of container.current?.querySelectorAll<HTMLElement>('[data-grid][tabindex="0"]') ?? [])
      if (cell !== now) cell.tabIndex = -1
    if (!now) return
    now.tabIndex = 0
    stop.current = now.dataset.grid
  }
  useEffect(() => {
    settle()
    // What had the focus may be gone by what it did, or stand elsewhere now: then the grid keeps it.
    const lost = held.current
    if (!lost || lost.isConnected || document.activeElement !== document.body) return
    held.current = undefined
    const { chip } = lost.dataset
    const moved = chip ? cells().find((cell) => cell.dataset.chip === chip) : undefined
    ;(moved ?? container.current?.querySelector<HTMLElement>('[data-grid][tabindex="0"]'))?.focus()
  })

  return {
    ref: container,
    onFocus: (event: { target: EventTarget }) => {
      const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-grid]')
      if (!cell) return
      held.current = cell
      settle(cell)
    },
    onKeyDown: (event: KeyboardEvent) => {
      const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-grid]')
      if (!cell || event.defaultPrevented || event.shiftKey || event.altKey || event.metaKey) return
      if ((event.target as HTMLElement).matches('input, textarea')) return
      const from = placeOf(cell)
      const to = inSight
        ? nextInTable(inSight, from, event.key, event.ctrlKey)
        : nextInGrid(cells().map(placeOf), from, event.key, event.ctrlKey)
      if (!to) return
      event.preventDefault()
      const reached = container.current?.querySelector<HTMLElement>(`[data-grid="${to.join()}"]`)
      if (reached) reached.focus()
      else inSight?.bring(...to)
    },
  }
}
