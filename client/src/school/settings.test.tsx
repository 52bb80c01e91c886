import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { keepsEveryEdit } from '../testing/edited-form'
import { describe, expect, it } from 'vitest'
import { noor, teaching, term } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import type { Ways } from './data'
import { SchoolScreen } from './SchoolScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const press = async (name: string | RegExp) => user.click(await screen.findByRole('button', { name }))

keepsEveryEdit({
  name: 'a term',
  at: '/school?view=terms',
  screen: <SchoolScreen />,
  open: () => press('Autumn 2026'),
  field: 'Name',
  before: 'Autumn 2026',
  theirs: null,
  save: 'Save the term',
  sent: 'PUT /api/terms/autumn',
  version: term.version,
  path: 'name',
})

keepsEveryEdit({
  name: 'a pattern of passes',
  at: '/school?view=teaching',
  screen: <SchoolScreen />,
  // The list shows what is being written already.
  open: () => press(/^(Show and follow|Noor’s)$/),
  field: 'Name',
  before: 'Show and follow',
  theirs: {
    answers: {
      'GET /api/teaching': {
        body: {
          ...teaching,
          teaching: {
            ...teaching.teaching,
            patterns: [{ ...teaching.teaching.patterns[0]!, name: 'Follow and show' }],
          },
          version: 92,
        },
      },
    },
    says: 'Follow and show',
  },
  save: 'Save how we teach',
  sent: 'PUT /api/teaching',
  version: teaching.version,
  path: 'patterns[0].name',
})

describe('what this school does differently', () => {
  it('is saved one after the other, each on top of the one before, however quickly it is chosen', async () => {
    const kept = (ways: Partial<Ways>, version: number) => ({
      body: {
        ways: {
          facing: 'clock',
          demonstration: 'backToClass',
          numbering: {},
          layers: 'all',
          ...ways,
        },
        directions: [],
        version,
      },
    })
    const answers: (() => void)[] = []
    const { asked, answer } = serve({
      'GET /api/conventions': kept({}, 5),
      'PUT /api/conventions': (body) =>
        new Promise((done) => {
          const { ways, version } = body as { ways: Ways; version: number }
          answers.push(() => done((answer['GET /api/conventions'] = kept(ways, version + 1))))
        }),
    })
    draw(<SchoolScreen />, { as: noor, at: '/school' })
    const choose = async (name: RegExp, option: string) => {
      await user.click(await screen.findByRole('combobox', { name }))
      await user.click(await screen.findByRole('option', { name: option }))
    }
    await choose(/^Directions are said/, 'in degrees: 90°')
    await choose(/^Teachers show/, 'facing the class, mirrored')
    const sent = () => asked.filter(({ what }) => what.startsWith('PUT')).map(({ body }) => body)
    expect(sent()).toHaveLength(1)
    answers[0]!()
    await waitFor(() => expect(sent()).toHaveLength(2))
    expect(sent()[1]).toMatchObject({ ways: { facing: 'degrees', demonstration: 'facingMirrored' }, version: 6 })
    answers[1]!()
    await screen.findByText('facing the class, mirrored')
    expect(screen.queryByRole('alert')).toBeNull()
  })
})
