import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { keepsEveryEdit } from '../testing/edited-form'
import { answers, evening, jonas, noor, school, term } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import type { Plan } from './data'
import { TermScreen } from './TermScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const address = '/api/terms/autumn/classes/evening/plan'

const lesson = (
  date: string,
  number: number | null,
  part: Partial<Schema['PlanColumn']> = {},
): Schema['PlanColumn'] => ({
  date,
  usual: date,
  start: '18:30:00',
  minutes: 90,
  hallId: 'quay',
  number,
  kind: 'ordinary',
  closed: null,
  held: false,
  watchMinutes: 0,
  ledMinutes: 40,
  teacherMinutes: 150,
  ...part,
})

const posture = (
  id: string,
  name: string,
  date: string,
  part: Partial<Schema['PlanChip']> = {},
): Schema['PlanChip'] => ({
  id,
  pinned: false,
  was: null,
  kind: 'posture',
  postureId: id,
  side: 'left',
  from: null,
  sharedWith: [],
  name,
  date,
  taught: false,
  minutes: 8,
  effort: 'Six counts, difficulty 2: 8 minutes.',
  because: 'Its target is near.',
  reviews: [],
  ...part,
})

const row = (cohortId: string, name: string, part: Partial<Schema['PlanRow']> = {}): Schema['PlanRow'] => ({
  cohortId,
  name,
  colour: '#6C8F4E',
  half: 'none',
  mode: 'standing',
  people: 2,
  assigned: true,
  chips: [],
  runThroughs: [],
  kept: [],
  keeps: null,
  leftOver: [],
  leftMinutes: 0,
  refused: [],
  finish: null,
  target: '2026-12-15',
  exact: true,
  forecast: null,
  ...part,
})

const plan: Plan = {
  termId: 'autumn',
  term: 'Autumn 2026',
  classId: 'evening',
  class: 'Tuesday evening',
  lessons: [
    lesson('2026-10-20', 6, { held: true }),
    lesson('2026-10-27', null, { closed: 'the hall is painted' }),
    lesson('2026-12-01', 7),
    lesson('2026-12-08', 8),
  ],
  rows: [
    row('fern-group', 'Fern', {
      chips: [
        posture('press', 'Press, left', '2026-10-20', { taught: true }),
        posture('whip', 'Single Whip, left', '2026-12-01'),
      ],
    }),
  ],
  plannedAt: '2026-11-20T10:00:00Z',
  outOfDate: false,
  draft: null,
  redo: null,
  announced: 3,
  changes: [],
}
const drafted: Plan = { ...plan, draft: { id: 'draft-1', steps: 1, cause: 'Single Whip, left fixed on 1 December' } }

async function open(shown: Plan, as = noor, more: Parameters<typeof serve>[0] = {}, at = '/term') {
  const server = serve({
    ...answers,
    [`GET ${address}`]: { body: shown },
    [`POST ${address}`]: { body: drafted },
    [`PUT ${address}/chips/whip/pin`]: { body: drafted },
    [`POST ${address}/undo`]: { body: plan },
    [`POST ${address}/announcement`]: { body: { ...plan, announced: 4 } },
    ...more,
  })
  const drawn = draw(<TermScreen />, { at, as })
  await screen.findByRole('heading', { name: 'Autumn 2026 · Tuesday evening' })
  const sent = (what: string) => server.asked.filter((one) => one.what === what).map(({ body }) => body)
  return { ...server, ...drawn, sent }
}
const chip = (name: RegExp) => screen.getByRole('button', { name })

describe('the term of a class', () => {
  it('leads to the first segment where nothing is assigned, and plans where something is', async () => {
    const nothing = { ...plan, plannedAt: null, rows: [row('fern-group', 'Fern', { assigned: false })] }
    const first = await open(nothing)
    expect(screen.getByRole('link', { name: 'Assign to Ivory' }).getAttribute('href')).toBe(
      '/people?view=assign&cohort=ivory-group',
    )
    first.unmount()
    const { sent } = await open({ ...plan, plannedAt: null })
    await user.click(screen.getByRole('button', { name: 'Plan it now' }))
    await waitFor(() => expect(sent(`POST ${address}`)).toHaveLength(1))
    await screen.findByText(/Single Whip, left fixed on 1 December\./)
  })

  it('keeps a posture on its date by the key p, and what was taught where it was', async () => {
    const { sent } = await open(plan)
    chip(/^Press, left/).focus()
    await user.keyboard('p')
    chip(/^Single Whip, left/).focus()
    await user.keyboard('p')
    await waitFor(() => expect(sent(`PUT ${address}/chips/whip/pin`)).toEqual([{ date: '2026-12-01' }]))
    expect(sent(`PUT ${address}/chips/press/pin`)).toEqual([])
  })

  it('moves a posture from its menu, to lessons that are still to come', async () => {
    const { sent } = await open(plan)
    await user.pointer({ target: chip(/^Single Whip, left/), keys: '[MouseRight]' })
    const menu = await screen.findByRole('menu')
    within(menu).getByRole('menuitem', { name: 'Move to' }).focus()
    await user.keyboard('{ArrowRight}')
    const lessons = await screen.findAllByRole('menuitem', { name: /^Lesson/ })
    expect(lessons.map((item) => item.textContent)).toEqual(['Lesson 8, 8 December'])
    await user.keyboard('{Enter}')
    await waitFor(() => expect(sent(`PUT ${address}/chips/whip/pin`)).toEqual([{ date: '2026-12-08' }]))
  })

  it('says for each lesson what it would cost, and puts the posture down or leaves it', async () => {
    const costs: Schema['PlanCost'][] = [
      { date: '2026-12-01', verdict: 'here', overMinutes: 0, says: 'It is here.' },
      { date: '2026-12-08', verdict: 'over', overMinutes: 6, says: '6 minutes over.' },
    ]
    const { sent } = await open(plan, noor, { [`GET ${address}/chips/whip/moves`]: { body: costs } })
    chip(/^Single Whip, left/).focus()
    await user.keyboard('{Shift>}{ArrowRight}{/Shift}')
    expect(await screen.findAllByText(/6 minutes over/)).not.toEqual([])
    await user.keyboard('{Escape}')
    expect(sent(`PUT ${address}/chips/whip/pin`)).toEqual([])
    await user.keyboard('{Shift>}{ArrowRight}{/Shift}')
    await user.keyboard('{Enter}')
    await waitFor(() => expect(sent(`PUT ${address}/chips/whip/pin`)).toEqual([{ date: '2026-12-08' }]))
  })

  it('takes the last step back with z, and drops nothing that is not there', async () => {
    const without = await open(plan)
    await user.keyboard('z')
    expect(without.sent(`POST ${address}/undo`)).toEqual([])
    without.unmount()
    const { sent } = await open(drafted)
    await user.keyboard('z')
    await waitFor(() => expect(sent(`POST ${address}/undo`)).toHaveLength(1))
    await waitFor(() => expect(screen.queryByText(/fixed on 1 December\./)).toBeNull())
  })

  it('does again with Z what was taken back, and says what that is', async () => {
    const undone = { ...plan, redo: 'Single Whip, left fixed on 1 December' }
    const { sent } = await open(drafted, noor, {
      [`POST ${address}/undo`]: { body: undone },
      [`POST ${address}/redo`]: { body: drafted },
    })
    await user.keyboard('Z')
    expect(sent(`POST ${address}/redo`)).toEqual([])
    await user.keyboard('z')
    await screen.findByText('Taken back: Single Whip, left fixed on 1 December.')
    expect(screen.queryByRole('button', { name: /^Undo/ })).toBeNull()
    await user.keyboard('Z')
    await waitFor(() => expect(sent(`POST ${address}/redo`)).toHaveLength(1))
    await screen.findByText('Single Whip, left fixed on 1 December.')
    expect(screen.queryByRole('button', { name: /^Redo/ })).toBeNull()
  })

  it('leaves a first plan alone when z is pressed, and drops it only after asking', async () => {
    const first = { ...drafted, announced: null }
    const { sent } = await open(first, noor, { [`POST ${address}/discard`]: { body: { ...plan, plannedAt: null } } })
    await user.keyboard('z')
    expect(screen.queryByRole('button', { name: /^Undo/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Drop the draft' }))
    const question = within(await screen.findByRole('alertdialog'))
    await user.click(question.getByRole('button', { name: 'Keep it' }))
    expect([...sent(`POST ${address}/undo`), ...sent(`POST ${address}/discard`)]).toEqual([])
    await user.click(screen.getByRole('button', { name: 'Drop the draft' }))
    await user.click(await screen.findByRole('button', { name: 'Drop it' }))
    await waitFor(() => expect(sent(`POST ${address}/discard`)).toHaveLength(1))
    await screen.findByRole('button', { name: 'Plan it now' })
  })

  it('takes no step from a draft that somebody else has moved on from, and shows theirs', async () => {
    const { answer } = await open(drafted)
    answer[`PUT ${address}/chips/whip/pin`] = {
      status: 409,
      body: refusal('The draft was changed in the meantime.', { changes: ['The last step is: Press let go.'] }),
    }
    answer[`GET ${address}`] = { body: { ...drafted, draft: { id: 'draft-2', steps: 2, cause: 'Press let go' } } }
    chip(/^Single Whip, left/).focus()
    await user.keyboard('p')
    await screen.findByText('The draft was changed in the meantime.')
    await screen.findByText('Press let go.')
  })

  it('announces the draft that was looked at, and says why when it cannot be', async () => {
    const { asked, answer } = await open(drafted)
    answer[`POST ${address}/announcement`] = { status: 409, body: refusal('The draft was changed meanwhile.') }
    await user.click(screen.getByRole('button', { name: 'Announce this plan' }))
    await screen.findByText('The draft was changed meanwhile.')
    expect(chip(/^Single Whip, left/)).toBeTruthy()
    answer[`POST ${address}/announcement`] = { body: { ...plan, announced: 4 } }
    await user.click(screen.getByRole('button', { name: 'Announce this plan' }))
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Announce this plan' })).toBeNull())
    const announced = asked.filter(({ what }) => what.endsWith('/announcement')).map(({ query }) => query)
    expect(announced).toEqual(['?draft=draft-1', '?draft=draft-1'])
  })

  it('shows the announced plan beside the draft, and changes neither while it is looked at', async () => {
    const { sent } = await open(drafted)
    await user.click(screen.getByRole('radio', { name: 'Announced, plan 3' }))
    await waitFor(() =>
      expect(screen.getByRole('radio', { name: 'Announced, plan 3' }).getAttribute('aria-checked')).toBe('true'),
    )
    chip(/^Single Whip, left/).focus()
    await user.keyboard('pz')
    expect(sent(`PUT ${address}/chips/whip/pin`)).toEqual([])
    expect(sent(`POST ${address}/undo`)).toEqual([])
  })

  it('is for an instructor to read', async () => {
    const { sent } = await open(drafted, jonas)
    expect(screen.queryByRole('button', { name: /^(Announce this|Plan) / })).toBeNull()
    chip(/^Single Whip, left/).focus()
    await user.keyboard('p')
    await user.click(chip(/^Single Whip, left/))
    await screen.findByText('Its target is near.')
    expect(screen.queryByRole('button', { name: /Keep on this date/ })).toBeNull()
    expect(sent(`PUT ${address}/chips/whip/pin`)).toEqual([])
  })

  it('says what does not fit, with its cohort and its reason', async () => {
    await open({
      ...plan,
      rows: [
        row('fern-group', 'Fern', {
          leftOver: [{ name: 'Push, left', minutes: 5.7, because: 'Its lessons are full.' }],
          leftMinutes: 5.7,
        }),
        row('ivory-group', 'Ivory'),
      ],
    })
    const list = screen.getByRole('heading', { name: 'What does not fit' }).closest('section')!
    expect(list.textContent).toContain('Fern: Push, left, 5.7 min. Its lessons are full.')
    expect(screen.getByRole('link', { name: '1 thing does not fit' })).toBeTruthy()
    const head = (name: RegExp) => screen.getByRole('rowheader', { name }).textContent
    expect(head(/^Fern/)).toContain('5.7 min do not fit')
    expect(head(/^Ivory/)).not.toContain('not fit')
  })

  it('shows what keeps what is known, says why, and lets nobody move it', async () => {
    const kept = {
      date: '2026-12-01',
      runThrough: false,
      changed: null,
      minutes: 3,
      because: 'It fades after 4 December.',
    }
    const { asked } = await open({
      ...plan,
      rows: [
        row('fern-group', 'Fern', {
          kept: [
            { ...kept, name: 'Push, right' },
            { ...kept, name: 'Opening to Press, right', runThrough: true, because: 'Once through keeps 6 postures.' },
            { ...kept, name: 'Roll Back, right', changed: 'the waist turns first' },
          ],
          keeps: { postures: 7, lessons: 1, fading: ['Cross Hands, right'] },
        }),
      ],
    })
    expect(chip(/^kept, Push, right, again, Fern, on 1 December, 3 minutes\. It fades after 4 December\./)).toBeTruthy()
    expect(chip(/^kept, Opening to Press, right, once through/)).toBeTruthy()
    chip(/^kept, Roll Back, right, new way/).focus()
    await user.keyboard('p{Shift>}{ArrowRight}{/Shift}')
    expect(asked.filter((one) => one.what.startsWith('PUT'))).toEqual([])
    expect(screen.getByRole('rowheader', { name: /^Fern/ }).textContent).toContain('keeps 7, 1 fading')
  })
})

describe('a lesson of the calendar', () => {
  it('is open for whoever comes from its page, to give it another hall', async () => {
    await open(plan, noor, {}, '/term?lesson=2026-12-01')
    expect(await screen.findByRole('combobox', { name: 'Hall' })).toBeTruthy()
    expect(screen.getByRole('heading', { name: /1 December/, level: 2 })).toBeTruthy()
  })

  it('changes the whole school’s day with the term’s version it was begun from', async () => {
    const { answer, queries, sent } = await open(plan, noor, { 'PUT /api/classes/evening/calendar/2026-12-01': {} })
    await user.click(screen.getByRole('button', { name: /^Lesson 7, Tuesday 1 December/ }))
    await user.click(await screen.findByRole('radio', { name: 'No, the school is closed' }))
    answer['GET /api/terms'] = { body: [{ ...term, version: term.version + 1 }] }
    await queries.invalidateQueries({ queryKey: ['terms'] })
    await screen.findByText(/^Somebody else has saved this/)
    await user.type(screen.getByLabelText('Why'), 'storm')
    await user.click(screen.getByRole('button', { name: 'Save and plan around it' }))
    await waitFor(() =>
      expect(sent('PUT /api/classes/evening/calendar/2026-12-01')).toMatchObject([
        { version: 31, school: { closed: 'storm', version: term.version } },
      ]),
    )
  })
})

keepsEveryEdit({
  name: 'a closed lesson',
  at: '/term',
  screen: <TermScreen />,
  answers: { [`GET ${address}`]: { body: plan } },
  open: async () => user.click(await screen.findByRole('button', { name: /^No lesson, Tuesday 27 October/ })),
  field: 'Why',
  before: 'the hall is painted',
  theirs: {
    answers: {
      'GET /api/people': { body: { ...school, classes: [{ ...evening, version: 32 }] } },
      [`GET ${address}`]: {
        body: { ...plan, lessons: plan.lessons.map((one) => (one.closed ? { ...one, closed: 'theirs' } : one)) },
      },
    },
    says: 'theirs',
  },
  save: 'Save and plan around it',
  sent: 'PUT /api/classes/evening/calendar/2026-10-27',
  version: 31,
  path: 'closed',
})
