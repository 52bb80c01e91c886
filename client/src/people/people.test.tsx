import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, evening, jonas, limits, details, noor, odile, school, student, students } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { PeopleScreen } from './PeopleScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const coverage: Schema['CoverageResponse'] = {
  cohortId: 'fern-group',
  cohort: 'Fern',
  class: 'Tuesday evening',
  mode: 'standing',
  summary: '1 of 2 postures fits everybody.',
  members: [
    { studentId: 'imke', name: 'Imke R.', mode: 'standing', hasLimits: false },
    { studentId: 'goran', name: 'Goran V.', mode: 'standing', hasLimits: true },
  ],
  rows: [
    {
      postureId: 'press',
      side: 'right',
      name: 'Press, right',
      verdict: 'taught',
      write: [],
      ruledOutBy: [],
      versions: [],
      cells: [0, 0],
    },
    {
      postureId: 'kick',
      side: 'left',
      name: 'Heel Kick, left',
      verdict: 'needsVersion',
      write: ['no-step'],
      ruledOutBy: [],
      versions: [],
      cells: [0, 1],
    },
  ],
  choices: [
    { fate: 'fits', mode: 'standing', because: [] },
    { fate: 'toWrite', mode: 'no-step', because: ['kick'] },
  ],
  cautions: [],
}

async function open(at: string, as = noor, more: Parameters<typeof serve>[0] = {}) {
  const server = serve({ ...answers, ...more })
  const drawn = draw(<PeopleScreen />, { at, as })
  await screen.findByRole('heading', { name: 'People' })
  const sent = (what: string) => server.asked.filter((one) => one.what === what).map(({ body }) => body)
  return { ...server, ...drawn, sent }
}
const names = () => screen.getAllByRole('rowheader').map((head) => head.textContent?.replace('limits', ''))

beforeEach(() => localStorage.clear())

describe('the roster', () => {
  it('is found by any part of a name, without minding accents or capitals, and by class, sash and mode', async () => {
    await open('/people?view=roster', noor, {
      'GET /api/students': {
        body: [
          ...students,
          student('marisol', { name: 'Marisol Núñez', mode: 'seated', sashId: 'ivory', cohortIds: ['ivory-group'] }),
        ],
      },
    })
    await waitFor(() => expect(names()).toEqual(['Imke Rademaker', 'Goran Vidal', 'Adaeze Obi', 'Marisol Núñez']))
    await user.type(screen.getByLabelText('Filter the roster'), 'NUN')
    expect(names()).toEqual(['Marisol Núñez'])
    expect(screen.getByRole('status').textContent).toBe('1 of 4')
    await user.clear(screen.getByLabelText('Filter the roster'))
    await user.type(screen.getByLabelText('Filter the roster'), 'fern')
    expect(names()).toEqual(['Imke Rademaker', 'Goran Vidal'])
  })

  it('chooses everybody that is shown, and nobody else', async () => {
    await open('/people?view=roster')
    await user.type(await screen.findByLabelText('Filter the roster'), 'fern')
    await user.click(screen.getByRole('checkbox', { name: 'Choose all shown' }))
    await screen.findByText('2 people chosen')
  })

  it('has another panel there as soon as it is pressed: nobody types into the one before', async () => {
    await open('/people?view=roster&student=imke')
    await screen.findByRole('heading', { name: 'Imke Rademaker' })
    screen.getByRole('button', { name: 'Add a student' }).click()
    expect(screen.queryByRole('heading', { name: 'Imke Rademaker' })).toBeNull()
    expect(screen.getByRole('heading', { name: 'New student' })).toBeTruthy()
  })

  it('leads an empty one on, and is for an instructor to read', async () => {
    const empty = await open('/people?view=roster', noor, { 'GET /api/students': { body: [] } })
    expect((await screen.findByRole('link', { name: 'Import a spreadsheet' })).getAttribute('href')).toBe(
      '/people?view=import',
    )
    empty.unmount()
    await open('/people?view=roster', jonas)
    await waitFor(() => expect(names()).toHaveLength(3))
    expect(screen.queryByRole('checkbox')).toBeNull()
    expect(screen.queryByRole('button', { name: 'Add a student' })).toBeNull()
  })
})

describe('the ladder', () => {
  it('waits for a save under way that is left, goes on once it has landed, and then closes nothing else', async () => {
    let saved = () => undefined as void
    await open('/people?view=ladder', noor, {
      'POST /api/sashes/fern/effects': { body: [] },
      'POST /api/sashes/ivory/effects': { body: [] },
      'PUT /api/sashes/fern': () =>
        new Promise((done) => {
          saved = () => done({})
        }),
    })
    await user.click(await screen.findByRole('button', { name: 'Change Fern' }))
    await screen.findByDisplayValue('Fern')
    await user.clear(screen.getByLabelText('Name'))
    await user.type(screen.getByLabelText('Name'), 'Moss')
    await user.click(screen.getByRole('button', { name: 'Save the sash' }))
    await user.click(screen.getByRole('button', { name: 'Change Ivory' }))
    screen.getByDisplayValue('Moss')
    saved()
    await screen.findByDisplayValue('Ivory')
    expect(screen.queryByRole('alertdialog')).toBeNull()
    await new Promise((done) => setTimeout(done, 50))
    screen.getByDisplayValue('Ivory')
  })
})

describe('one student', () => {
  it('shows limits to those who teach, never to an assistant, and reads them only when they are opened', async () => {
    const more = {
      'GET /api/students/goran/details': { body: details },
      'GET /api/students/goran/limits': { body: limits },
    }
    const head = await open('/people?view=roster&student=goran', noor, more)
    await screen.findByLabelText('Given name')
    expect(head.sent('GET /api/students/goran/limits')).toHaveLength(0)
    await user.click(screen.getByRole('tab', { name: 'Limits' }))
    await screen.findByLabelText('What helps')
    expect(head.sent('GET /api/students/goran/limits')).toHaveLength(1)
    head.unmount()
    const assistant = await open('/people?view=roster&student=goran', odile, more)
    await screen.findByText('Usual mode')
    expect(screen.queryByRole('tab', { name: 'Limits' })).toBeNull()
    expect(assistant.sent('GET /api/students/goran/details')).toHaveLength(0)
  })

  it('carries the day of the old level over to no other level', async () => {
    const { sent } = await open('/people?view=roster&student=imke', noor, {
      'GET /api/students/imke/details': { body: details },
      'PUT /api/students/imke': {},
    })
    await screen.findByLabelText('Given name')
    const sash = within(screen.getByRole('complementary')).getByRole('combobox', { name: 'Sash' })
    sash.focus()
    await user.keyboard('{Enter}')
    await user.click(await screen.findByRole('option', { name: 'Ivory' }))
    await user.click(screen.getByRole('button', { name: 'Save the student' }))
    await waitFor(() =>
      expect(sent('PUT /api/students/imke')).toMatchObject([
        { sashSince: null, version: 51, text: { sashId: 'ivory' } },
      ]),
    )
  })
})

describe('the ladder', () => {
  it('says what another order does before it is kept, and forgets it when that is wished', async () => {
    const { sent } = await open('/people?view=ladder', noor, {
      'POST /api/sashes/order/effects': { body: ['Two people work towards Ivory.'] },
      'PUT /api/sashes/order': {},
    })
    await user.click(await screen.findByRole('button', { name: 'Fern lower' }))
    await screen.findByText('Two people work towards Ivory.')
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    expect(screen.queryByText('Two people work towards Ivory.')).toBeNull()
    expect(sent('PUT /api/sashes/order')).toEqual([])
    await user.click(screen.getByRole('button', { name: 'Fern lower' }))
    await user.click(await screen.findByRole('button', { name: 'Keep the new order' }))
    await waitFor(() => expect(sent('PUT /api/sashes/order')).toEqual([{ order: ['fern', 'ivory'] }]))
  })
})

describe('a class', () => {
  it('says while it is written what collides, and takes the way out that is chosen', async () => {
    const { sent } = await open('/people?view=classes', noor, {
      'POST /api/classes/check': (body) => ({
        body:
          (body as { text: { start: string } }).text.start === '18:30:00'
            ? [
                {
                  field: 'start',
                  message: 'Quay Hall is taken until 19:00.',
                  blocks: true,
                  ways: [{ label: 'at 19:00', hallId: null, start: '19:00:00', staffOutId: null, staffInId: null }],
                },
              ]
            : [],
      }),
      'PUT /api/classes/evening': {},
    })
    await user.click(await screen.findByRole('button', { name: 'Change Tuesday evening' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Quay Hall is taken until 19:00.')
    await user.click(screen.getByRole('button', { name: 'at 19:00' }))
    await waitFor(() => expect(screen.queryByText(/is taken until/)).toBeNull())
    await user.click(screen.getByRole('button', { name: 'Save the class' }))
    await waitFor(() =>
      expect(sent('PUT /api/classes/evening')).toMatchObject([{ text: { start: '19:00:00' }, version: 31 }]),
    )
  })

  it('is ended only after its people have somewhere to go, and when that was said twice', async () => {
    const other = {
      ...evening,
      id: 'friday',
      name: 'Friday morning',
      cohorts: [{ ...evening.cohorts[0]!, id: 'friday-group', name: 'Mixed' }],
    }
    const { sent } = await open('/people?view=classes', noor, {
      'GET /api/people': { body: { ...school, classes: [evening, other] } },
      'POST /api/classes/evening/removal': { status: 400, body: refusal('Say where Fern goes.') },
    })
    await user.click(await screen.findByRole('button', { name: 'Change Tuesday evening' }))
    await user.click(screen.getByRole('button', { name: 'End this class' }))
    await user.click(screen.getByRole('button', { name: 'End Tuesday evening' }))
    await user.click(within(await screen.findByRole('alertdialog')).getByRole('button', { name: 'Keep it' }))
    expect(sent('POST /api/classes/evening/removal')).toEqual([])
    await user.click(screen.getByRole('button', { name: 'End Tuesday evening' }))
    await user.click(within(await screen.findByRole('alertdialog')).getByRole('button', { name: 'End the class' }))
    await screen.findByText('Say where Fern goes.')
    expect(sent('POST /api/classes/evening/removal')).toEqual([{ into: {} }])
  })
})

describe('what is to be settled', () => {
  const settled: Schema['SafetyItem'] = {
    studentId: 'goran',
    student: 'Goran V.',
    classId: 'evening',
    class: 'Tuesday evening',
    cohort: 'Fern',
    postureId: 'kick',
    side: 'left',
    posture: 'Heel Kick, left',
    first: '2026-12-01',
    breaks: ['kick'],
    modes: [
      { mode: 'no-step', words: 'the heel slides forward' },
      { mode: 'seated', words: 'the heel lifts' },
    ],
    toWrite: null,
    open: false,
    says: 'Goran V.: Heel Kick, left no-step, toe down',
    decided: { mode: 'seated', words: 'toe down' },
  }

  it('begins anew with the mode and the words it was settled with, and keeps own words in any mode', async () => {
    await open('/people?view=safety', noor, { 'GET /api/safety': { body: [settled] } })
    await user.click(await screen.findByRole('button', { name: 'Settle anew: Goran V., Heel Kick, left' }))
    const words = screen.getByLabelText<HTMLInputElement>('As the sheet says it')
    expect(words.value).toBe('toe down')
    expect(screen.getByRole('combobox', { name: 'Does it' }).textContent).toBe('seated')
    await user.click(screen.getByRole('combobox', { name: 'Does it' }))
    await user.click(await screen.findByRole('option', { name: 'leaves it out' }))
    expect(words.value).toBe('toe down')
  })

  it('offers the words of the version, which change with the mode', async () => {
    await open('/people?view=safety', noor, {
      'GET /api/safety': { body: [{ ...settled, open: true, decided: null }] },
    })
    const words = await screen.findByLabelText<HTMLInputElement>('As the sheet says it')
    expect(words.value).toBe('the heel slides forward')
    await user.click(screen.getByRole('combobox', { name: 'Does it' }))
    await user.click(await screen.findByRole('option', { name: 'seated' }))
    expect(words.value).toBe('the heel lifts')
  })
})

describe('coverage', () => {
  const at = '/people?view=coverage&cohort=fern-group'
  const more = { 'GET /api/cohorts/fern-group/coverage': { body: coverage } }

  it('says of every posture for everybody how it is done, and why', async () => {
    await open(at, noor, more)
    const cell = await screen.findByRole('button', { name: /^Goran V\., Heel Kick, left/ })
    await user.click(cell)
    expect(await screen.findByText(/Ruled out because it would ask for/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Write the no-step version' }).getAttribute('href')).toMatch(
      /^\/forms\/postures\/kick\?edit=1&version=no-step&back=/,
    )
    cell.focus()
    await user.keyboard('{ArrowUp}')
    expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Goran V\., Press, right/)
  })

  it('offers where a cell is pressed what can be done about it', async () => {
    const { router } = await open(at, noor, more)
    await user.pointer({
      target: await screen.findByRole('button', { name: /^Goran V\., Heel Kick/ }),
      keys: '[MouseRight]',
    })
    expect((await screen.findAllByRole('menuitem')).map((item) => item.textContent)).toEqual([
      'Why so',
      'Write the no-step version',
      'Open Heel Kick, left',
      'Goran V. in the roster',
    ])
    await user.click(screen.getByRole('menuitem', { name: 'Goran V. in the roster' }))
    expect(router.state.location.search).toBe('?view=roster&student=goran')
  })

  it('is not the place for an instructor to write versions', async () => {
    await open(at, jonas, more)
    await user.pointer({
      target: await screen.findByRole('button', { name: /^Goran V\., Heel Kick/ }),
      keys: '[MouseRight]',
    })
    await screen.findAllByRole('menuitem')
    expect(screen.queryByRole('menuitem', { name: /^Write/ })).toBeNull()
    expect(screen.queryByRole('link', { name: /^Write/ })).toBeNull()
  })
})
