import { render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { Weave } from './Weave'
import type { WeaveChip, WeaveColumn, WeaveMove } from './weave-types'

const columns: WeaveColumn[] = [1, 2, 3].map((number) => ({
  id: `lesson ${number}`,
  head: number,
  says: `Lesson ${number}`,
}))

const chip = (id: string, column: number, part: Partial<WeaveChip> = {}): WeaveChip => ({
  id,
  column,
  name: id,
  card: <p>{id} is here because</p>,
  knots: [],
  says: `${id}, Copper`,
  done: false,
  ...part,
})

const fits = { verdict: 'fits' as const, says: 'fits' }

function Board({
  drop,
  choose = vi.fn(),
}: {
  drop: (chip: string, column: string) => void
  choose?: (chip: string) => void
}) {
  const [now, setNow] = useState<WeaveMove>()
  return (
    <Weave
      label="Winter term, Tuesday evening"
      columns={columns}
      rows={[
        {
          id: 'copper',
          head: 'Copper',
          colour: '#AE6A38',
          chips: [chip('Press', 0), chip('Push', 1), chip('Opening', 0, { done: true })],
          ghosts: [],
          boxes: [],
        },
      ]}
      foot={{ head: 'minutes', cells: ['1', '2', '3'] }}
      onChoose={choose}
      onColumn={vi.fn()}
      menu={(id) => [{ name: `Keep ${id}`, act: () => drop(id, 'kept') }]}
      move={{
        now: now && { ...now, costs: Object.fromEntries(columns.map(({ id }) => [id, fits])) },
        start: (id, at) => setNow({ chip: id, at }),
        drop: (id, column) => {
          setNow(undefined)
          drop(id, column)
        },
        cancel: () => setNow(undefined),
      }}
    />
  )
}

const card = (name: string) => screen.getByRole('button', { name: `${name}, Copper` })

describe('the board of a term', () => {
  it('is a grid with one stop, rows and columns by the arrows', async () => {
    render(<Board drop={vi.fn()} />)
    const grid = screen.getByRole('grid', { name: 'Winter term, Tuesday evening' })
    expect(within(grid).getAllByRole('columnheader')).toHaveLength(4)
    expect(grid.querySelectorAll('[tabindex="0"]')).toHaveLength(1)
    card('Press').focus()
    await userEvent.keyboard('{ArrowRight}')
    expect(document.activeElement).toBe(card('Push'))
    await userEvent.keyboard('{ArrowUp}')
    expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Lesson 2' }))
  })

  it('takes a posture to another lesson by keys, says what that costs, and puts it there', async () => {
    const drop = vi.fn()
    render(<Board drop={drop} />)
    card('Press').focus()
    await userEvent.keyboard('{Shift>}{ArrowRight}{ArrowRight}{/Shift}')
    await screen.findByText('Lesson 3: fits. Enter puts it there, Escape leaves it where it is.')
    await userEvent.keyboard('{Enter}')
    expect(drop).toHaveBeenCalledWith('Press', 'lesson 3')
  })

  it('leaves it where it is on Escape, and does not go past the ends', async () => {
    const drop = vi.fn()
    render(<Board drop={drop} />)
    card('Press').focus()
    await userEvent.keyboard('{Shift>}{ArrowLeft}{/Shift}')
    await screen.findByText(/^Lesson 1: fits/)
    await userEvent.keyboard('{Escape}')
    await waitFor(() => expect(screen.queryByText(/Enter puts it there/)).toBeNull())
    expect(drop).not.toHaveBeenCalled()
  })

  it('does not move what has been taught', async () => {
    render(<Board drop={vi.fn()} />)
    card('Opening').focus()
    await userEvent.keyboard('{Shift>}{ArrowRight}{/Shift}')
    expect(screen.queryByText(/Enter puts it there/)).toBeNull()
  })

  it('offers by its menu what can be done to the posture that was pressed', async () => {
    const drop = vi.fn()
    render(<Board drop={drop} />)
    await userEvent.pointer({ keys: '[MouseRight]', target: card('Push') })
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Keep Push' }))
    expect(drop).toHaveBeenCalledWith('Push', 'kept')
  })

  it('opens a posture with Enter', async () => {
    const choose = vi.fn()
    render(<Board drop={vi.fn()} choose={choose} />)
    card('Push').focus()
    await userEvent.keyboard('{Enter}')
    expect(choose).toHaveBeenCalledWith('Push')
  })
})
