import { useEffect, useRef } from 'react'

/** Keys for the whole screen: not while somebody types, and not with a modifier. The handler says whether it took the key. */
export function useKeys(handle: (event: KeyboardEvent) => boolean) {
  const latest = useRef(handle)
  useEffect(() => {
    latest.current = handle
  })
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
      if (target.matches('input:not([type=checkbox]):not([type=radio]), select, textarea')) return
      if (latest.current(event)) event.preventDefault()
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [])
}

/** Moves the focus among the elements marked data-grid="row,column" inside a container; arrows at the edge stay. */
export function moveInGrid(
  container: HTMLElement,
  event: { key: string; target: EventTarget; preventDefault: () => void },
) {
  const step = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key]
  const place = (event.target as HTMLElement).closest<HTMLElement>('[data-grid]')?.dataset.grid
  if (!step || !place) return
  event.preventDefault()
  const [row, column] = place.split(',').map(Number) as [number, number]
  const cells = [...container.querySelectorAll<HTMLElement>('[data-grid]')].map((element) => {
    const [r, c] = element.dataset.grid!.split(',').map(Number) as [number, number]
    return { element, r, c }
  })
  const ahead = cells.filter(({ r, c }) =>
    step[0] ? Math.sign(r - row) === step[0] : r === row && Math.sign(c - column) === step[1],
  )
  const distance = ({ r, c }: { r: number; c: number }) => Math.abs(r - row) * 1000 + Math.abs(c - column)
  ahead.sort((a, b) => distance(a) - distance(b))
  ahead[0]?.element.focus()
}
