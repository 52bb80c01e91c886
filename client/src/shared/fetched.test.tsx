import { act, render, screen } from '@testing-library/react'
import { Suspense } from 'react'
import { createMemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Broken } from '../app/Broken'
import { later } from './fetched'
import { Routed } from './Routed'

const Single = () => <p>Single Whip</p>
const brokenOff = () => Promise.reject(new TypeError('Failed to fetch dynamically imported module'))

function open(load: () => Promise<typeof Single>) {
  const Room = later(load)
  const page = (
    <Suspense fallback={<p>Opening…</p>}>
      <Room />
    </Suspense>
  )
  render(<Routed router={createMemoryRouter([{ path: '*', element: page, errorElement: <Broken /> }])} />)
}

describe('a room that comes when it is entered', () => {
  afterEach(() => void vi.useRealTimers())

  it('opens although the connection broke off while it came', async () => {
    vi.useFakeTimers()
    let asked = 0
    open(() => (++asked < 3 ? brokenOff() : Promise.resolve(Single)))
    await act(() => vi.advanceTimersByTimeAsync(400))
    screen.getByText('Opening…')
    await act(() => vi.advanceTimersByTimeAsync(1200))
    screen.getByText('Single Whip')
  })

  it.each([
    [brokenOff, /It did not come\..*The server does not answer/],
    [() => Promise.reject(new RangeError('Too many counts')), /went wrong while drawing it\..*Too many counts/],
  ])('says that it did not come or what is wrong with it, and how to go on', async (load, said) => {
    vi.useFakeTimers()
    vi.spyOn(console, 'error').mockReturnValue()
    open(load)
    await act(() => vi.advanceTimersByTimeAsync(60_000))
    expect(screen.getByRole('alert').textContent).toMatch(said)
    screen.getByRole('button', { name: 'Open it again' })
  })
})
