import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { MoveBar } from './MoveBar'
import type { School, Student } from './data'

const school = {
  classes: [
    {
      id: 'evening',
      name: 'Tuesday evening',
      cohorts: [
        { id: 'ivory', name: 'Ivory' },
        { id: 'fern', name: 'Fern' },
      ],
    },
  ],
  sashes: [{ id: 'garnet', name: 'Garnet', hasHalves: true }],
} as unknown as School

const student = (id: string, version: number) =>
  ({ id, name: id, version, sashId: 'ivory', half: 'none', cohortIds: ['ivory'] }) as unknown as Student

async function open(status?: number) {
  const kept = [student('imke', 3), student('goran', 5)]
  const server = serve({
    'GET /api/students': { body: kept },
    'POST /api/students/moves': status ? { status, body: refusal('Imke was changed in the meantime.') } : {},
  })
  const letGo = vi.fn()
  draw(<MoveBar school={school} students={kept} letGo={letGo} />)
  await screen.findByText('2 people chosen')
  await waitFor(() => expect(server.asked).toHaveLength(1))
  return { ...server, letGo, kept }
}
const moves = (asked: { what: string; body: unknown }[]) =>
  asked.filter(({ what }) => what.endsWith('/moves')).map(({ body }) => (body as { moves: unknown[] }).moves)

const user = userEvent.setup({ pointerEventsCheck: 0 })

describe('moving several at once', () => {
  it('moves nobody before a place is chosen', async () => {
    const { asked } = await open()
    screen.getByRole('button', { name: 'Move to a cohort' }).focus()
    await user.keyboard('{ArrowDown}{ArrowDown}{Escape}')
    expect(moves(asked)).toEqual([])
  })

  it('sends everybody with the version that was read, and takes the move back with the newest', async () => {
    const { asked, answer, letGo, kept } = await open()
    screen.getByRole('button', { name: 'Move to a cohort' }).focus()
    await user.keyboard('{ArrowDown}{ArrowRight}{ArrowDown}{Enter}')
    await waitFor(() => expect(letGo).toHaveBeenCalledWith(['imke', 'goran']))
    expect(moves(asked)[0]).toMatchObject([
      { id: 'imke', cohortIds: ['fern'], version: 3 },
      { id: 'goran', cohortIds: ['fern'], version: 5 },
    ])
    answer['GET /api/students'] = { body: kept.map((one) => ({ ...one, version: one.version + 10 })) }
    await user.keyboard('z')
    await waitFor(() =>
      expect(moves(asked)[1]).toMatchObject([
        { id: 'imke', cohortIds: ['ivory'], version: 13 },
        { id: 'goran', cohortIds: ['ivory'], version: 15 },
      ]),
    )
  })

  it('says why when somebody else was quicker', async () => {
    const { letGo } = await open(409)
    screen.getByRole('button', { name: 'Move to a level' }).focus()
    await user.keyboard('{ArrowDown}{Enter}')
    await screen.findByText('Imke was changed in the meantime.')
    expect(letGo).not.toHaveBeenCalled()
  })
})
