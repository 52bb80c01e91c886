import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { nextInGrid, useGrid, type InSight } from './grid'

function Board({ rows = 3, columns = 3, inSight }: { rows?: number; columns?: number; inSight?: InSight }) {
  const grid = useGrid<HTMLDivElement>(inSight)
  return (
    <>
      <button type="button">before</button>
      <div role="grid" {...grid}>
        {Array.from({ length: rows }, (_, row) => (
          <div key={row} role="row">
            {Array.from({ length: columns }, (_, column) => (
              <button key={column} type="button" role="gridcell" data-grid={`${row},${column}`} tabIndex={-1}>
                {row},{column}
              </button>
            ))}
          </div>
        ))}
      </div>
      <button type="button">after</button>
    </>
  )
}

const cell = (place: string) => screen.getByText(place)

describe('a grid', () => {
  it('is one stop for the tab key, at the cell one was in last', async () => {
    render(<Board />)
    await userEvent.tab()
    await userEvent.tab()
    expect(document.activeElement).toBe(cell('0,0'))
    await userEvent.keyboard('{ArrowDown}{ArrowRight}')
    expect(document.activeElement).toBe(cell('1,1'))
    await userEvent.tab()
    expect(document.activeElement).toBe(screen.getByText('after'))
    await userEvent.tab({ shift: true })
    expect(document.activeElement).toBe(cell('1,1'))
  })

  it('goes along a row with Home and End, and over all of it with Ctrl', async () => {
    render(<Board />)
    cell('1,1').focus()
    await userEvent.keyboard('{End}')
    expect(document.activeElement).toBe(cell('1,2'))
    await userEvent.keyboard('{Home}')
    expect(document.activeElement).toBe(cell('1,0'))
    await userEvent.keyboard('{Control>}{End}{/Control}')
    expect(document.activeElement).toBe(cell('2,2'))
    await userEvent.keyboard('{Control>}{Home}{/Control}')
    expect(document.activeElement).toBe(cell('0,0'))
  })

  it('stays at its edges', async () => {
    render(<Board />)
    cell('0,0').focus()
    await userEvent.keyboard('{ArrowUp}{ArrowLeft}')
    expect(document.activeElement).toBe(cell('0,0'))
  })

  it('asks for whatever is not drawn, and not for what is past the edges', async () => {
    const bring = vi.fn()
    render(<Board inSight={{ first: [0, -1], last: [299, 59], bring }} />)
    const keys = [
      '{ArrowDown}',
      '{ArrowRight}',
      '{End}',
      '{Control>}{End}{/Control}',
      '{Home}',
      '{ArrowUp}',
      '{ArrowLeft}',
    ]
    for (const key of keys) {
      cell('2,2').focus()
      await userEvent.keyboard(key)
    }
    expect(document.activeElement).toBe(cell('2,1'))
    expect(bring.mock.calls).toEqual([
      [3, 2],
      [2, 3],
      [2, 59],
      [299, 59],
      [2, -1],
    ])
    cell('0,1').focus()
    await userEvent.keyboard('{ArrowUp}')
    expect(bring).toHaveBeenCalledTimes(5)
  })

  it('has its stop at another cell when the one is gone', () => {
    const { rerender } = render(<Board />)
    cell('2,2').focus()
    rerender(<Board rows={1} columns={2} />)
    expect(document.querySelectorAll('[data-grid][tabindex="0"]')).toHaveLength(1)
    expect(cell('0,0').tabIndex).toBe(0)
  })

  it('keeps the focus on what was moved within it, and gives it to its stop when that is gone', () => {
    function Moving({ at }: { at: number | null }) {
      const grid = useGrid<HTMLDivElement>()
      return (
        <div {...grid}>
          {[0, 1].map((row) => (
            <div key={row}>
              <button type="button" data-grid={`${row},0`} tabIndex={-1}>
                head {row}
              </button>
              {at === row && (
                <button type="button" data-grid={`${row},1`} data-chip="press" tabIndex={-1}>
                  Press
                </button>
              )}
            </div>
          ))}
        </div>
      )
    }
    const { rerender } = render(<Moving at={0} />)
    screen.getByText('Press').focus()
    rerender(<Moving at={1} />)
    expect(document.activeElement).toBe(screen.getByText('Press'))
    rerender(<Moving at={null} />)
    expect(document.activeElement).toBe(screen.getByText('head 0'))
  })

  it('leads back from wherever it led, in whatever grid with gaps', () => {
    const opposite = { ArrowLeft: 'ArrowRight', ArrowRight: 'ArrowLeft' } as const
    let seed = 7
    const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    for (let round = 0; round < 200; round++) {
      const places = Array.from({ length: 6 }, (_, row) =>
        Array.from({ length: 6 }, (_, column) => [row, column] as const),
      )
        .flat()
        .filter(() => random() > 0.4)
      for (const from of places)
        for (const key of ['ArrowLeft', 'ArrowRight'] as const) {
          const to = nextInGrid(places, from, key)
          if (to) expect(nextInGrid(places, to, opposite[key])).toEqual(from)
        }
    }
  })
})
