import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { useSendingMarks } from '../lessons/use-register'
import { waiting } from '../shared/waiting'
import { answers, jonas, today } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { CorrectionsScreen } from './CorrectionsScreen'

const correction = (
  words: string,
  part: Partial<Schema['CorrectionViewsCorrectionResponse']> = {},
): Schema['CorrectionViewsCorrectionResponse'] => ({
  faultId: words,
  principleId: null,
  words,
  weight: 'shape',
  state: 'open',
  since: '2026-11-03',
  lastSeen: '2026-11-17',
  timesSeen: 1,
  inRunThroughs: 0,
  stuck: false,
  causes: [],
  otherWays: [],
  tried: [],
  next: [],
  ...part,
})
const person = (studentId: string, name: string, corrections: Schema['CorrectionsAbout'][]) => ({
  studentId,
  name,
  cohortId: 'fern-group',
  cohort: 'Fern',
  sashColour: '#6C8F4E',
  half: 'none' as const,
  habits: [],
  against: [],
  corrections,
})
const whip = { postureId: 'whip', side: 'left', from: null, name: 'Single Whip, left' } as const
const people: Schema['CorrectionsClassCorrections'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  people: [
    person('imke', 'Imke R.', [
      {
        ...whip,
        correction: correction('the knee drifts', {
          weight: 'keyPoint',
          stuck: true,
          next: [{ cause: { why: 'the hip stops', mend: 'hand on the hip' }, way: null, helped: null, others: null }],
        }),
      },
    ]),
    person('goran', 'Goran V.', [{ ...whip, name: 'Push, left', correction: correction('the elbows lock') }]),
  ],
}
const ways = `POST /api/classes/evening/lessons/${today}/ways`

function App() {
  useSendingMarks()
  return (
    <Routes>
      <Route path="/progress/:classId/corrections" element={<CorrectionsScreen />} />
      <Route path="*" element={null} />
    </Routes>
  )
}

async function open(given: Parameters<typeof serve>[0] = {}) {
  const server = serve({
    ...answers,
    'GET /api/lessons': { body: [{ classId: 'evening', date: today, past: true }] },
    'GET /api/classes/evening/corrections': { body: people },
    [ways]: {},
    ...given,
  })
  const drawn = draw(<App />, { as: jonas })
  await waiting.signedIn('jonas')
  await drawn.router.navigate('/progress/evening/corrections')
  await screen.findByRole('heading', { name: 'What to correct' })
  const sent = () =>
    server.asked.filter((one) => one.what === ways).map((one) => (one.body as { marks: unknown[] }).marks[0])
  return { ...server, ...drawn, sent }
}

beforeEach(async () => {
  for (const entry of waiting.now()) await waiting.forget(entry.id)
})

describe('what to correct', () => {
  it('shows everybody with something open, or only what is stuck or a key point', async () => {
    await open()
    const shown = () => screen.getAllByRole('listitem').map((one) => within(one).getByRole('link').textContent)
    expect(shown()).toEqual(['Imke R.', 'Goran V.'])
    await userEvent.click(screen.getByRole('radio', { name: 'Stuck 1' }))
    expect(shown()).toEqual(['Imke R.'])
    await userEvent.click(screen.getByRole('radio', { name: 'Key points 1' }))
    expect(shown()).toEqual(['Imke R.'])
  })

  it('makes a habit one correction, says how it is by now, and what was done about it', async () => {
    const observed = `POST /api/classes/evening/lessons/${today}/observations`
    const habit = {
      ...{ principleId: 'knees', principle: 'Knee over foot', keyPoint: 'each knee follows its foot' },
      ...{ postureId: 'whip', side: 'left' as const },
    }
    const imke = people.people[0]!
    const goran = people.people[1]!
    const parts = [
      ...goran.corrections,
      { ...whip, correction: correction('the left knee drifts', { principleId: 'knees' }) },
    ]
    const { asked, sent } = await open({
      'GET /api/classes/evening/corrections': {
        body: {
          ...people,
          people: [
            { ...imke, habits: [{ ...habit, where: ['Single Whip, left: the knee drifts'], weight: 'keyPoint' }] },
            { ...goran, against: [{ ...habit, correction: correction('both knees') }], corrections: parts },
          ],
        },
      },
      [observed]: {},
    })
    const said = () =>
      asked.filter((one) => one.what === observed).map((one) => (one.body as { marks: unknown[] }).marks[0])
    screen.getByText(/3 corrections open/)
    await userEvent.click(screen.getByRole('button', { name: 'Make it one correction' }))
    screen.getByText('Knee over foot, in every posture')
    screen.getByText('Single Whip, left: the left knee drifts.')
    await userEvent.click(screen.getByRole('button', { name: 'Kept' }))
    await userEvent.click(screen.getByRole('button', { name: 'What I did about it: each knee follows its foot' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'feet only' }))
    await waitFor(() => expect(said()).toHaveLength(2))
    expect(said()).toMatchObject([
      { studentId: 'imke', postureId: 'whip', sign: 'fault', weight: 'keyPoint', principleId: 'knees' },
      { studentId: 'goran', sign: 'fine', weight: null, principleId: 'knees' },
    ])
    await waitFor(() =>
      expect(sent()).toMatchObject([
        { studentId: 'goran', words: 'both knees', way: 'feetOnly', principleId: 'knees' },
      ]),
    )
  })

  it('keeps what was done about one, for a cause or without, and z takes the last back', async () => {
    const { sent } = await open()
    await userEvent.click(screen.getByRole('button', { name: 'I did, for: the hip stops' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'feet only' }))
    await userEvent.click(screen.getByRole('button', { name: 'What I did about it: the elbows lock' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'with a partner' }))
    await userEvent.keyboard('z')
    const elbows = { studentId: 'goran', faultId: 'the elbows lock', way: 'withAPartner', cause: '' }
    await waitFor(() =>
      expect(sent()).toMatchObject([
        { studentId: 'imke', postureId: 'whip', way: 'feetOnly', cause: 'the hip stops', done: true },
        { ...elbows, done: true },
        { ...elbows, done: false },
      ]),
    )
  })

  it('says what was not taken, and why', async () => {
    await open({ [ways]: { status: 403, body: refusal('This class is not yours.') } })
    await userEvent.click(screen.getByRole('button', { name: 'What I did about it: the elbows lock' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'an image' }))
    await screen.findByText('Goran V., Push, left: an image was not taken.')
  })

  it('says so where nothing is open', async () => {
    await open({ 'GET /api/classes/evening/corrections': { body: { ...people, people: [] } } })
    expect(screen.getByText(/^Nothing is open/)).toBeTruthy()
  })
})
