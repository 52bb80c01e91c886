import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, noor, today } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { LessonScreen } from './LessonScreen'
import { LessonsScreen } from './LessonsScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const whip: Schema['LessonMaterial'] = {
  postureId: 'whip',
  side: 'left',
  name: 'Single Whip, left',
  keyPoint: 'the knee over the foot',
  cues: ['turn', 'hook', 'step'],
  faults: ['the knee drifts inside', 'the elbow lifts', 'a third'],
  cautions: ['A turn on a loaded foot strains the knee.'],
  facing: 270,
}
const block = (
  kind: Schema['BlockKind'],
  seconds: number,
  part: Partial<Schema['LessonBlockResponse']> = {},
): Schema['LessonBlockResponse'] => ({
  kind,
  seconds,
  led: true,
  visits: 0,
  material: [],
  ...part,
})
const fern: Schema['LessonCohortSheet'] = {
  cohortId: 'fern-group',
  name: 'Fern',
  colour: '#6C8F4E',
  half: 'none',
  mode: 'standing',
  people: 6,
  attended: false,
  blocks: [
    block('warmUp', 600),
    block('new', 480, { material: [whip] }),
    block('ownPractice', 2400, {
      led: false,
      visits: 2,
      material: [whip, { ...whip, postureId: 'press', name: 'Press, right' }],
    }),
    block('settle', 300),
  ],
  tooLongAloneSeconds: 720,
  cautions: [],
}
const sheet: Schema['LessonSheet'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  date: '2026-12-01',
  number: 13,
  kind: 'ordinary',
  start: '18:30:00',
  end: '20:00:00',
  hall: 'Quay Hall',
  staff: ['Noor Adeyemi'],
  planned: true,
  cohorts: [fern, { ...fern, cohortId: 'rail', name: 'Rail group', attended: true, tooLongAloneSeconds: null }],
  watch: [{ studentId: 'imke', student: 'Imke R.', posture: 'Single Whip, left', reason: 'secondLook', days: 7 }],
  care: [{ student: 'Goran V.', says: 'Goran V. leaves out the kick', open: true }],
  cautions: ['Nobody turns on a knee that hurts.'],
}

async function open(shown = sheet) {
  serve({ ...answers, 'GET /api/classes/evening/lessons/2026-12-01': { body: shown } })
  draw(
    <Routes>
      <Route path="/lessons/:classId/:date" element={<LessonScreen />} />
      <Route path="*" element={null} />
    </Routes>,
    { at: '/lessons/evening/2026-12-01', as: noor },
  )
  await screen.findByRole('heading', { name: 'Tuesday 1 December', level: 1 })
}
const chosen = () => within(screen.getByRole('region', { name: 'The chosen block' }))

describe('the lesson', () => {
  it('opens on what is new, with its key point, its cues and its cautions', async () => {
    await open()
    expect(chosen().getByRole('heading', { name: 'Single Whip, left' })).toBeTruthy()
    expect(chosen().getByText(/the knee over the foot/)).toBeTruthy()
    expect(
      chosen()
        .getAllByRole('listitem')
        .map((item) => item.textContent),
    ).toEqual(['1 turn', '2 hook', '3 step'])
    expect(chosen().getByText('A turn on a loaded foot strains the knee.')).toBeTruthy()
    expect(chosen().getByText(/the knee drifts inside; the elbow lifts\./)).toBeTruthy()
  })

  it('is walked block by block and says of each how long it is and who leads it', async () => {
    await open()
    const cells = screen.getAllByRole('gridcell')
    expect(cells.slice(0, 4).map((cell) => cell.getAttribute('aria-label'))).toEqual([
      'Warm-up, 10 min, led',
      'New: Single Whip, left, 8 min, led',
      'Own practice: Single Whip, left, Press, right, 40 min, on their own',
      'Settle, 5 min, led',
    ])
    cells[1]!.focus()
    await user.keyboard('{ArrowRight}{Enter}')
    expect(chosen().getByText(/40 min · on their own, a teacher comes by twice/)).toBeTruthy()
    await user.keyboard('{ArrowDown}')
    expect(document.activeElement).toBe(cells[6])
  })

  it('says who must not be left alone, who is for too long, and what is still to be settled', async () => {
    await open()
    const people = screen.getByRole('heading', { name: 'For these people' }).closest('section')!
    expect(people.textContent).toContain('Rail group has somebody beside it all lesson.')
    await within(people).findByText(/^\s*practises without a teacher’s eye for up to 12 min at a stretch, more than 8:/)
    expect(people.textContent).toContain('Nobody turns on a knee that hurts.')
    expect(within(people).getByRole('link', { name: 'Settle it' }).getAttribute('href')).toBe('/people?view=safety')
    expect(screen.queryByRole('link', { name: 'Mark this lesson' })).toBeNull()
  })

  it('leads to planning when it is not planned', async () => {
    await open({ ...sheet, planned: false, cohorts: [] })
    expect(screen.getByRole('link', { name: 'Plan the term' }).getAttribute('href')).toBe('/term/evening')
  })
})

describe('the lessons of the term', () => {
  const item = (date: string, part: Partial<Schema['LessonItem']> = {}): Schema['LessonItem'] => ({
    classId: 'evening',
    class: 'Tuesday evening',
    date,
    number: 1,
    kind: 'ordinary',
    start: '18:30:00',
    minutes: 90,
    hall: 'Quay Hall',
    past: date < today,
    marked: false,
    new: [],
    ...part,
  })
  const list = async (lessons: Schema['LessonItem'][]) => {
    serve({ ...answers, 'GET /api/lessons': { body: lessons } })
    draw(<LessonsScreen />, { as: noor })
    await screen.findByRole('heading', { name: 'Lessons' })
  }

  it('has the next ones first and the last ones first, and says which are not marked', async () => {
    await list([
      item('2026-11-10', { marked: true }),
      item('2026-11-17'),
      item('2026-12-01', { new: ['Single Whip, left'] }),
      item('2026-12-15', { kind: 'test' }),
    ])
    const [coming, held] = ['To come', 'Held'].map((name) => screen.getByRole('heading', { name }).closest('section')!)
    expect(
      within(coming!)
        .getAllByRole('link')
        .map((link) => link.textContent),
    ).toEqual(['Tuesday 1 December, 18:30', 'Tuesday 15 December, 18:30'])
    expect(coming!.textContent).toContain('Single Whip, left')
    expect(coming!.textContent).toContain('test')
    expect(
      within(held!)
        .getAllByRole('link')
        .map((link) => link.textContent),
    ).toEqual(['Tuesday 17 November, 18:30', 'Not marked yet', 'Tuesday 10 November, 18:30', 'Register'])
  })

  it('says where a school without lessons begins', async () => {
    await list([])
    expect(screen.getByRole('link', { name: 'See the terms' }).getAttribute('href')).toBe('/school?view=terms')
  })
})
