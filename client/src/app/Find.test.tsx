import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { Find } from './Find'

const school = {
  classes: [{ id: 'evening', name: 'Tuesday evening', cohorts: [{ id: 'copper', name: 'Copper' }] }],
  halls: [],
  staff: [],
  sashes: [],
}

async function open(close = vi.fn()) {
  serve({
    'GET /api/people': { body: school },
    'GET /api/students': {
      body: [
        { id: 'imke', name: 'Imke Rademaker', cohortIds: ['copper'] },
        { id: 'marisol', name: 'Marisol Núñez', cohortIds: [] },
      ],
    },
    'GET /api/postures': {
      body: [
        { id: 'whip', name: 'Single Whip', otherNames: ['Whip to One Side'], kind: 'posture' },
        { id: 'press', name: 'Press', otherNames: [], kind: 'posture' },
      ],
    },
  })
  const drawn = draw(<Find close={close} />)
  const field = screen.getByRole('combobox')
  await waitFor(() => expect(screen.queryByText('Looking…')).toBeNull())
  return { ...drawn, field, close }
}

const hits = () => screen.queryAllByRole('option').map((option) => option.textContent)

describe('find', () => {
  it('knows rooms, classes, students and postures by any part of any name', async () => {
    const { field } = await open()
    await userEvent.type(field, 'whip')
    await waitFor(() => expect(hits()).toEqual(['Single Whipposture', 'Whip to One SideSingle Whip']))
    await userEvent.clear(field)
    await userEvent.type(field, 'tuesday')
    await waitFor(() => expect(hits()).toEqual(['Tuesday eveningclass']))
    await userEvent.clear(field)
    await userEvent.type(field, 'less')
    expect(hits()).toEqual(['Lessonsroom'])
  })

  it('does not mind capitals and accents', async () => {
    const { field } = await open()
    await userEvent.type(field, 'NUNEZ')
    await waitFor(() => expect(hits()).toEqual(['Marisol Núñezstudent']))
  })

  it('keeps the focus in the field while the arrows go through what was found, and Enter goes there', async () => {
    const { field, router, close } = await open()
    await userEvent.type(field, 'whip')
    await waitFor(() => expect(hits()).toHaveLength(2))
    expect(screen.getAllByRole('option')[0]!.id).toBe(field.getAttribute('aria-activedescendant'))
    await userEvent.keyboard('{ArrowDown}{ArrowDown}')
    expect(screen.getAllByRole('option')[1]!.getAttribute('aria-selected')).toBe('true')
    expect(document.activeElement).toBe(field)
    await userEvent.keyboard('{Enter}')
    expect(close).toHaveBeenCalled()
    expect(router.state.location.pathname).toBe('/forms/postures/whip')
  })

  it('leads to what a student can do, or to the roster for whoever is in no class', async () => {
    const { field, router } = await open()
    await userEvent.type(field, 'imke')
    await waitFor(() => expect(hits()).toEqual(['Imke RademakerCopper']))
    await userEvent.keyboard('{Enter}')
    expect(router.state.location.pathname + router.state.location.search).toBe('/progress/evening?student=imke')
  })

  it('says when nothing is called so', async () => {
    const { field } = await open()
    await userEvent.type(field, 'xyz')
    await screen.findByText('Nothing is called “xyz”.')
    await userEvent.keyboard('{Enter}')
  })
})
