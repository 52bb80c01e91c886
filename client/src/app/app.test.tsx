import { onlineManager, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { createMemoryRouter } from 'react-router'
import { beforeEach, describe, expect, it, onTestFinished, vi } from 'vitest'
import type { Schema } from '../api/client'
import { makeQueries } from '../shared/queries'
import { Routed } from '../shared/Routed'
import { singleKeys } from '../ui/keys'
import { answers, jonas, noor, sessionOf, today } from '../testing/heron-quay'
import { refusal, serve } from '../testing/server'
import { App } from './App'
import { Broken } from './Broken'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const day: Schema['TodayResponse'] = {
  today,
  term: 'Autumn term',
  week: 12,
  next: [
    {
      classId: 'evening',
      class: 'Tuesday evening',
      date: today,
      start: '18:30:00',
      minutes: 90,
      hall: 'Quay Hall',
      number: 12,
      kind: 'ordinary',
      planned: true,
      teaches: [{ cohort: 'Fern', colour: '#6C8F4E', half: 'none', new: ['Single Whip, left'] }],
      held: '2026-11-17',
    },
    {
      classId: 'morning',
      class: 'Friday morning',
      date: '2026-11-27',
      start: '10:00:00',
      minutes: 60,
      hall: 'Quay Hall',
      number: 12,
      kind: 'ordinary',
      planned: false,
      teaches: [],
      held: null,
    },
  ],
  teaches: true,
}

const errands: Schema['LeftToDoErrand'][] = [
  {
    kind: 'unmarked',
    classId: 'evening',
    date: '2026-11-17',
    studentId: null,
    class: 'Tuesday evening',
    sentence: 'Mark 17 November.',
  },
  {
    kind: 'stuck',
    classId: 'evening',
    date: null,
    studentId: 'imke',
    class: 'Tuesday evening',
    sentence: 'Imke R. is stuck.',
  },
  {
    kind: 'unsafe',
    classId: 'evening',
    date: today,
    studentId: 'goran',
    class: 'Tuesday evening',
    sentence: 'Settle a kick.',
  },
  {
    kind: 'doesNotFit',
    classId: 'evening',
    date: null,
    studentId: null,
    class: 'Tuesday evening',
    sentence: 'Fern has too much.',
  },
  {
    kind: 'unwritten',
    classId: 'evening',
    date: null,
    studentId: null,
    postureId: 'push',
    class: 'Tuesday evening',
    sentence: 'Push: the wrists bend back.',
  },
]

function open(at: string, as: typeof noor | null, more: Parameters<typeof serve>[0] = {}) {
  const server = serve({
    ...answers,
    'GET /api/session': { body: sessionOf(as) },
    'GET /api/today': { body: day },
    'GET /api/today/left-to-do': { body: errands },
    'GET /api/lessons': { body: [] },
    ...more,
  })
  const queries = makeQueries()
  queries.setDefaultOptions({ queries: { networkMode: 'always', retry: false } })
  const router = createMemoryRouter([{ path: '*', element: <App />, errorElement: <Broken /> }], {
    initialEntries: [at],
  })
  const drawn = render(
    <QueryClientProvider client={queries}>
      <Routed router={router} />
    </QueryClientProvider>,
  )
  const sent = (what: string) => server.asked.filter((one) => one.what === what).map(({ body }) => body)
  return { ...server, ...drawn, queries, router, sent }
}

const enter = async (password: string) => {
  await user.type(await screen.findByLabelText('Email'), 'head@heronquay.example')
  await user.type(screen.getByLabelText('Password'), password)
  await user.click(screen.getByRole('button', { name: 'Sign in' }))
}

beforeEach(() => singleKeys.set(true))

describe('the way in', () => {
  it('says what was wrong with a sign-in, and leads to the address somebody came for', async () => {
    const { answer, router } = open('/lessons', null)
    answer['POST /api/session/sign-in'] = { status: 400, body: refusal('Email or password is not right.') }
    await enter('not it')
    await screen.findByText('Email or password is not right.')
    answer['POST /api/session/sign-in'] = {}
    answer['GET /api/session'] = { body: sessionOf(noor) }
    await user.click(screen.getByRole('button', { name: 'Sign in' }))
    await screen.findByRole('heading', { name: 'Lessons' })
    expect(router.state.location.pathname).toBe('/lessons')
  })

  it('comes back to the same place when a sign-in runs out in the middle', async () => {
    const { answer, queries } = open('/lessons', noor)
    await screen.findByRole('heading', { name: 'Lessons' })
    answer['GET /api/lessons'] = { status: 401 }
    answer['GET /api/session'] = { body: sessionOf(null) }
    void queries.invalidateQueries({ queryKey: ['lessons'] })
    await screen.findByLabelText('Password')
    answer['GET /api/lessons'] = { body: [] }
    answer['POST /api/session/sign-in'] = {}
    answer['GET /api/session'] = { body: sessionOf(noor) }
    await enter('it')
    await screen.findByRole('heading', { name: 'Lessons' })
  })

  it('shows nobody what the person before has read', async () => {
    const { answer, queries } = open('/', noor)
    await screen.findByText('Imke R. is stuck.')
    answer['GET /api/session'] = { body: sessionOf(null) }
    await queries.invalidateQueries({ queryKey: ['session'] })
    await screen.findByLabelText('Password')
    expect(queries.getQueryData(['today'])).toBeUndefined()
  })

  it('leads an address that is nowhere to Today', async () => {
    const { router } = open('/nowhere', noor)
    await screen.findByRole('heading', { name: 'Left to do' })
    expect(router.state.location.pathname).toBe('/')
  })
})

describe('the house', () => {
  it('goes to a room by g and its letter, and not while somebody types or when letters are off', async () => {
    const { router } = open('/', noor)
    await screen.findByRole('heading', { name: 'Left to do' })
    await user.keyboard('gl')
    await screen.findByRole('heading', { name: 'Lessons' })
    await user.keyboard('gt')
    await waitFor(() => expect(router.state.location.pathname).toBe('/term'))
    singleKeys.set(false)
    await user.keyboard('gl')
    expect(router.state.location.pathname).toBe('/term')
  })

  it('opens the keys for whoever has just put the find box away', async () => {
    open('/', noor)
    await screen.findByRole('heading', { name: 'Left to do' })
    await user.keyboard('?')
    await screen.findByRole('heading', { name: 'Keys' })
    await user.keyboard('{Escape}/')
    const find = await screen.findByRole('combobox')
    fireEvent.keyDown(find, { key: 'Escape' })
    expect(screen.queryByRole('combobox')).toBeNull()
    fireEvent.keyDown(document.body, { key: '?' })
    await screen.findByRole('heading', { name: 'Keys' })
    // What the find box leaves for later is done by now.
    await new Promise((later) => setTimeout(later, 50))
    expect(screen.queryByRole('heading', { name: 'Keys' })).not.toBeNull()
  })

  it('begins reading a page at its beginning, and has a way past the rooms', async () => {
    open('/', noor)
    await screen.findByRole('heading', { name: 'Left to do' })
    await user.click(screen.getByRole('link', { name: 'Lessons' }))
    await screen.findByRole('heading', { name: 'Lessons' })
    expect(document.activeElement).toBe(screen.getByRole('main'))
    screen.getByRole('link', { name: 'Today' }).focus()
    await user.click(screen.getByRole('link', { name: 'Skip to what is here' }))
    expect(document.activeElement).toBe(screen.getByRole('main'))
  })

  it('keeps what is on the screen while the server is away, and says so until it is back', async () => {
    const { answer, queries } = open('/', noor)
    await screen.findByText('Imke R. is stuck.')
    answer['GET /api/today'] = { status: 503 }
    answer['GET /api/today/left-to-do'] = { status: 503 }
    void queries.invalidateQueries({ queryKey: ['today'] })
    await screen.findByText(/The server does not answer/)
    expect(screen.getByText('Imke R. is stuck.')).toBeTruthy()
    answer['GET /api/today'] = { body: day }
    answer['GET /api/today/left-to-do'] = { body: errands }
    void queries.invalidateQueries({ queryKey: ['today'] })
    await waitFor(() => expect(screen.queryByText(/The server does not answer/)).toBeNull())
  })

  it('finds a lost network out on a page that asks nothing by itself, goes on trying, and then shows what is new', async () => {
    const { answer } = open('/', noor)
    await screen.findByText('Imke R. is stuck.')
    answer['GET /api/session'] = 'away'
    onTestFinished(() => onlineManager.setOnline(true))
    window.dispatchEvent(new Event('offline'))
    await screen.findByText(/The server does not answer/)
    answer['GET /api/session'] = { body: sessionOf(noor) }
    answer['GET /api/today/left-to-do'] = { body: [] }
    await waitFor(() => expect(screen.queryByText(/The server does not answer/)).toBeNull())
    await waitFor(() => expect(screen.queryByText('Imke R. is stuck.')).toBeNull())
  })

  it('says that a page cannot be drawn, and shows the way out', async () => {
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    open('/', noor, { 'GET /api/today': { body: { ...day, next: null } } })
    const alert = await screen.findByRole('alert')
    expect(alert.textContent).toContain('This page cannot be shown')
    expect(within(alert).getByRole('link', { name: 'To Today' }).getAttribute('href')).toBe('/')
  })
})

describe('Today', () => {
  it('leads from every errand to where it is done', async () => {
    open('/', noor)
    const list = (await screen.findByRole('heading', { name: 'Left to do' })).closest('section')!
    expect(
      within(list)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href')),
    ).toEqual([
      '/lessons/evening/2026-11-17/mark',
      '/progress/evening?student=imke',
      '/people?view=safety',
      '/term/evening',
      '/forms/postures/push',
    ])
  })

  it('marks the lesson of the day, looks back on the one before, and leads a head to planning what is not planned', async () => {
    const { unmount } = open('/', noor)
    const marks = await screen.findAllByRole('link', { name: 'Mark today’s lesson' })
    expect(marks.map((link) => link.getAttribute('href'))).toEqual([`/lessons/evening/${today}/mark`])
    const back = screen.getAllByRole('link', { name: /^Look back on/ })
    expect(back.map((link) => [link.textContent, link.getAttribute('href')])).toEqual([
      ['Look back on Tuesday 17 November', '/lessons/evening/2026-11-17/back'],
    ])
    expect(screen.getByRole('link', { name: 'Plan it' }).getAttribute('href')).toBe('/term/morning')
    unmount()
    open('/', jonas)
    await screen.findByText('The term is not planned yet.')
    expect(screen.queryByRole('link', { name: 'Plan it' })).toBeNull()
  })

  it('says where a school without a term begins', async () => {
    open('/', noor, { 'GET /api/today': { body: { ...day, term: null, week: null, next: [] } } })
    expect((await screen.findByRole('link', { name: 'Add the next term' })).getAttribute('href')).toBe(
      '/school?view=terms',
    )
  })
})
