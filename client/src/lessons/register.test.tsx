import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { jonas, noor } from '../testing/heron-quay'
import { cell, item, register } from '../testing/register'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { waiting } from '../shared/waiting'
import type { Register } from './data'
import { MarkScreen } from './MarkScreen'
import { useSendingMarks } from './use-register'

const address = '/api/classes/evening/lessons/2026-11-24'

function App() {
  useSendingMarks()
  return (
    <Routes>
      <Route path="/lessons/:classId/:date/mark" element={<MarkScreen />} />
      <Route path="*" element={null} />
    </Routes>
  )
}

async function open(answers: Parameters<typeof serve>[0] = {}, as = jonas) {
  const server = serve({
    [`GET ${address}/register`]: { body: register },
    'GET /api/principles': { body: [] },
    [`POST ${address}/attendance`]: {},
    [`POST ${address}/taught`]: {},
    [`POST ${address}/observations`]: {},
    [`POST ${address}/ways`]: {},
    ...answers,
  })
  const drawn = draw(<App />, { as })
  await waiting.signedIn(as.id)
  await drawn.router.navigate(`/lessons/evening/2026-11-24/mark`)
  await screen.findByText('Mark Tuesday 24 November')
  return { ...server, ...drawn }
}

const posted = (asked: { what: string; body: unknown }[], what: string) =>
  asked
    .filter((one) => one.what === `POST ${address}/${what}`)
    .flatMap((one) => (one.body as { marks: unknown[] }).marks)

beforeEach(async () => {
  for (const entry of waiting.now()) await waiting.forget(entry.id)
})

describe('the register', () => {
  it('sends each tick by itself, so that two of them undo nothing', async () => {
    const { asked } = await open()
    const ticks = screen.getAllByRole('checkbox')
    await userEvent.click(ticks[0]!)
    await userEvent.click(ticks[1]!)
    await waitFor(() =>
      expect(posted(asked, 'taught')).toMatchObject([
        { postureId: 'press', taught: true },
        { postureId: 'push', taught: true },
      ]),
    )
  })

  it('takes what no plan foresaw, on either side, but nothing twice', async () => {
    const { asked } = await open({
      'GET /api/postures': {
        body: [
          { id: 'press', name: 'Press', kind: 'posture', writtenSide: 'left' },
          { id: 'circles', name: 'Hand Circles', kind: 'drill', writtenSide: 'symmetric' },
        ],
      },
    })
    const choose = async (field: string, option: string) => {
      await userEvent.click(screen.getByRole('combobox', { name: field }))
      await userEvent.click(await screen.findByRole('option', { name: option }))
    }
    await userEvent.click(screen.getByRole('button', { name: 'Something else was taught' }))
    const add = await screen.findByRole('button', { name: 'Add it' })
    await choose('Posture or drill', 'Press')
    await screen.findByText(/stands above already/)
    await choose('Side', 'right')
    await userEvent.click(add)
    await choose('Posture or drill', 'Hand Circles')
    await choose('How', 'review')
    await userEvent.click(add)
    await waitFor(() =>
      expect(posted(asked, 'taught')).toMatchObject([
        { cohortId: 'copper', postureId: 'press', side: 'right', kind: 'posture', how: 'introduced', taught: true },
        { cohortId: 'copper', postureId: 'circles', side: 'symmetric', kind: 'drill', how: 'reviewed', taught: true },
      ]),
    )
  })

  it('asks before its window is closed while nothing but the page holds a mark', async () => {
    const asksBeforeClosing = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
    const { answer } = await open({ [`POST ${address}/observations`]: 'away' })
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('There is no room left.')
    })
    expect(asksBeforeClosing()).toBe(false)
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('3')
    await screen.findByText(/leave this page open/)
    expect(asksBeforeClosing()).toBe(true)
    answer[`POST ${address}/observations`] = {}
    await waiting.flush()
    await waitFor(() => expect(asksBeforeClosing()).toBe(false))
    put.mockRestore()
  })

  it('says that a mark waits for the network, shows it meanwhile, and sends the same one when it is back', async () => {
    const { asked, answer } = await open({ [`POST ${address}/observations`]: 'away' })
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('3')
    // At first it is merely on its way, and nothing moves for that.
    await screen.findByText(/1 mark on its way/)
    expect(screen.queryByText(/waiting for the network/)).toBeNull()
    await screen.findByText(/1 mark is waiting for the network/)
    expect(screen.getByRole('button', { name: /^Imke R., Press, left.*alone$/ })).toBeTruthy()
    answer[`POST ${address}/observations`] = {}
    await waiting.flush()
    await waitFor(() => expect(screen.queryByText(/waiting for the network/)).toBeNull())
    const marks = posted(asked, 'observations') as { id: string; stage: string }[]
    expect(new Set(marks.map(({ id }) => id)).size).toBe(1)
    expect(marks[0]!.stage).toBe('alone')
  })

  it('shows every mark that was not taken, each with its reason', async () => {
    await open({
      [`POST ${address}/observations`]: { status: 400, body: refusal('This is no known fault of the posture.') },
      [`POST ${address}/attendance`]: { status: 403, body: refusal('This class is not yours.') },
    })
    await userEvent.click(screen.getByRole('button', { name: 'Imke R.: not said' }))
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('s')
    await screen.findByText('Imke R., Press, left: seen and fine was not taken.')
    expect(screen.getByText('Imke R.: here was not taken.')).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Imke R.: not said' })).toBeTruthy()
    for (const read of screen.getAllByText('I have read it')) await userEvent.click(read)
    await waitFor(() => expect(screen.queryByText(/was not taken/)).toBeNull())
  })

  it('takes the last mark back with a withdrawal of it', async () => {
    const { asked, answer } = await open()
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('4')
    await waitFor(() => expect(posted(asked, 'observations')).toHaveLength(1))
    const { id } = posted(asked, 'observations')[0] as { id: string }
    answer[`POST /api/observations/${id}/withdrawal`] = {}
    await userEvent.keyboard('z')
    await waitFor(() => expect(asked.map(({ what }) => what)).toContain(`POST /api/observations/${id}/withdrawal`))
  })

  it('offers where a sole is pressed what can be said of it, without opening it', async () => {
    const { asked } = await open()
    const sole = screen.getByRole('button', { name: /^Goran V., Push, left/ })
    await userEvent.pointer({ target: sole, keys: '[MouseRight]' })
    expect((await screen.findAllByRole('menuitem')).map((item) => item.textContent)).toEqual([
      'follows',
      'alone',
      'flowing',
      'seen and fine',
      'correction …',
    ])
    await userEvent.click(screen.getByRole('menuitem', { name: 'flowing' }))
    await waitFor(() =>
      expect(posted(asked, 'observations')).toMatchObject([
        { studentId: 'Goran V.', postureId: 'push', sign: 'stage', stage: 'flowing' },
      ]),
    )
    await userEvent.pointer({ target: screen.getByRole('button', { name: 'Imke R.: not said' }), keys: '[MouseRight]' })
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Away' }))
    await waitFor(() => expect(posted(asked, 'attendance')).toMatchObject([{ studentId: 'Imke R.', present: false }]))
  })

  it('marks all of a cohort in one thing, except whoever is taken out, and takes all of it back at once', async () => {
    const people = ['Imke R.', 'Goran V.', 'Per L.', 'Vera Q.'].map((name) => ({
      ...register.students[0]!,
      studentId: name,
      name,
      present: name !== 'Vera Q.',
    }))
    const { asked, answer } = await open({ [`GET ${address}/register`]: { body: { ...register, students: people } } })
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('e')
    expect(screen.queryByRole('checkbox', { name: /^Vera Q/ })).toBeNull()
    await userEvent.click(screen.getByRole('checkbox', { name: /^Goran V/ }))
    await userEvent.click(screen.getByRole('button', { name: /^follows/ }))
    await waitFor(() =>
      expect(posted(asked, 'observations')).toMatchObject([
        { studentId: 'Imke R.', postureId: 'press', sign: 'stage', stage: 'follows' },
        { studentId: 'Per L.', postureId: 'press', sign: 'stage', stage: 'follows' },
      ]),
    )
    const ids = (posted(asked, 'observations') as { id: string }[]).map(
      ({ id }) => `POST /api/observations/${id}/withdrawal`,
    )
    for (const id of ids) answer[id] = {}
    await userEvent.keyboard('z')
    await waitFor(() => expect(asked.map(({ what }) => what)).toEqual(expect.arrayContaining(ids)))
  })

  it('marks one student down a segment in one step, and takes it back in one', async () => {
    const { asked, answer } = await open()
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.click(screen.getByRole('button', { name: 'How far Imke R. did the same' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'down to Push, left' }))
    await userEvent.keyboard('4')
    const flows = { studentId: 'Imke R.', sign: 'stage', stage: 'flowing' }
    await waitFor(() =>
      expect(posted(asked, 'observations')).toMatchObject([
        { ...flows, postureId: 'press' },
        { ...flows, postureId: 'push' },
      ]),
    )
    const ids = (posted(asked, 'observations') as { id: string }[]).map(
      ({ id }) => `POST /api/observations/${id}/withdrawal`,
    )
    for (const id of ids) answer[id] = {}
    await userEvent.keyboard('z')
    await waitFor(() => expect(asked.map(({ what }) => what)).toEqual(expect.arrayContaining(ids)))
  })

  it('marks a run-through in one sweep, links and all, but where it stopped, and opens the first stop', async () => {
    const link = { ...item('push', 'Press → Push'), kind: 'link', from: { postureId: 'press', side: 'left' } } as const
    const run = [item('press', 'Press, left'), link, item('push', 'Push, left'), item('single-whip', 'Single Whip')]
    const items = run.map((one) => ({ ...one, how: 'runThrough' as const }))
    const cells = items.map(({ postureId, side, from }) => ({
      ...register.students[0]!.cells[0]!,
      postureId,
      side,
      from: from ?? null,
    }))
    const { asked } = await open({
      [`GET ${address}/register`]: {
        body: {
          ...register,
          cohorts: [{ ...register.cohorts[0], items }],
          students: register.students.map((one) => ({ ...one, cells })),
        },
      },
    })
    const runThrough = { sign: 'stage', stage: 'flowing', inRunThrough: true }
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.click(screen.getByRole('button', { name: 'How far Imke R. did the same' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'down to Single Whip' }))
    for (const stop of ['Push, left', 'Press → Push']) {
      await userEvent.click(screen.getByRole('button', { name: 'Where Imke R. stopped' }))
      await userEvent.click(await screen.findByRole('menuitem', { name: stop }))
    }
    await userEvent.click(screen.getByRole('button', { name: 'Did not stop at Press → Push' }))
    await userEvent.keyboard('4')
    await waitFor(() =>
      expect(posted(asked, 'observations')).toMatchObject([
        { ...runThrough, postureId: 'press', from: null },
        { ...runThrough, postureId: 'push', from: { postureId: 'press' } },
        { ...runThrough, postureId: 'single-whip' },
      ]),
    )
    // What was wrong at the stop is asked next.
    within(screen.getByRole('complementary', { name: 'Details' })).getByText('Push, left')
    screen.getByRole('button', { name: /^correction/, expanded: true })
    await userEvent.keyboard('{Escape}')
    // The same of all who are here.
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('e')
    await userEvent.click(screen.getByRole('button', { name: 'How far they did the same' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'down to Press → Push' }))
    await userEvent.click(screen.getByRole('button', { name: /^follows/ }))
    const here = register.students.filter(({ present }) => present !== false)
    await waitFor(() => expect(posted(asked, 'observations')).toHaveLength(3 + 2 * here.length))
  })

  it('says in which mode it was done, and notes what the level accepts or the focus passes over instead of calling it', async () => {
    const leans = { id: 'leans', seen: 'leans', weight: 'shape', causes: [], otherWays: [], principleId: null } as const
    const lifts = { ...leans, id: 'lifts', seen: 'lifts the elbow' }
    const fern = {
      ...item('press', 'Press, left'),
      faults: [leans, lifts],
      acceptedFaults: ['leans'],
      besideFocus: ['lifts'],
    }
    const { asked } = await open({
      [`GET ${address}/register`]: {
        body: { ...register, cohorts: [{ ...register.cohorts[0], items: [fern, item('push', 'Push, left')] }] },
      },
    })
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    await userEvent.keyboard('3')
    await userEvent.click(screen.getByRole('button', { name: /^The mode Imke R. did it in/ }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'seated' }))
    await userEvent.click(screen.getByRole('button', { name: /^alone/ }))
    await userEvent.click(screen.getByRole('button', { name: /^correction/ }))
    await userEvent.click(screen.getByRole('button', { name: /^leans.*noted, not called/ }))
    await waitFor(() =>
      expect(posted(asked, 'observations')).toMatchObject([
        { sign: 'stage', mode: 'standing' },
        { sign: 'stage', mode: 'seated' },
        { sign: 'noted', mode: 'seated', faultId: 'leans' },
      ]),
    )
    await userEvent.click(screen.getByRole('button', { name: /^correction/ }))
    await userEvent.click(screen.getByRole('button', { name: /^lifts the elbow.*beside the focus: noted, not called/ }))
    await waitFor(() => expect(posted(asked, 'observations')).toHaveLength(4))
    expect(posted(asked, 'observations').at(-1)).toMatchObject({ sign: 'noted', faultId: 'lifts', inRunThrough: false })
    // It stays so for whoever is marked next, until it is said otherwise.
    await userEvent.click(screen.getByRole('button', { name: 'How it is seen: by itself' }))
    await userEvent.click(await screen.findByRole('menuitem', { name: 'inside a run-through' }))
    await userEvent.click(screen.getByRole('button', { name: /^Goran V., Press, left/ }))
    await userEvent.click(screen.getByRole('button', { name: /^alone/ }))
    await waitFor(() => expect(posted(asked, 'observations')).toHaveLength(5))
    expect(posted(asked, 'observations').at(-1)).toMatchObject({ studentId: 'Goran V.', inRunThrough: true })
  })

  it('keeps in one tap what was done about a correction, and takes it back with the same or with z', async () => {
    const [imke, goran] = register.students
    const knee = { faultId: 'knee', words: 'the knee drifts', weight: 'keyPoint' as const, stuck: true }
    const tried = (...triedToday: { way: 'atTheWall' | 'image'; cause: string }[]): Register => ({
      ...register,
      students: [{ ...imke!, cells: [{ ...cell('press'), open: [{ ...knee, triedToday }] }, cell('push')] }, goran!],
    })
    const image = { way: 'image', cause: 'the hip stops' } as const
    const { asked, answer } = await open({ [`GET ${address}/register`]: { body: tried(image) } })
    await userEvent.click(screen.getByRole('button', { name: /^Imke R., Press, left/ }))
    answer[`GET ${address}/register`] = { body: tried(image, { way: 'atTheWall', cause: '' }) }
    const wall = screen.getByRole('button', { name: 'at the wall' })
    await userEvent.click(wall)
    await waitFor(() => expect(posted(asked, 'ways')).toHaveLength(1))
    await waitFor(() => expect(wall.getAttribute('aria-pressed')).toBe('true'))
    await userEvent.click(wall)
    await userEvent.keyboard('z')
    // One that was meant for a cause is taken back with its cause.
    await userEvent.click(screen.getByRole('button', { name: 'an image' }))
    const said = { studentId: 'Imke R.', postureId: 'press', faultId: 'knee', words: 'the knee drifts' }
    await waitFor(() =>
      expect(posted(asked, 'ways')).toMatchObject([
        { ...said, way: 'atTheWall', cause: '', done: true },
        { ...said, way: 'atTheWall', cause: '', done: false },
        { ...said, way: 'atTheWall', cause: '', done: true },
        { ...said, ...image, done: false },
      ]),
    )
  })

  it('keeps what no list had for everybody, once a head says so, and marks it as known', async () => {
    const seen = { seen: 'looks at the floor', side: 'left', weight: 'shape' }
    const keep = 'POST /api/postures/press/faults'
    const { asked, answer } = await open({ [keep]: { status: 503 } }, noor)
    await userEvent.click(screen.getByRole('button', { name: /^Imke R\., Press, left:/ }))
    await userEvent.click(screen.getByRole('button', { name: /^correction/ }))
    await userEvent.type(screen.getByLabelText('In your own words'), 'looks at the floor')
    await userEvent.click(screen.getByRole('checkbox', { name: /^Keep it for everybody/ }))
    await userEvent.click(screen.getByRole('button', { name: 'Open the correction' }))
    // It could not be kept: nothing is marked, and nothing is lost.
    await screen.findByRole('alert')
    expect(posted(asked, 'observations')).toEqual([])
    expect(screen.getByLabelText<HTMLInputElement>('In your own words').value).toBe('looks at the floor')
    answer[keep] = {}
    await userEvent.click(screen.getByRole('button', { name: 'Open the correction' }))
    await waitFor(() => expect(posted(asked, 'observations')).toHaveLength(1))
    const kept = asked.filter(({ what }) => what === keep).at(-1)!.body as { id: string }
    expect(kept).toMatchObject(seen)
    expect(posted(asked, 'observations')).toMatchObject([
      { studentId: 'Imke R.', sign: 'fault', faultId: kept.id, words: 'looks at the floor' },
    ])
  })

  it('opens a correction against a principle', async () => {
    const { asked } = await open({
      'GET /api/principles': {
        body: [{ id: 'knees', text: { name: 'Knee over foot', keyPoint: '', faults: [] }, version: 1 }],
      },
    })
    await userEvent.click(screen.getByRole('button', { name: /^Imke R\., Press, left:/ }))
    await userEvent.click(screen.getByRole('button', { name: /^correction/ }))
    await userEvent.click(await screen.findByRole('combobox', { name: 'It is so' }))
    await userEvent.click(await screen.findByRole('option', { name: 'in every posture: Knee over foot' }))
    await userEvent.click(screen.getByRole('button', { name: 'Open the correction' }))
    await waitFor(() =>
      expect(posted(asked, 'observations')).toMatchObject([
        { postureId: 'press', sign: 'fault', principleId: 'knees', words: 'Knee over foot' },
      ]),
    )
  })

  it('says of a principle that it is kept, and what was done about it, in whatever is watched', async () => {
    const words = 'the knees fall in'
    const against = {
      principleId: 'knees',
      principle: 'Knee over foot',
      correction: { faultId: null, words, weight: 'keyPoint', stuck: false, triedToday: [] },
      today: [],
    }
    const { asked } = await open({
      [`GET ${address}/register`]: {
        body: { ...register, students: register.students.map((one) => ({ ...one, against: [against] })) },
      },
    })
    await userEvent.click(screen.getByRole('button', { name: /^Goran V\., Push, left:/ }))
    const everywhere = within(screen.getByRole('region', { name: 'In every posture' }))
    await userEvent.click(everywhere.getByRole('button', { name: 'kept' }))
    await userEvent.click(everywhere.getByRole('button', { name: 'feet only' }))
    await waitFor(() =>
      expect(posted(asked, 'ways')).toMatchObject([{ words, way: 'feetOnly', principleId: 'knees', done: true }]),
    )
    expect(posted(asked, 'observations')).toMatchObject([{ postureId: 'push', sign: 'fine', principleId: 'knees' }])
  })

  it('lets nobody but a head keep a fault for everybody', async () => {
    await open()
    await userEvent.click(screen.getByRole('button', { name: /^Imke R\., Press, left:/ }))
    await userEvent.click(screen.getByRole('button', { name: /^correction/ }))
    expect(screen.queryByRole('checkbox', { name: /^Keep it for everybody/ })).toBeNull()
  })

  it('marks all of a cohort as here, a fact each in one request', async () => {
    const { asked } = await open()
    await userEvent.click(screen.getByText('All here'))
    await waitFor(() =>
      expect(posted(asked, 'attendance')).toMatchObject([
        { studentId: 'Imke R.', present: true },
        { studentId: 'Goran V.', present: true },
      ]),
    )
    expect(asked.filter(({ what }) => what.endsWith('/attendance'))).toHaveLength(1)
  })
})
