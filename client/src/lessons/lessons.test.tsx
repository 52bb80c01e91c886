import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, noor, today } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { LessonsScreen } from './LessonsScreen'

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
    ).toEqual(['Tuesday 17 November, 18:30', 'Not marked yet', 'Tuesday 10 November, 18:30', 'Look back', 'Register'])
  })

  it('says where a school without lessons begins', async () => {
    await list([])
    expect(screen.getByRole('link', { name: 'See the terms' }).getAttribute('href')).toBe('/school?view=terms')
  })
})
