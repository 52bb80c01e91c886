import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { keepsEveryEdit } from '../testing/edited-form'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, noor, teaching, term } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import type { Staff, Ways } from './data'
import { SchoolScreen } from './SchoolScreen'
import { zoneHere } from './zones'

const agent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'

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

const schoolText = {
  name: 'Heron Quay Tai Chi',
  place: 'Heron Quay',
  timeZone: 'Europe/Berlin',
  weekStart: 'monday',
  dates: 'dayMonthYear',
  decimals: 'point',
}

keepsEveryEdit({
  name: 'the school’s name and place',
  at: '/school?view=school',
  screen: <SchoolScreen />,
  answers: { 'GET /api/school': { body: { text: schoolText, version: 95 } } },
  field: 'Name of the school',
  before: 'Heron Quay Tai Chi',
  theirs: {
    answers: { 'GET /api/school': { body: { text: { ...schoolText, name: 'Heron Quay, theirs' }, version: 96 } } },
    says: 'Heron Quay, theirs',
  },
  save: 'Save the school',
  sent: 'PUT /api/school',
  version: 95,
  path: 'name',
})

const jonas: Staff['members'][number] = {
  id: 'jonas',
  name: 'Jonas Wiek',
  role: 'instructor',
  email: 'jonas@heronquay.example',
  state: 'open',
  secondFactor: false,
  signIns: 1,
  lastUsed: '2026-11-24T18:00:00Z',
  studentId: null,
  version: 71,
}

const staff = (members: Staff['members']) => ({
  'GET /api/staff': { body: { members, secondFactorForHeads: false, mail: false, schoolVersion: 95 } },
  'GET /api/letters': { body: [] },
})

keepsEveryEdit({
  name: 'somebody who teaches',
  at: '/school?view=staff',
  screen: <SchoolScreen />,
  answers: staff([jonas]),
  open: () => press('Jonas Wiek'),
  field: 'Name',
  before: 'Jonas Wiek',
  theirs: { answers: staff([{ ...jonas, name: 'Jonas, theirs', version: 72 }]), says: 'Jonas, theirs' },
  save: 'Save',
  sent: 'PUT /api/staff/jonas',
  version: 71,
  path: 'name',
})

describe('Who teaches', () => {
  const open = async (member: Partial<typeof jonas>, more: Parameters<typeof serve>[0] = {}) => {
    const sent = serve({ ...answers, ...staff([{ ...jonas, ...member }]), ...more })
    draw(<SchoolScreen />, { at: '/school?view=staff', as: noor })
    await press('Jonas Wiek')
    return sent
  }

  it('closes a sign-in only after saying what follows, and says why it stays open', async () => {
    const sent = await open(
      {},
      {
        'PUT /api/staff/jonas/closing': {
          status: 409,
          body: refusal('Jonas Wiek is the only head who can sign in.'),
        },
      },
    )
    await press('Close the sign-in')
    await screen.findByText(/What they taught and saw keeps their name/)
    await press('Close it')
    await screen.findByText('Jonas Wiek is the only head who can sign in.')
    expect(sent.asked.filter(({ what }) => !what.startsWith('GET'))).toHaveLength(1)
  })

  it('offers what somebody’s sign-in can become from where it stands', async () => {
    await open({ state: 'locked', signIns: 0 })
    await screen.findByRole('button', { name: 'Unlock' })
    expect(screen.queryByRole('button', { name: 'Letter for a new password' })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Sign out everywhere' })).toBeNull()
  })
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

describe('the moments of a day for practice at home', () => {
  it('are the school’s own beside those it began with, and what is wrong with one stands beside it', async () => {
    const { asked } = serve({
      ...answers,
      'PUT /api/teaching': {
        status: 400,
        body: refusal('Look again.', { errors: { 'occasions[1].how': ['Give a word of what is done then.'] } }),
      },
    })
    draw(<SchoolScreen />, { at: '/school?view=teaching', as: noor })
    await press('Add a moment')
    await user.type(screen.getByLabelText('When'), 'On the ferry')
    await user.click(screen.getByRole('checkbox', { name: 'whoever stands freely' }))
    await user.click(screen.getByRole('checkbox', { name: 'whoever holds on' }))
    await user.click(screen.getByRole('checkbox', { name: 'long standing' }))
    await press('Save how we teach')
    await screen.findByText('Give a word of what is done then.')
    await press('Take back “While waiting in a queue”')
    await user.type(screen.getByLabelText(/^What is done then/), 'The weight goes with the deck.')
    await press('While the kettle boils')
    await press('Take this moment out')
    await press('Save how we teach')
    const sent = asked.filter(({ what }) => what === 'PUT /api/teaching').at(-1)?.body as Schema['TeachingEditRequest']
    expect(sent.teaching.occasions.map(({ when }) => when)).toEqual(['On the ferry', 'While waiting in a queue'])
    expect(sent.teaching.occasions[0]).toMatchObject({
      how: 'The weight goes with the deck.',
      for: ['holding'],
      asks: ['longStanding'],
    })
  })
})

describe('a school that nobody has placed yet', () => {
  it('is offered the zone of the computer, and has it only once it is saved', async () => {
    const { asked } = serve({
      ...answers,
      'GET /api/school': { body: { text: { ...schoolText, name: '', timeZone: null }, version: 1 } },
      'PUT /api/school': { body: { text: schoolText, version: 2 } },
    })
    draw(<SchoolScreen />, { at: '/school?view=school', as: noor })
    await screen.findByText(/what the computer you sit at is set to/)
    expect(asked.filter(({ what }) => what.startsWith('PUT'))).toEqual([])
    await user.type(screen.getByLabelText('Name of the school'), 'Boat House')
    await user.click(screen.getByRole('button', { name: 'Save the school' }))
    await waitFor(() =>
      expect(asked.find(({ what }) => what === 'PUT /api/school')?.body).toMatchObject({
        text: { name: 'Boat House', timeZone: zoneHere() },
        version: 1,
      }),
    )
  })
})

describe('a person’s own sign-in', () => {
  const account = {
    email: 'head@heronquay.example',
    ownPassword: false,
    signIns: [
      { id: 'here', device: agent, began: '2026-11-24T17:00:00Z', lastUsed: '2026-11-24T18:00:00Z', isThis: true },
      { id: 'phone', device: '', began: '2026-11-20T17:00:00Z', lastUsed: '2026-11-21T18:00:00Z', isThis: false },
    ],
  }

  it('changes its password only when it was written twice alike', async () => {
    const { asked } = serve({ ...answers, 'GET /api/account': { body: account }, 'PUT /api/account/password': {} })
    draw(<SchoolScreen />, { at: '/school?view=account', as: noor })
    await user.type(await screen.findByLabelText('The password you have now'), 'given by the launcher')
    await user.type(screen.getByLabelText(/^The new one, 12/), 'lanterns over the quay')
    await user.type(screen.getByLabelText('The new one again'), 'lanterns over the key')
    const change = screen.getByRole('button', { name: 'Change the password' })
    await user.click(change)
    await screen.findByText('The two are not the same yet.')
    expect(asked.some(({ what }) => what === 'PUT /api/account/password')).toBe(false)
    await user.clear(screen.getByLabelText('The new one again'))
    await user.type(screen.getByLabelText('The new one again'), 'lanterns over the quay')
    await user.click(change)
    await screen.findByText('Your password was changed.')
    expect(asked.find(({ what }) => what === 'PUT /api/account/password')?.body).toEqual({
      current: 'given by the launcher',
      wanted: 'lanterns over the quay',
    })
    expect(screen.getByLabelText<HTMLInputElement>('The new one again').value).toBe('')
  })

  it('is ended elsewhere, one by one', async () => {
    const { asked } = serve({
      ...answers,
      'GET /api/account': { body: account },
      'DELETE /api/account/sign-ins/phone': {},
    })
    draw(<SchoolScreen />, { at: '/school?view=account', as: noor })
    await screen.findByText('Firefox on a Linux computer')
    await press(/^Sign out Some device/)
    await waitFor(() => expect(asked.some(({ what }) => what.startsWith('DELETE'))).toBe(true))
  })
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
