import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schema } from '../api/client'
import { waiting } from '../shared/waiting'
import { answers, jonas, today } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { HomeScreen } from './HomeScreen'
import { useSendingPractice } from './use-practised'

const whip = { postureId: 'whip', side: 'left', mode: 'supported', words: 'with the hook low' } as const
const sheet: Schema['HomePracticeSheet'] = {
  says: 'a1',
  minutes: 6,
  focus: 'feet only, slowly',
  things: [
    {
      kind: 'correction',
      name: 'Single Whip, left',
      postures: [whip],
      times: 6,
      minutes: 4,
      seen: 'the knee drifts',
      mend: 'feet only, slowly',
    },
  ],
  occasion: { when: 'While the kettle boils', how: 'A hand on the worktop.' },
  cautions: ['Stop at pain.'],
}
const person = (studentId: string, name: string, part: Partial<Schema['HomePracticePractiser']> = {}) => ({
  studentId,
  name,
  cohortId: 'fern-group',
  cohort: 'Fern',
  sashColour: '#6C8F4E',
  half: 'none' as const,
  mode: 'standing',
  sheet,
  given: '2026-11-10',
  isNew: false,
  practised: [],
  ...part,
})
const home: Schema['HomePracticeClassAtHome'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  people: [
    person('imke', 'Imke R.', { isNew: true, practised: [{ date: today, minutes: 6 }] }),
    person('goran', 'Goran V.'),
    person('kofi', 'Kofi M.', { sheet: null, given: null }),
  ],
  postures: [{ ...whip, name: 'Single Whip, left', keyPoint: 'the knee waits', cues: ['turn', 'step'], cautions: [] }],
}
const given = 'POST /api/classes/evening/home/given'
const practice = 'POST /api/classes/evening/home/practice'

function App() {
  useSendingPractice()
  return (
    <Routes>
      <Route path="/progress/:classId/home" element={<HomeScreen />} />
      <Route path="*" element={null} />
    </Routes>
  )
}

async function open(more: Parameters<typeof serve>[0] = {}) {
  const server = serve({
    ...answers,
    'GET /api/classes/evening/home': { body: home },
    'GET /api/figures': { body: [] },
    [given]: {},
    [practice]: {},
    ...more,
  })
  const drawn = draw(<App />, { as: jonas })
  await waiting.signedIn('jonas')
  await drawn.router.navigate('/progress/evening/home')
  await screen.findByRole('heading', { name: 'Home practice' })
  return { ...server, ...drawn }
}

const bodies = (asked: { what: string; body: unknown }[], what: string) =>
  asked.filter((one) => one.what === what).map((one) => one.body)

beforeEach(async () => {
  for (const entry of waiting.now()) await waiting.forget(entry.id)
  HTMLImageElement.prototype.decode = () => Promise.resolve()
})

describe('home practice', () => {
  it('does not speak of change where nothing was ever handed out', async () => {
    await open({
      'GET /api/classes/evening/home': {
        body: { ...home, people: [person('imke', 'Imke R.', { isNew: true, given: null })] },
      },
    })
    expect(screen.getByRole('button', { name: 'Print the one to hand out' })).toBeTruthy()
    expect(screen.queryByText(/changed/)).toBeNull()
  })

  it('prints what has changed, and counts it as handed out when somebody says it is on paper', async () => {
    const paper: string[] = []
    vi.stubGlobal('print', () => paper.push(document.querySelector('.print-alone')!.textContent))
    const { asked } = await open()
    await userEvent.click(screen.getByRole('button', { name: 'Print the one to hand out' }))
    await screen.findByText('Is the sheet on paper?')
    expect(paper).toHaveLength(1)
    expect(paper[0]).toContain('Imke R., at home')
    expect(paper[0]).not.toContain('Goran')
    expect(paper[0]).toContain('Stop at pain.')
    // As it was settled for this person.
    expect(paper[0]).toContain('supported, with the hook low')
    expect(bodies(asked, given)).toEqual([])
    await userEvent.click(screen.getByRole('button', { name: 'Yes, they are handed out' }))
    await waitFor(() => expect(bodies(asked, given)).toMatchObject([{ sheets: [{ studentId: 'imke', says: 'a1' }] }]))
  })

  it('prints nothing without its figures, and says so', async () => {
    const print = vi.fn()
    vi.stubGlobal('print', print)
    HTMLImageElement.prototype.decode = () => Promise.reject(new Error('away'))
    await open()
    await userEvent.click(screen.getByRole('button', { name: 'Print all' }))
    await screen.findByText(/nothing was printed/)
    expect(print).not.toHaveBeenCalled()
  })

  it('says what somebody else has changed meanwhile, and keeps the question', async () => {
    vi.stubGlobal('print', () => {})
    await open({ [given]: { status: 409, body: refusal('Something was marked meanwhile.') } })
    await userEvent.click(screen.getByRole('button', { name: 'Print all' }))
    await userEvent.click(await screen.findByRole('button', { name: 'Yes, they are handed out' }))
    await screen.findByText('Something was marked meanwhile.')
    expect(screen.getByText('Are the 2 sheets on paper?')).toBeTruthy()
  })

  it('writes down a day of the tear-off, and takes it back with z', async () => {
    const kept = new Map<string, number>()
    const { asked } = await open({
      'GET /api/classes/evening/home': () => ({
        body: {
          ...home,
          people: home.people.map((one) =>
            one.studentId === 'goran'
              ? { ...one, practised: [...kept].map(([date, minutes]) => ({ date, minutes })) }
              : one,
          ),
        },
      }),
      [practice]: (body) => {
        const [log] = (body as Schema['PracticeLogRequest']).logs
        kept.set(log!.date, log!.minutes)
        return {}
      },
    })
    await userEvent.click(screen.getByRole('button', { name: /^Goran V\./ }))
    const panel = screen.getByRole('complementary')
    await userEvent.click(within(panel).getByRole('button', { name: 'Monday 23 November: nothing' }))
    await within(panel).findByRole('button', { name: 'Monday 23 November: 6 minutes' })
    await userEvent.keyboard('z')
    await within(panel).findByRole('button', { name: 'Monday 23 November: nothing' })
    const log = { studentId: 'goran', date: '2026-11-23' }
    await waitFor(() =>
      expect(bodies(asked, practice)).toMatchObject([
        { logs: [{ ...log, minutes: 6 }] },
        { logs: [{ ...log, minutes: 0 }] },
      ]),
    )
  })

  it('shows what was brought back before, and says so where there is nothing to practise', async () => {
    await open()
    expect(screen.getByText('practised 1 of 14 days')).toBeTruthy()
    expect(screen.getByText(/^Nothing to practise yet/)).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: /^Imke R\./ }))
    within(screen.getByRole('complementary')).getByRole('button', { name: 'Tuesday 24 November: 6 minutes' })
  })
})
