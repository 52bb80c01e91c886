import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { figuresQuery } from '../shared/SmallFigure'
import { FormStrip, placesOf, type Run } from './FormStrip'
import type { Form } from './data'

const names = ['Opening', 'Ward Off', 'Roll Back', 'Press', 'Push', 'Single Whip']

/** A form of one section; the parts of a compound have no number of their own. */
const form = (numbers: (string | null)[] = ['1', '2', null, null, '3', '4–5']) =>
  ({
    text: {
      name: 'Lamp Form',
      sections: [{ id: 'one', name: 'Section one' }],
      positions: names.map((name) => ({ id: name, sectionId: 'one' })),
    },
    study: { positions: names.map((name, at) => ({ id: name, name, number: numbers[at] })) },
  }) as unknown as Form

const draw = (part: { runs?: Run[]; chosen?: number; leftOut?: string[]; notes?: [string, string][] } = {}) => {
  const mark = vi.fn<(run: Run) => void>()
  const client = new QueryClient()
  // Its figures are here already, and there are none.
  client.setQueryData(figuresQuery('standing').queryKey, new Map())
  render(
    <QueryClientProvider client={client}>
      <FormStrip
        form={form()}
        runs={part.runs ?? []}
        chosen={part.chosen ?? -1}
        leftOut={new Set(part.leftOut)}
        notes={new Map(part.notes)}
        mark={mark}
      />
    </QueryClientProvider>,
  )
  return mark
}
const cell = (name: RegExp) => screen.getByRole('button', { name })

describe('a form as a strip', () => {
  it('is marked by its first and its last position, in whichever order, by keys alone', async () => {
    const mark = draw()
    cell(/^2 Ward Off/).focus()
    await userEvent.keyboard('{Enter}')
    expect(screen.getByRole('status').textContent).toContain('From Ward Off: now the last one.')
    await userEvent.keyboard('{End}{Enter}')
    expect(mark).toHaveBeenLastCalledWith({ from: 1, to: 5 })
    cell(/^3 Push/).focus()
    await userEvent.keyboard('{Enter}{Home}{Enter}')
    expect(mark).toHaveBeenLastCalledWith({ from: 0, to: 4 })
  })

  it('is marked by dragging over it', () => {
    const mark = draw()
    fireEvent.pointerDown(cell(/^1 Opening/), { pointerId: 1 })
    fireEvent.pointerEnter(cell(/^Press/))
    fireEvent.pointerUp(cell(/^Press/))
    expect(mark).toHaveBeenCalledWith({ from: 0, to: 3 })
  })

  it('forgets a beginning that is not wanted', async () => {
    const mark = draw()
    cell(/^2 Ward Off/).focus()
    await userEvent.keyboard('{Enter}')
    await userEvent.click(screen.getByText('Forget it'))
    expect(screen.getByRole('status').textContent).toContain('Drag over the form')
    expect(mark).not.toHaveBeenCalled()
  })

  it('says what is chosen, what is left out and what speaks against it', () => {
    draw({ runs: [{ from: 1, to: 3 }], chosen: 0, leftOut: ['Press'], notes: [['Roll Back', 'needs Stance Walking']] })
    const chosen = screen.getAllByRole('gridcell').map((one) => one.getAttribute('aria-selected'))
    expect(chosen).toEqual(['false', 'true', 'true', 'true', 'false', 'false'])
    expect(cell(/^Press, left out$/)).toBeTruthy()
    expect(cell(/^Roll Back: needs Stance Walking$/)).toBeTruthy()
  })
})

it('a position without a number is called by its place after the last one', () => {
  expect(placesOf(form())).toEqual(['1', '2', '2.1', '2.2', '3', '4'])
  expect(placesOf(form([null, '1', null, null, null, '2']))).toEqual(['0.1', '1', '1.1', '1.2', '1.3', '2'])
})
