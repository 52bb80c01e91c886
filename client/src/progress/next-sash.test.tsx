import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'
import { answers, noor, term } from '../testing/heron-quay'
import { readiness } from '../testing/readiness'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { NextSashScreen } from './NextSashScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

describe('the next sash', () => {
  it('says who is ready, who will likely be by the test, and what each lacks', async () => {
    serve({
      ...answers,
      'GET /api/classes/evening/readiness': { body: readiness },
      'GET /api/terms': { body: [term] },
    })
    draw(
      <Routes>
        <Route path="/progress/:classId/next-sash" element={<NextSashScreen />} />
      </Routes>,
      { at: '/progress/evening/next-sash', as: noor },
    )
    await screen.findByRole('heading', { name: 'Ready for the next sash' })
    expect(screen.getAllByRole('heading', { level: 2 }).map((head) => head.textContent)).toEqual([
      'Ready: 1 person',
      'Likely by the test of 15 December: 1 person',
      'No date yet: 1 person',
      'With nothing to judge by yet: 1 person',
    ])
    const imke = within(screen.getByRole('link', { name: 'Imke R.' }).closest('li')!)
    expect(imke.getByText('For Copper.').parentElement!.textContent).toBe(
      'For Copper. Likely by 12 December, at 1.2 lessons a week.',
    )
    expect(imke.getByText(/^20 of 26 weeks at the level/).textContent).toBe('20 of 26 weeks at the level, 12 December')
    expect(imke.getByText(/the knee drifts inside/).textContent).toContain('(key point)')
    await user.click(imke.getByRole('button', { name: /^1 link to be seen alone/ }))
    expect(imke.getByText('Push, left → Single Whip, left')).toBeTruthy()
    const goran = within(screen.getByRole('link', { name: 'Goran V.' }).closest('li')!)
    expect(goran.getByText(/No date yet: 1 posture of it is in no plan/)).toBeTruthy()
    expect(goran.getByText(/no version they can do: Heel Kick, right/)).toBeTruthy()
    expect(screen.getByText(/Ready: nothing is missing/)).toBeTruthy()
  })
})
