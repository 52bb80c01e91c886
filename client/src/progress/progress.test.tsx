import { cleanup, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schema } from '../api/client'
import { answers, evening, jonas, limits, noor, odile, term, today } from '../testing/heron-quay'
import { readiness } from '../testing/readiness'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { ProgressScreen } from './ProgressScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const columns: Schema['ProgressColumn'][] = [
  { postureId: 'press', side: 'right', name: 'Press, right' },
  { postureId: 'whip', side: 'left', name: 'Single Whip, left' },
]
const cell = (part: Partial<Schema['ProgressCell']> = {}): Schema['ProgressCell'] => ({
  stage: 'alone',
  fading: false,
  takenOver: false,
  correction: null,
  stuck: false,
  ...part,
})
const row = (studentId: string, name: string, part: Partial<Schema['ProgressRow']> = {}): Schema['ProgressRow'] => ({
  studentId,
  name,
  cohortId: 'fern-group',
  cohort: 'Fern',
  sash: 'Fern',
  sashColour: '#6C8F4E',
  half: 'none',
  cells: [cell(), cell({ stage: 'notMet' })],
  openCorrections: 0,
  seenDays: 3,
  eyes: { seen: 3, here: 5, isFair: true },
  longUnseen: false,
  ...part,
})
const table: Schema['ProgressTable'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  held: ['2026-07-07', '2026-07-14', '2026-11-17'],
  columns,
  rows: [
    row('imke', 'Imke R.', { cells: [cell(), cell({ correction: 'keyPoint' })], openCorrections: 2 }),
    row('goran', 'Goran V.', {
      cohortId: 'ivory-group',
      cohort: 'Ivory',
      seenDays: null,
      longUnseen: true,
      eyes: { seen: 0, here: 4, isFair: false },
    }),
    row('adaeze', 'Adaeze O.'),
  ],
  longUnseen: 1,
  reTeach: [],
}
const fact = (id: string, part: Partial<Schema['ProgressFact']> = {}): Schema['ProgressFact'] => ({
  id,
  date: '2026-11-17',
  kind: 'observation',
  posture: 'Single Whip, left',
  postureId: 'whip',
  side: 'left',
  from: null,
  mode: null,
  inRunThrough: false,
  sign: 'stage',
  stage: 'follows',
  weight: null,
  words: '',
  present: null,
  by: 'Jonas Wiek',
  withdrawn: false,
  mayWithdraw: true,
  ...part,
})
const imke: Schema['ProgressStudentResponse'] = {
  id: 'imke',
  name: 'Imke Rademaker',
  sash: 'Fern',
  half: 'none',
  classId: 'evening',
  class: 'Tuesday evening',
  cohort: 'Fern',
  mode: 'standing',
  joined: '2025-09-02',
  left: null,
  standings: [
    {
      postureId: 'whip',
      side: 'left',
      from: null,
      name: 'Single Whip, left',
      keyPoint: 'the knee over the foot',
      stage: 'follows',
      fading: false,
      takenOver: false,
      otherModes: [{ mode: 'supported', stage: 'alone' }],
      relearn: { since: '2026-11-10', difference: 'the hook is lower', shownSince: false },
      walk: {
        met: '2026-10-06',
        reached: [
          { on: '2026-10-06', stage: 'shown' },
          { on: '2026-11-17', stage: 'follows' },
        ],
        open: [
          { opened: '2026-10-13', cleared: '2026-10-27', seen: 1 },
          { opened: '2026-11-03', cleared: null, seen: 2 },
        ],
        cameBack: 1,
      },
      corrections: [
        {
          weight: 'keyPoint',
          words: 'the knee drifts inside',
          state: 'open',
          faultId: 'knee',
          principleId: null,
          since: '2026-11-03',
          lastSeen: '2026-11-17',
          timesSeen: 2,
          inRunThroughs: 2,
          stuck: true,
          causes: [{ why: 'the hip stops early', mend: 'feet only, at the wall' }],
          otherWays: ['a partner holds the knee'],
          tried: [
            { way: 'feetOnly', cause: '', date: '2026-11-03', helped: false },
            { way: 'image', cause: '', date: '2026-11-17', helped: null },
          ],
          next: [
            {
              cause: { why: 'the hip stops early', mend: 'slowly, hand on the hip' },
              way: null,
              helped: null,
              others: null,
            },
            { cause: null, way: 'atTheWall', helped: 5, others: 6 },
          ],
        },
      ],
    },
  ],
  habits: [
    {
      principleId: 'knees',
      principle: 'Knee over foot',
      keyPoint: 'each knee follows its foot',
      where: [],
      postureId: 'whip',
      side: 'left',
      weight: 'shape',
    },
  ],
  against: [],
  facts: [
    fact('whip-1'),
    fact('press-1', { posture: 'Press, right', postureId: 'press', side: 'right', sign: 'fine' }),
    fact('here', {
      kind: 'attendance',
      present: true,
      posture: null,
      postureId: null,
      side: null,
      sign: null,
      mayWithdraw: false,
    }),
  ],
}
const held: Schema['LessonItem'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  date: today,
  number: 6,
  kind: 'ordinary',
  start: '18:30:00',
  minutes: 90,
  hall: 'Quay Hall',
  past: true,
  marked: false,
  new: [],
}

async function open(as = noor, at = '/progress') {
  const server = serve({
    ...answers,
    'GET /api/lessons': { body: [{ ...held, date: '2026-11-17' }, held] },
    'GET /api/classes/evening/progress': { body: table },
    'GET /api/terms': {
      body: [term, { ...term, id: 'summer', name: 'Summer term', start: '2026-05-01', end: '2026-07-31' }],
    },
    'GET /api/students/imke': { body: imke },
    'GET /api/classes/evening/readiness': { body: readiness },
    'GET /api/students/imke/limits': { body: limits },
    'GET /api/students/goran': { body: { ...imke, id: 'goran', name: 'Goran Vidal', standings: [], facts: [] } },
    'POST /api/observations/whip-1/withdrawal': {},
  })
  const drawn = draw(
    <Routes>
      <Route path="/progress/:classId?" element={<ProgressScreen />} />
      <Route path="*" element={null} />
    </Routes>,
    { at, as },
  )
  await screen.findByRole('heading', { name: 'Who can do what' })
  const sent = (what: string) => server.asked.filter((one) => one.what === what)
  return { ...server, ...drawn, sent }
}
const sole = (name: RegExp) => screen.findByRole('gridcell', { name })
/** The panel, once it is about this. */
const details = async (title: string) => {
  await screen.findByRole('heading', { name: title })
  return within(screen.getByRole('complementary'))
}

beforeEach(() => {
  // Rows and columns are drawn where there is room for them.
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(600)
  vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(900)
  document.documentElement.style.fontSize = '14px'
})

describe('who can do what', () => {
  it('says what somebody lacks for the next sash to whoever teaches them, and asks nothing for an assistant', async () => {
    await open(noor, '/progress?student=imke')
    const panel = await details('Imke Rademaker')
    expect(await panel.findByRole('heading', { name: 'For Copper' })).toBeTruthy()
    cleanup()
    const { sent } = await open(odile, '/progress?student=imke')
    expect((await details('Imke Rademaker')).queryByRole('heading', { name: 'For Copper' })).toBeNull()
    expect(sent('GET /api/classes/evening/readiness')).toEqual([])
  })

  it('says in words what every sole shows, and when somebody was last seen', async () => {
    await open()
    await sole(/^Imke R\., Single Whip, left: alone: correction: key point$/)
    await sole(/^Goran V\., Single Whip, left: not met$/)
    expect(screen.getByText('never')).toBeTruthy()
    expect(screen.getAllByRole('columnheader').map((head) => head.textContent)).toEqual([
      '3 shown',
      'Press R',
      'Single Whip L',
      'last seen',
    ])
  })

  it('is one stop for the tab key, walked with the arrows, and opened with Enter', async () => {
    const { router } = await open()
    const first = await sole(/^Imke R\., Press/)
    first.focus()
    await user.keyboard('{ArrowRight}{ArrowDown}')
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Goran V., Single Whip, left: not met')
    await user.keyboard('{Home}')
    expect(document.activeElement?.textContent).toBe('Goran V.')
    expect(document.querySelectorAll('[data-grid][tabindex="0"]')).toHaveLength(1)
    await user.keyboard('{ArrowUp}{ArrowRight}{Enter}')
    await details('Imke Rademaker')
    expect(router.state.location.search).toBe('?student=imke&posture=press&side=right')
  })

  it('shows those with an open correction, or those nobody has watched', async () => {
    await open()
    screen.getByText('2 corrections open')
    await user.click(screen.getByRole('radio', { name: 'With a correction 1' }))
    await waitFor(() => expect(screen.getAllByRole('rowheader').map((head) => head.textContent)).toEqual(['Imke R.']))
    await user.click(screen.getByRole('radio', { name: 'Not seen 1' }))
    await waitFor(() => expect(screen.getAllByRole('rowheader').map((head) => head.textContent)).toEqual(['Goran V.']))
  })

  it('says whom the teachers look at less than their share, and opens them', async () => {
    await open()
    const panel = within(screen.getByRole('complementary'))
    expect(panel.getByRole('button', { name: 'Goran V. 0 of 4' })).toBeTruthy()
    expect(panel.queryByRole('button', { name: /^Imke R/ })).toBeNull()
    await user.click(panel.getByRole('button', { name: 'Goran V. 0 of 4' }))
    await details('Goran Vidal')
  })

  it('is zoomed to a level: its people, and what any of them has met', async () => {
    await open()
    await user.click(screen.getByRole('combobox', { name: 'Which level' }))
    await user.click(await screen.findByRole('option', { name: 'Ivory' }))
    await waitFor(() => expect(screen.getAllByRole('rowheader').map((head) => head.textContent)).toEqual(['Goran V.']))
    expect(screen.queryByRole('columnheader', { name: /Single Whip/ })).toBeNull()
    expect(await sole(/^Goran V\., Press, right: alone/)).toBeTruthy()
  })

  it('offers where a sole is pressed what can be done about it', async () => {
    const { router } = await open()
    await user.pointer({ target: await sole(/^Imke R\., Single Whip/), keys: '[MouseRight]' })
    expect((await screen.findAllByRole('menuitem')).map((item) => item.textContent)).toEqual([
      'What was seen',
      'Who needs Single Whip, left, and who could help',
      'Open Single Whip, left',
      'Mark today’s lesson',
    ])
    await user.click(screen.getByRole('menuitem', { name: 'Open Single Whip, left' }))
    expect(router.state.location.pathname + router.state.location.search).toBe('/forms/postures/whip?side=left')
  })
})

describe('one posture', () => {
  it('says who needs it, the heaviest first, and who could help', async () => {
    const { router } = await open()
    await user.click(screen.getByText('Single Whip L'))
    const whip = await details('Single Whip, left')
    expect(whip.getByText('1 alone · 2 have not met it')).toBeTruthy()
    expect(whip.getAllByRole('listitem').map((item) => item.textContent)).toEqual([
      'Imke R.Fern, key point to mend',
      'Nobody was seen doing it alone with nothing to mend.',
    ])
    await user.click(screen.getByText('Press R'))
    const press = await details('Press, right')
    expect(press.getByRole('heading', { name: 'Who could help: 3' })).toBeTruthy()
    await user.click(press.getByRole('button', { name: /Imke R/ }))
    expect(router.state.location.search).toBe('?student=imke&posture=press&side=right')
  })
})

describe('through the term', () => {
  it('is shown as it was after a lesson, and played up to now', async () => {
    const { asked, answer } = await open()
    const then = { ...table, rows: table.rows.map((one) => ({ ...one, cells: [cell({ stage: 'shown' }), cell()] })) }
    await sole(/^Imke R\., Press, right: alone/)
    let arrive = () => {}
    answer['GET /api/classes/evening/progress'] = () =>
      new Promise((done) => {
        arrive = () => done({ body: then })
      })
    screen.getByRole('slider', { name: /^As it was after a lesson/ }).focus()
    await user.keyboard('{ArrowLeft}')
    // What is still shown is not called what it is not.
    await screen.findByText('Reading how it was after Tuesday 17 November…')
    await waitFor(() => expect(asked.at(-1)!.query).toBe('?on=2026-11-17'))
    arrive()
    answer['GET /api/classes/evening/progress'] = { body: then }
    await screen.findByText('As it was after Tuesday 17 November')
    await sole(/^Imke R\., Press, right: shown/)
    expect(asked.at(-1)!.query).toBe('?on=2026-11-17')
    await user.click(screen.getByRole('button', { name: 'Play the term' }))
    await screen.findByText('As it is now')
    await sole(/^Imke R\., Press, right: alone/)
    expect(screen.getByRole('button', { name: 'Play the term' })).toBeTruthy()
  })

  it('is played through an earlier term as well, to that term’s end', async () => {
    const { asked } = await open()
    await user.click(screen.getByRole('button', { name: /^Through which term/ }))
    await user.click(await screen.findByRole('menuitem', { name: 'Summer term 2026' }))
    await screen.findByText('As it was after Tuesday 7 July')
    await user.click(screen.getByRole('button', { name: 'Play the term' }))
    await screen.findByText('As it was after Tuesday 14 July')
    expect(asked.at(-1)!.query).toBe('?on=2026-07-14')
    expect(screen.getByRole('button', { name: 'Play the term' })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Back to now' }))
    await screen.findByText('As it is now')
    expect(screen.getByRole('button', { name: /^Through which term: Autumn 2026/ })).toBeTruthy()
  })
})

describe('one student', () => {
  it('shows the facts of one posture, or all of them, and what else could be tried', async () => {
    await open(noor, '/progress?student=imke&posture=whip&side=left')
    const panel = await details('Imke Rademaker')
    expect(panel.getByText(/^Single Whip, left: follows/)).toBeTruthy()
    expect(panel.getByText(/key point, open, stuck/)).toBeTruthy()
    expect(panel.getByText(/seen 2 times, only inside a run-through/)).toBeTruthy()
    expect(panel.getByText(/feet only, 3 Nov/).textContent).toMatch(/did not help$/)
    expect(panel.getByText(/eased 5 of 6 within three weeks/)).toBeTruthy()
    expect(panel.getByText('supported: alone')).toBeTruthy()
    expect(panel.getByText('To relearn, since 10 November:').parentElement!.textContent).toContain('the hook is lower')
    expect(panel.getByText(/a partner holds the knee/)).toBeTruthy()
    expect(panel.queryByText(/seen and fine/)).toBeNull()
    await user.click(screen.getByRole('rowheader', { name: 'Imke R.' }))
    await screen.findByText(/Press, right: seen and fine/)
    expect(screen.getByText(/A habit: Knee over foot\./)).toBeTruthy()
    expect(screen.getByText(/was here/)).toBeTruthy()
  })

  it('is walked through time, and each posture of it is opened', async () => {
    const { router } = await open(noor, '/progress?student=imke')
    const panel = await details('Imke Rademaker')
    expect(panel.getByText(/red while\s+something was open, which came back in 1\./)).toBeTruthy()
    await user.click(
      panel.getByRole('button', {
        name: 'Single Whip, left: shown 6 Oct, follows 17 Nov; corrected from 13 Oct to 27 Oct; corrected from 3 Nov',
      }),
    )
    expect(router.state.location.search).toBe('?student=imke&posture=whip&side=left')
  })

  it('withdraws an observation, and says why where that is not possible', async () => {
    const { sent, answer } = await open(jonas, '/progress?student=imke&posture=whip&side=left')
    answer['POST /api/observations/whip-1/withdrawal'] = { status: 403, body: refusal('This class is not yours.') }
    const withdraw = await screen.findByRole('button', { name: /^Withdraw Single Whip, left: follows/ })
    await user.click(withdraw)
    await screen.findByText('This class is not yours.')
    answer['POST /api/observations/whip-1/withdrawal'] = {}
    answer['GET /api/students/imke'] = {
      body: { ...imke, facts: [fact('whip-1', { withdrawn: true, mayWithdraw: false })] },
    }
    await user.click(withdraw)
    await screen.findByText('withdrawn')
    expect(sent('POST /api/observations/whip-1/withdrawal')).toHaveLength(2)
  })

  it('shows limits only when they are asked for, and never to an assistant', async () => {
    const { sent, unmount } = await open(jonas, '/progress?student=imke')
    await details('Imke Rademaker')
    expect(sent('GET /api/students/imke/limits')).toHaveLength(0)
    await user.click(screen.getByRole('button', { name: /^Show limits/ }))
    await screen.findByText(/Not asked for: kick\./)
    expect(sent('GET /api/students/imke/limits')).toHaveLength(1)
    unmount()
    await open(odile, '/progress?student=imke')
    await details('Imke Rademaker')
    expect(screen.queryByRole('button', { name: /limits/ })).toBeNull()
  })

  it('is put away with Escape, and the way to the class stays', async () => {
    const { router } = await open(noor, '/progress?student=goran')
    await details('Goran Vidal')
    await user.keyboard('{Escape}')
    await screen.findByRole('heading', { name: 'Choose a sole' })
    expect(router.state.location.search).toBe('')
    expect(screen.getByRole('link', { name: 'Mark today’s lesson' }).getAttribute('href')).toBe(
      `/lessons/${evening.id}/${today}/mark`,
    )
  })
})
