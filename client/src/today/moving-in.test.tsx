import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { noor } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { MovingInBar } from './MovingInBar'
import { MovingInScreen } from './MovingInScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const way = (done: readonly Schema['MovingInStep'][]): Schema['MovingInResponse'] => ({
  steps: (['school', 'halls', 'plan'] as const).map((step) => ({
    step,
    done: done.includes(step),
    says: `about ${step}`,
  })),
  putAside: false,
})

describe('the way in', () => {
  it('leads to the first step that is open, wherever one is', async () => {
    serve({ 'GET /api/moving-in': { body: way(['school']) } })
    draw(<MovingInBar />, { as: noor })
    expect((await screen.findByRole('link', { name: 'Halls' })).getAttribute('href')).toBe('/people?view=halls')
    expect(screen.getByRole('link', { name: 'Moving in: 1 of 3 steps are done' })).toBeTruthy()
  })

  it('shows every step with what is there or missing, and is put away', async () => {
    const { asked } = serve({ 'GET /api/moving-in': { body: way(['school']) }, 'PUT /api/moving-in': {} })
    const { router } = draw(<MovingInScreen />, { as: noor })
    await screen.findByText(/^1 of 3 steps are done/)
    expect(screen.getByRole('link', { name: 'Do this next: Halls' })).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Look at Name and place' })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Put this away' }))
    await waitFor(() => expect(router.state.location.pathname).toBe('/'))
    expect(asked.find(({ what }) => what === 'PUT /api/moving-in')?.body).toEqual({ putAside: true })
  })

  it('says so when everything is there', async () => {
    serve({ 'GET /api/moving-in': { body: way(['school', 'halls', 'plan']) } })
    draw(<MovingInBar />, { as: noor })
    await screen.findByText(/^You have moved in/)
  })
})
