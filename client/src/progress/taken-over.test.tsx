import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, noor } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { TakenOverScreen } from './TakenOverScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const column = (postureId: string, name: string): Schema['TakenOverColumn'] => ({ postureId, side: 'left', name })
const cell = (part: Partial<Schema['TakenOverCell']> = {}): Schema['TakenOverCell'] => ({
  stage: 'alone',
  said: false,
  seen: null,
  ...part,
})
const table: Schema['TakenOverResponse'] = {
  cohortId: 'fern-group',
  cohort: 'Fern',
  sections: [
    {
      formId: 'lantern',
      form: 'Lantern Form',
      section: 'Section one',
      columns: [column('whip', 'Single Whip, left'), column('press', 'Press, left'), column('push', 'Push, left')],
    },
    {
      formId: 'lantern',
      form: 'Lantern Form',
      section: 'Section two',
      columns: [column('pipa', 'Play the Pipa, left')],
    },
  ],
  rows: ['Imke Rademaker', 'Goran Vidal'].map((name) => ({
    studentId: name,
    name,
    sash: 'Fern',
    colour: '#6C8F4E',
    half: 'none',
    cells: [cell(), cell({ seen: 'follows' }), cell(), cell({ stage: 'notMet' })],
  })),
}

const open = async () => {
  const server = serve({
    ...answers,
    'GET /api/cohorts/fern-group/taken-over': { body: table },
    'POST /api/cohorts/fern-group/taken-over': {},
  })
  draw(<TakenOverScreen />, { at: '/progress/taken-over', as: noor })
  await screen.findByRole('grid', { name: 'What people came with' })
  const said = () =>
    server.asked
      .filter(({ what }) => what.startsWith('POST'))
      .map(({ body }) =>
        (body as { marks: Schema['TakenOverMark'][] }).marks.map((mark) => [
          mark.studentId,
          mark.postureId,
          mark.stage,
        ]),
      )
  return { ...server, said }
}
const place = (name: string) => screen.getByRole('gridcell', { name: new RegExp(`^${name}`) })

describe('what people came with', () => {
  it('says of each place what their sash says, and what was seen here since', async () => {
    await open()
    expect(place('Imke Rademaker, Single Whip, left').getAttribute('aria-label')).toMatch(/: alone$/)
    expect(place('Imke Rademaker, Press, left').getAttribute('aria-label')).toMatch(/seen here since: follows$/)
  })

  it('is said of one place by a key, and taken back', async () => {
    const { said } = await open()
    await user.click(place('Goran Vidal, Single Whip, left'))
    await user.keyboard('0')
    await waitFor(() => expect(said()).toEqual([[['Goran Vidal', 'whip', 'notMet']]]))
    await user.click(await screen.findByRole('button', { name: /^Undo Goran Vidal/ }))
    await waitFor(() => expect(said()[1]).toEqual([['Goran Vidal', 'whip', 'alone']]))
  })

  it('is said from some place on: what is so already is not said again', async () => {
    const { said } = await open()
    await user.click(place('Imke Rademaker, Press, left'))
    await user.click(screen.getByRole('button', { name: 'not met from here on' }))
    await waitFor(() =>
      expect(said()).toEqual([
        [
          ['Imke Rademaker', 'press', 'notMet'],
          ['Imke Rademaker', 'push', 'notMet'],
        ],
      ]),
    )
  })

  it('is said of a whole section for those who are ticked, or of a form from another school', async () => {
    const { said } = await open()
    await user.click(screen.getByRole('checkbox', { name: 'Tick Goran Vidal' }))
    await user.click(screen.getByRole('button', { name: /^Section one of Lantern Form, for Goran Vidal/ }))
    await user.click(await screen.findByRole('menuitem', { name: /^Section one: shown/ }))
    await waitFor(() => expect(said()[0]).toHaveLength(3))
    expect(new Set(said()[0]!.map(([who]) => who))).toEqual(new Set(['Goran Vidal']))
    await user.click(screen.getByRole('button', { name: /^Section two of Lantern Form/ }))
    await user.click(await screen.findByRole('menuitem', { name: /^All of Lantern Form: alone/ }))
    await waitFor(() => expect(said()[1]).toEqual([['Goran Vidal', 'pipa', 'alone']]))
  })
})
