import { screen } from '@testing-library/react'
import { Route, Routes } from 'react-router'
import { expect, it } from 'vitest'
import { draw } from '../testing/render'
import { useSearch } from './search'

function Positions() {
  const [search, set] = useSearch()
  return (
    <>
      <p>chosen: {search.get('position')}</p>
      <button type="button" onClick={() => set({ position: 'single-whip', view: null })}>
        Single Whip
      </button>
    </>
  )
}

it('is seen before anything else can be pressed, on a page below the routes too', async () => {
  const { router } = draw(
    <Routes>
      <Route path="/forms" element={<Positions />} />
    </Routes>,
    { at: '/forms?position=opening&view=cues&open=1' },
  )
  screen.getByText('chosen: opening')
  // Pressed as a browser does it: nothing here waits for React to have drawn.
  screen.getByRole('button').click()
  for (let step = 0; step < 20; step++) await Promise.resolve()
  screen.getByText('chosen: single-whip')
  expect(router.state.location.search).toBe('?position=single-whip&open=1')
})
