import { useEffect, useRef, type KeyboardEvent } from 'react'

type Place = readonly [row: number, column: number]

const steps: Record<string, (place: Place) => [row: number, column: number, rows: boolean]> = {
  ArrowLeft: () => [0, -1, false],
  ArrowRight: () => [0, 1, false],
  ArrowUp: () => [-1, 0, true],
  ArrowDown: () => [1, 0, true],
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
  const step = steps[key]?.(from)
  if (!step) return undefined
  const [down, right, acrossRows] = step
  const ahead = sorted.filter(([r, c]) =>
    acrossRows ? Math.sign(r - row) === down : r === row && Math.sign(c - column) === right,
  )
  const distance = ([r, c]: Place) => Math.abs(r - row) * 10_000 + Math.abs(c - column)
  return ahead.toSorted((a, b) => distance(a) - distance(b))[0]
}

/**
 * A grid as screen readers and keyboards expect it: one stop for the tab key, arrows, Home and End between its cells. Cells carry
 * data-grid="row,column" and tabIndex={-1}; which of them is the stop is kept here, beside React, so that moving through a large grid draws nothing anew.
 * @param beyond Called when a key leads past the rows that are drawn; whoever draws only some of them brings the row into view and focuses the cell.
 */
export function useGrid<T extends HTMLElement>(beyond?: (row: number, column: number) => void) {
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
      const all = cells()
      const from = placeOf(cell)
      const to = nextInGrid(all.map(placeOf), from, event.key, event.ctrlKey)
      if (!to) {
        const down = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
        if (down !== 0 && beyond && from[0] + down >= 0) {
          event.preventDefault()
          beyond(from[0] + down, from[1])
        }
        return
      }
      event.preventDefault()
      all.find((other) => other.dataset.grid === to.join())?.focus()
    },
  }
}
