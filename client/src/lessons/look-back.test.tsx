import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { jonas, noor, odile } from '../testing/heron-quay'
import { item as unsaid } from '../testing/register'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import type { Arrangement } from './arranging'
import type { Register, RegisterItem } from './data'
import { LookBackScreen } from './LookBackScreen'

const address = '/api/classes/evening/lessons/2026-11-17'
const next = '/api/classes/evening/lessons/2026-11-24'
const term = '/api/terms/autumn/classes/evening/plan'

const item = (name: string, part: Partial<RegisterItem>): RegisterItem => ({
  ...unsaid(name, name),
  taught: true,
  ...part,
})
const register: Register = {
  classId: 'evening',
  class: 'Tuesday evening',
  date: '2026-11-17',
  number: 4,
  held: true,
  recorded: true,
  cohorts: [
    {
      cohortId: 'fern',
      name: 'Fern',
      colour: '#6C8F4E',
      half: 'none',
      items: [item('Press', { took: 9 }), item('Push', { taught: false }), item('Opening', { how: 'runThrough' })],
    },
  ],
  students: [],
}
const back: Schema['LookBackResponse'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  date: '2026-11-17',
  number: 4,
  termId: 'autumn',
  next: '2026-11-24',
  missed: ['2026-11-17', '2026-11-10'].map((date) => ({
    cohortId: 'fern',
    cohort: 'Fern',
    postureId: date,
    side: 'left',
    from: null,
    name: date === '2026-11-17' ? 'Press' : 'Roll Back',
    date,
    away: [{ studentId: 'imke', name: 'Imke R.', shownSince: false }],
    absent: 1,
    of: 5,
    again: false,
    againMinutes: 7,
    recording: date === '2026-11-17' ? 'hall cupboard, disc 2, from 04:10' : null,
    canShow: [
      { id: 'noor', name: 'Noor Adeyemi' },
      { id: 'jonas', name: 'Jonas Lindqvist' },
    ],
  })),
  overlooked: [{ studentId: 'dai', name: 'Dai Y.', cohort: 'Fern', days: 21 }],
  watchMinutes: 1,
  keptMinutes: 0,
  again: [],
  classVersion: 7,
}
const task: Schema['LessonTask'] = {
  key: 're-teach fern',
  kind: 'reTeach',
  cohortIds: ['fern'],
  minutes: 5,
  what: 'Brush Knee: the feet land on one line',
  because: '4 of the 5 who were watched have it open.',
  material: [],
} as unknown as Schema['LessonTask']
const arrangement = {
  version: 1,
  edits: [],
  blocks: [],
  cohorts: [],
  teachers: [],
  shortfalls: [],
  beforeClass: [],
  looks: [],
  unseen: [],
} as unknown as Arrangement
const plan = {
  termId: 'autumn',
  classId: 'evening',
  outOfDate: true,
  draft: null,
  announced: 2,
  changes: [],
  rows: [
    { cohortId: 'fern', chips: [{ postureId: 'Push', side: 'left', from: null, date: '2026-12-01', reviews: [] }] },
  ],
} as unknown as Schema['PlanResponse']
const drafted = {
  ...plan,
  outOfDate: false,
  draft: { id: 'draft-1', steps: 1, cause: 'Planned' },
  changes: [
    {
      cohortId: 'fern',
      name: 'Fern',
      moves: [{ name: 'Push, left', from: '2026-11-17', to: '2026-12-01', because: '' }],
    },
  ],
} as unknown as Schema['PlanResponse']

async function open(as = noor, more: Parameters<typeof serve>[0] = {}) {
  const server = serve({
    [`GET ${address}/register`]: { body: register },
    [`GET ${address}/look-back`]: { body: back },
    [`GET ${address}/arrangement`]: { body: arrangement },
    [`GET ${next}/arrangement`]: { body: arrangement },
    [`GET ${next}/arrangement/re-teach`]: {
      body: [
        { task, cohort: 'Fern', have: 4, observed: 5, changedSince: null, way: 'By counts; at the wall', givesWay: [] },
      ],
    },
    [`PUT ${next}/arrangement`]: { body: { ...arrangement, version: 2, edits: [{ kind: 'add', task }] } },
    [`GET ${term}`]: { body: plan },
    [`POST ${term}`]: { body: drafted },
    [`POST ${term}/undo`]: { body: plan },
    [`POST ${term}/announcement`]: { body: { ...drafted, draft: null, changes: [], announced: 3 } },
    ...more,
  })
  const drawn = draw(
    <Routes>
      <Route path="/lessons/:classId/:date/back" element={<LookBackScreen />} />
      <Route path="*" element={null} />
    </Routes>,
    { at: '/lessons/evening/2026-11-17/back', as },
  )
  await screen.findByRole('heading', { name: 'Looking back on Tuesday 17 November' })
  const sent = (what: string) => server.asked.filter((one) => one.what === what).map(({ body }) => body)
  return { ...server, ...drawn, sent }
}

describe('looking back on a lesson', () => {
  it('says who looks at whom in the coming lesson, and makes room where nobody does', async () => {
    const look = (studentId: string, student: string, teacherId: string | null) => ({
      ...{ studentId, student, teacherId, cohortId: 'fern', posture: 'Press, left', postureId: 'press', side: 'left' },
      ...{ start: null, end: null, reason: 'overlooked', days: 21 },
    })
    const { asked } = await open(noor, {
      [`GET ${next}/arrangement`]: {
        body: {
          ...arrangement,
          cohorts: [{ id: 'fern', name: 'Fern', people: 5, neverAlone: false, practises: '' }],
          teachers: [{ id: 'jonas', name: 'Jonas Lindqvist', isAssistant: false, mayLead: [] }],
          looks: [look('dai', 'Dai Y.', 'jonas')],
          unseen: [look('imke', 'Imke R.', null)],
        },
      },
    })
    await screen.findByText('Dai Y. on 24 Nov: Jonas, in Press, left.')
    screen.getByText(/^Nobody looks at Imke R\. on 24 Nov\./)
    await userEvent.click(screen.getByRole('button', { name: 'Watch Fern for 2 min' }))
    await waitFor(() =>
      expect(asked.findLast(({ what }) => what === `PUT ${next}/arrangement`)?.body).toMatchObject({
        edits: [{ kind: 'add', task: { kind: 'watch', cohortIds: ['fern'], minutes: 2, what: 'Imke R.' } }],
      }),
    )
  })

  it('keeps the minutes it takes to see them in the next lesson of the plan, and takes that back', async () => {
    const keep = 'PUT /api/classes/evening/calendar/2026-11-24/watching'
    const { answer, sent } = await open(noor, { [keep]: { body: { version: 8 } } })
    await screen.findByRole('button', { name: /^Keep 1 min of 24 Nov for it in the plan/ })
    answer[`GET ${address}/look-back`] = { body: { ...back, keptMinutes: 1, classVersion: 8 } }
    await userEvent.keyboard('w')
    await screen.findByText(/^The plan keeps 1 min of 24 Nov for watching/)
    await userEvent.keyboard('z')
    await waitFor(() =>
      expect(sent(keep)).toEqual([
        { minutes: 1, version: 7 },
        { minutes: null, version: 8 },
      ]),
    )
  })

  it('offers nobody but a head to change the plan', async () => {
    await open(jonas)
    await screen.findByText('Fern, last watched 21 days ago')
    expect(screen.queryByRole('button', { name: /in the plan/ })).toBeNull()
  })

  it('books whoever missed something before the coming class, and takes it back', async () => {
    const { asked } = await open()
    await userEvent.click(await screen.findByRole('button', { name: /^Press before class on 24 Nov, with/ }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Jonas Lindqvist' }))
    const sent = () => asked.filter(({ what }) => what === `PUT ${next}/arrangement`).map(({ body }) => body)
    await waitFor(() => expect(sent()).toHaveLength(1))
    expect(sent()[0]).toMatchObject({
      version: 1,
      edits: [{ kind: 'makesUp', students: ['imke'], postureId: '2026-11-17', teacherId: 'jonas', minutes: 10 }],
    })
    await userEvent.keyboard('z')
    await waitFor(() => expect(sent()).toHaveLength(2))
  })

  it('introduces again what a third missed, with a key, and takes that back', async () => {
    const missed = back.missed.slice(0, 1).map((item) => ({ ...item, absent: 2, again: true }))
    const { sent } = await open(noor, { [`GET ${address}/look-back`]: { body: { ...back, missed } } })
    await screen.findByRole('button', { name: 'Introduce it again on 24 Nov, 7 min' })
    screen.getByText('2 of 5 were away: better introduce it again.')
    await userEvent.keyboard('m')
    await waitFor(() => expect(sent(`PUT ${next}/arrangement`)).toHaveLength(1))
    expect(sent(`PUT ${next}/arrangement`)[0]).toMatchObject({
      edits: [{ kind: 'add', task: { kind: 'new', cohortIds: ['fern'], minutes: 7, what: 'Press' } }],
    })
    await userEvent.keyboard('z')
    await waitFor(() => expect(sent(`PUT ${next}/arrangement`)[1]).toMatchObject({ edits: [] }))
  })

  it('offers the time before class where the plan does not know how long introducing it again takes', async () => {
    const missed = back.missed.slice(0, 1).map((item) => ({ ...item, absent: 2, again: true, againMinutes: null }))
    await open(noor, { [`GET ${address}/look-back`]: { body: { ...back, missed } } })
    await screen.findByRole('button', { name: /^Press before class on 24 Nov, with/ })
    expect(screen.queryByRole('button', { name: /^Introduce it again/ })).toBeNull()
  })

  it('books the first who missed something with the first who may show it, with the same key', async () => {
    const { sent } = await open()
    await screen.findByRole('button', { name: /^Press before class on 24 Nov, with/ })
    await userEvent.keyboard('m')
    await waitFor(() =>
      expect(sent(`PUT ${next}/arrangement`)[0]).toMatchObject({
        edits: [{ kind: 'makesUp', postureId: '2026-11-17', teacherId: back.missed[0]!.canShow[0]!.id }],
      }),
    )
  })

  it('shows what was taught beside what was planned, who missed what, and who was not seen', async () => {
    await open()
    expect(screen.getByRole('row', { name: 'Press new 6 min 9 min taught' })).toBeTruthy()
    expect(screen.getByRole('row', { name: 'Push new 6 min not reached' })).toBeTruthy()
    expect(screen.getByText('ended with Press')).toBeTruthy()
    await screen.findByText('new, Fern: next on 1 Dec')
    screen.getByText(
      'Before class with Noor or Jonas, or from our own recording (hall cupboard, disc 2, from 04:10), or at home; made up when somebody has seen it.',
    )
    expect(screen.queryByText('Roll Back')).toBeNull()
    await userEvent.click(screen.getByRole('button', { name: '1 more from earlier lessons' }))
    expect(screen.getByText('Roll Back')).toBeTruthy()
    expect(screen.getByText('Fern, last watched 21 days ago')).toBeTruthy()
  })

  it('plans the rest again and announces it, a key each; the undo is gone with the announcement', async () => {
    const { sent } = await open()
    await screen.findByRole('button', { name: /^Plan the rest again/ })
    await userEvent.keyboard('p')
    await screen.findByText(/^Fern: Push, left from 17 Nov to 1 Dec$/)
    await userEvent.keyboard('z')
    await waitFor(() => expect(sent(`POST ${term}/undo`)).toHaveLength(1))
    await screen.findByRole('button', { name: /^Plan the rest again/ })
    await userEvent.keyboard('p')
    await screen.findByRole('button', { name: /^Announce it/ })
    await userEvent.keyboard('a')
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Announce it/ })).toBeNull())
    expect(screen.getByRole('button', { name: /^Undo/ }).hasAttribute('disabled')).toBe(true)
  })

  it('puts what many share into the next lesson and takes it out again, or says why not', async () => {
    const { sent, answer } = await open()
    await screen.findByText(/4 of 5\./)
    await userEvent.keyboard('t')
    await screen.findByText('Brush Knee: the feet land on one line: it is in the lesson, 5 min.')
    await userEvent.keyboard('z')
    await waitFor(() =>
      expect(sent(`PUT ${next}/arrangement`)).toMatchObject([
        { edits: [{ kind: 'add', task: { key: 're-teach fern' } }], version: 1 },
        { edits: [], version: 2 },
      ]),
    )
    answer[`PUT ${next}/arrangement`] = { status: 409, body: refusal('Somebody has changed this lesson.') }
    await userEvent.keyboard('t')
    await screen.findByText('Somebody has changed this lesson.')
  })

  it('leaves the decisions to those who teach', async () => {
    const { asked } = await open(odile)
    await screen.findByText('new, Fern: next on 1 Dec')
    expect(screen.queryByRole('button', { name: /^Plan the rest again/ })).toBeNull()
    expect(asked.map(({ what }) => what)).not.toContain(`GET ${next}/arrangement/re-teach`)
  })

  it('says of what was taught again whether it helped', async () => {
    const again = { cohort: 'Fern', name: 'Brush Knee, left', words: 'on one line', date: '2026-11-03' }
    await open(noor, {
      [`GET ${address}/look-back`]: { body: { ...back, again: [{ ...again, had: 4, better: 2, same: 1 }] } },
    })
    screen.getByText('better in 2 of 4, the same in 1, not looked at in 1')
  })
})
