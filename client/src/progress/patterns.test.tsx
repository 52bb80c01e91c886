import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, jonas } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { PatternsScreen } from './PatternsScreen'
import type { Pattern } from './patterns'

const pattern = (name: string, part: Partial<Pattern> = {}): Pattern => ({
  postureId: name,
  fromId: null,
  faultId: `fault of ${name}`,
  name,
  words: 'the knee drifts',
  weight: 'keyPoint',
  in: [
    { open: 2, new: 2 },
    { open: 0, new: 0 },
    { open: 1, new: 1 },
  ],
  weeks: 9,
  called: 1,
  tried: 0,
  people: 3,
  openNow: 1,
  waves: [],
  sameSeason: false,
  mendedBy: null,
  onlyIn: null,
  unlooked: 0,
  cases: [],
  ...part,
})
const goran: Schema['PatternsCase'] = {
  studentId: 'goran',
  name: 'Goran V.',
  classId: 'evening',
  cohort: 'Fern',
  side: 'left',
  episodes: [
    { opened: '2026-09-08', cleared: '2026-09-22', seen: 2 },
    { opened: '2026-11-10', cleared: null, seen: 1 },
  ],
  state: 'back',
  lastLooked: '2026-11-10',
  tried: [{ way: 'atTheWall', cause: '', date: '2026-09-08', helped: true }],
}
const board: Schema['PatternsBoard'] = {
  months: ['2026-09-01', '2026-10-01', '2026-11-01'],
  patterns: [
    pattern('Single Whip', { waves: ['2025-10-20', '2026-11-03'], sameSeason: true, cases: [goran] }),
    pattern('Push', { onlyIn: 'Copper', unlooked: 2, mendedBy: '2026-09-01' }),
    pattern('Press'),
  ],
}

async function open(body = board) {
  serve({ ...answers, 'GET /api/patterns': { body } })
  const drawn = draw(
    <Routes>
      <Route path="/progress/patterns" element={<PatternsScreen />} />
      <Route path="*" element={null} />
    </Routes>,
    { as: jonas },
  )
  await drawn.router.navigate('/progress/patterns')
  await screen.findByRole('heading', { name: 'What we teach against' })
}

const shown = () => screen.getAllByRole('img').map((one) => one.closest('button')!.textContent)

describe('what we teach against', () => {
  it('says of each fault what the years say, and shows only what is asked for', async () => {
    await open()
    expect(shown()).toHaveLength(3)
    expect(shown()[0]).toContain('comes back around November')
    for (const [name, posture] of [
      ['Comes back 1', 'Single Whip'],
      ['In one cohort 1', 'Push'],
      ['Not looked at 1', 'Push'],
      ['Mended 1', 'Push'],
    ] as const) {
      await userEvent.click(screen.getByRole('radio', { name }))
      expect(shown()).toHaveLength(1)
      expect(shown()[0]).toContain(posture)
    }
  })

  it('draws each thread in words, too', async () => {
    await open()
    expect(screen.getAllByRole('img')[0]!.getAttribute('aria-label')).toBe(
      'September 2026: open in 2, new in 2; November 2026: open in 1, new in 1',
    )
  })

  it('leads to who had it when, and what was tried', async () => {
    await open()
    await userEvent.click(screen.getByRole('button', { name: /^Single Whip/ }))
    const panel = within(screen.getByRole('complementary'))
    expect(panel.getByRole('link', { name: 'Goran V.' }).getAttribute('href')).toBe(
      '/progress/evening?student=goran&posture=Single Whip&side=left',
    )
    panel.getByText('8 Sept 2026 to 22 Sept 2026, seen twice')
    panel.getByText('10 Nov 2026 and still, seen once')
    panel.getByText(/at the wall, 8 September: helped/)
  })

  it('says so where nothing was corrected yet', async () => {
    await open({ ...board, patterns: [] })
    expect(screen.getByText(/^Nothing has been corrected yet/)).toBeTruthy()
  })
})
