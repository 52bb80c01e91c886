import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { describe, expect, it, vi } from 'vitest'
import type { Schema } from '../api/client'
import { answers, noor } from '../testing/heron-quay'
import { address, arrangement, sheet } from '../testing/lesson'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import { LessonScreen } from './LessonScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

async function open(shown = sheet, arranged = arrangement, more: Parameters<typeof serve>[0] = {}) {
  const served = serve({
    ...answers,
    'GET /api/principles': { body: [] },
    ...more,
    [`GET ${address}`]: { body: shown },
    [`GET ${address}/arrangement`]: { body: arranged },
    [`PUT ${address}/arrangement`]: {
      body: {
        ...arranged,
        edits: [{ kind: 'pin', key: 'whip', start: 11, teacherId: null }],
        version: 1,
        blocks: arranged.blocks.map((block) =>
          block.task === 'whip' ? { ...block, start: 11, end: 19, fixed: true } : block,
        ),
      },
    },
  })
  draw(
    <Routes>
      <Route path="/lessons/:classId/:date" element={<LessonScreen />} />
      <Route path="*" element={null} />
    </Routes>,
    { at: '/lessons/evening/2026-12-01', as: noor },
  )
  await screen.findByRole('heading', { name: 'Tuesday 1 December', level: 1 })
  return served
}
/** What was last sent to be arranged around. */
const editsOf = (asked: { what: string; body: unknown }[]) =>
  (asked.findLast(({ what }) => what.startsWith('PUT'))!.body as { edits: unknown[] }).edits
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

  it('says how good the arrangement is: what is proven of it, and how far from the best it may be', async () => {
    await open()
    screen.getByText(
      /^Proven: with who is there nobody can be led for longer.* at most 10.0 % from the best there is\.$/,
    )
  })

  it('is walked block by block and says of each when it is and who leads it', async () => {
    await open()
    const cell = (name: RegExp) => screen.getByRole('gridcell', { name })
    cell(/^New: Single Whip, left, minute 10 to 18, Noor Adeyemi leads$/).focus()
    await user.keyboard('{ArrowRight}{Enter}')
    expect(chosen().getByText(/18:48 to 19:55, 67 min/)).toBeTruthy()
    expect(chosen().getByText(/Noor Adeyemi comes by at\s+18:55 for 3 min/)).toBeTruthy()
    await user.click(cell(/^Warm-up: joint by joint, everybody, minute 0 to 10$/))
    const pieces = within(chosen().getByRole('list', { name: 'Pieces of the warm-up' })).getAllByRole('listitem')
    expect(pieces.map((piece) => piece.textContent)).toEqual(['18:30ankles and knees', '18:36Weight Shifting'])
  })

  it('takes somebody of another group along, whoever is named from the list, and a visitor by any other name', async () => {
    const { asked } = await open(sheet, arrangement, {
      [`GET ${address}/who-could-join`]: { body: [{ studentId: 'edda', name: 'Edda T.', group: 'Rail group' }] },
    })
    await user.click(screen.getByRole('button', { name: 'Something else is otherwise' }))
    const joining = within(screen.getByRole('region', { name: 'Who else comes' }))
    await user.type(joining.getByLabelText('Who'), 'Edda T.')
    expect(await joining.findByText(/^Rail group\. Done as they do it there\./)).toBeTruthy()
    expect(joining.queryByRole('checkbox')).toBeNull()
    await user.click(joining.getByRole('button', { name: 'Is with Fern tonight' }))
    const fern = { kind: 'joins', cohortId: arrangement.cohorts[0]!.id, from: null }
    expect(editsOf(asked)).toEqual([{ ...fern, who: 'edda', name: 'Edda T.', neverAlone: false }])
    await user.clear(joining.getByLabelText('Who'))
    await user.type(joining.getByLabelText('Who'), 'Wenke')
    expect(joining.getByText(/^A visitor: .* Ask what hurts/)).toBeTruthy()
    await user.click(joining.getByRole('checkbox', { name: /somebody stays with them/ }))
    await user.click(joining.getByRole('button', { name: 'Is with Fern tonight' }))
    expect(editsOf(asked).at(-1)).toMatchObject({ ...fern, name: 'Wenke', neverAlone: true })
  })

  it('says of a partner block who works with whom, who beside and why, and what is agreed first', async () => {
    const pairs = {
      groups: [['Imke R.', 'Per D.', 'Kofi M.']],
      beside: [{ name: 'Vera Q.', why: 'has not agreed to partner work' }],
      caution: 'Each says first what contact is all right tonight.',
    }
    const { asked } = await open(sheet, {
      ...arrangement,
      blocks: arrangement.blocks.map((block) =>
        block.task === 'whip' ? { ...block, kind: 'partner', pairs, material: [] } : block,
      ),
    })
    await user.click(screen.getByRole('gridcell', { name: /^With a partner: Single Whip/ }))
    const listed = within(chosen().getByRole('list', { name: 'Who works with whom' })).getAllByRole('listitem')
    expect(listed.map((item) => item.textContent)).toEqual([
      'Imke R., Per D. and Kofi M.',
      'Vera Q.: has not agreed to partner work',
    ])
    expect(chosen().getByText(pairs.caution)).toBeTruthy()
    await user.click(screen.getByRole('combobox', { name: 'Whose sheet is printed' }))
    await user.click(screen.getByRole('option', { name: 'Sheet for Noor' }))
    expect(screen.getAllByText(/Imke R\., Per D\. and Kofi M\.; Vera Q\.: .* work\. Each says first/)).toHaveLength(1)

    // Added by its name, a posture brings its counts and its demands along.
    await user.click(screen.getByRole('button', { name: 'Something else is otherwise' }))
    await user.type(screen.getByLabelText('What'), 'Press, right')
    await user.click(screen.getByRole('button', { name: 'Add it' }))
    expect(editsOf(asked).at(-1)).toMatchObject({ task: { material: [{ postureId: 'press', side: 'left' }] } })
  })

  it('is arranged by keys: a minute later, by somebody else, fixed and taken back', async () => {
    const { asked } = await open()
    const whip = () => screen.getByRole('gridcell', { name: /^New: Single Whip/ })
    const edits = () => editsOf(asked)
    whip().focus()
    await user.keyboard('{Shift>}{ArrowRight}{/Shift}')
    expect(edits()).toEqual([{ kind: 'pin', key: 'whip', start: 11, teacherId: null }])
    await screen.findByText(/Single Whip, left was fixed/)
    whip().focus()
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}')
    expect(edits().at(-1)).toEqual({ kind: 'pin', key: 'whip', start: 11, teacherId: 'jonas' })
    await user.keyboard('p')
    expect(edits().at(-1)).toEqual({ kind: 'free', key: 'whip' })
    await user.keyboard('z')
    expect(edits()).toEqual([])
  })

  it('gives what everybody does more minutes or fewer, by key and by button, or leaves it out', async () => {
    const { asked } = await open()
    const warmUp = () => screen.getByRole('gridcell', { name: /^Warm-up/ })
    await user.click(warmUp())
    await user.click(chosen().getByRole('button', { name: 'Shorter' }))
    expect(editsOf(asked).at(-1)).toEqual({ kind: 'everybody', does: 'warmUp', minutes: 9 })
    await screen.findByText(/was fixed/)
    warmUp().focus()
    await user.keyboard('+')
    expect(editsOf(asked).at(-1)).toEqual({ kind: 'everybody', does: 'warmUp', minutes: 11 })
    await user.click(chosen().getByRole('button', { name: 'Not tonight' }))
    expect(editsOf(asked).at(-1)).toEqual({ kind: 'everybody', does: 'warmUp', minutes: 0 })
  })

  it('offers what many share, and the difference to whoever learned something before it was changed', async () => {
    const offer = (key: string, what: string, minutes: number, changedSince: string | null) => ({
      ...{
        cohort: 'Fern',
        have: 3,
        observed: 5,
        changedSince,
        way: changedSince ? '' : 'By counts; at the wall',
        givesWay: [],
      },
      task: { key, kind: 'reTeach', cohortIds: ['fern-group'], minutes, what, because: '', material: [] },
    })
    const { asked } = await open(sheet, arrangement, {
      [`GET ${address}/arrangement/re-teach`]: {
        body: [
          offer('re-teach', 'Press: the elbow lifts', 5, null),
          offer('relearn', 'Push: the heel stays down', 2, '2026-11-10'),
        ],
      },
    })
    const offers = within(await screen.findByRole('region', { name: 'To teach again' }))
    offers.getByText(/Press: the elbow lifts, 3 of 5\. By counts; at the wall\./)
    offers.getByText(/Push: the heel stays down, done so since 10 November; 3 of 5 learned it before\./)
    await user.click(offers.getByRole('button', { name: 'Teach the difference, 2 min' }))
    expect(editsOf(asked)).toMatchObject([{ kind: 'add', task: { key: 'relearn', minutes: 2 } }])
  })

  it('says who comes before class and what for, and takes it back', async () => {
    const makesUp = {
      ...{ kind: 'makesUp' as const, id: 'booked', students: ['dai'], postureId: 'press', side: 'left' as const },
      ...{ from: null, teacherId: 'jonas', minutes: 10 },
    }
    const { asked } = await open(sheet, {
      ...arrangement,
      edits: [makesUp],
      beforeClass: [
        {
          ...{ id: 'booked', studentIds: ['dai'], students: ['Dai Y.'], postureId: 'press', side: 'left', from: null },
          ...{ what: 'Press, left', teacherId: 'jonas', teacher: 'Jonas Lindqvist', minutes: 10 },
        },
      ],
    })
    const before = within(screen.getAllByRole('region', { name: 'Before class' })[0]!)
    before.getByText(/^18:20 Jonas Lindqvist with Dai Y\.: Press, left\./)
    await user.click(before.getByRole('button', { name: 'Take it back' }))
    expect(editsOf(asked)).toEqual([])
  })

  it('is arranged without whoever is ill', async () => {
    const { asked } = await open()
    await user.click(await screen.findByRole('button', { name: 'without Jonas' }))
    expect(editsOf(asked)).toEqual([
      {
        kind: 'teacher',
        who: { id: 'jonas', name: 'Jonas Lindqvist', leadsEverything: true, level: null, from: 0, until: 0 },
      },
    ])
  })

  it('does not wait for what is still being tried for the lesson as it was', async () => {
    const says = 'Fern: Single Whip, left has no room (8 minutes).'
    const { asked } = await open(
      sheet,
      { ...arrangement, shortfalls: [{ cohortId: 'fern-group', task: 'whip', minutes: 8, says }] },
      { [`GET ${address}/arrangement/ways-out`]: () => new Promise<never>(() => {}) },
    )
    await user.click(await screen.findByRole('button', { name: 'What would help?' }))
    await screen.findByText(/Trying what would help/)
    const trying = vi
      .mocked(fetch)
      .mock.calls.map(([request]) => request as Request)
      .find(({ url }) => url.endsWith('ways-out'))!
    expect(trying.signal.aborted).toBe(false)
    await user.click(screen.getByRole('button', { name: 'without Jonas' }))
    expect(trying.signal.aborted).toBe(true)
    expect(editsOf(asked)).toHaveLength(1)
  })

  it('has a focus, chosen among the principles of the school', async () => {
    const { asked } = await open(sheet, arrangement, {
      'GET /api/principles': {
        body: [{ id: 'knees', text: { name: 'Knee over foot', keyPoint: '', faults: [] }, version: 1 }],
      },
    })
    await user.click(screen.getByRole('button', { name: 'Something else is otherwise' }))
    await user.click(await screen.findByRole('combobox', { name: 'Above all' }))
    await user.click(await screen.findByRole('option', { name: 'Knee over foot' }))
    expect(editsOf(asked)).toEqual([{ kind: 'focus', principleId: 'knees', name: 'Knee over foot' }])
  })

  it('leads to where it is given another hall, time or day', async () => {
    await open()
    await user.click(screen.getByRole('button', { name: 'Something else is otherwise' }))
    expect(screen.getByRole('link', { name: 'Another hall, time or day' }).getAttribute('href')).toBe(
      '/term/evening?lesson=2026-12-01',
    )
  })

  it('says what has no room, and leaves it for another lesson in one press', async () => {
    const { asked } = await open(sheet, {
      ...arrangement,
      shortfalls: [
        { cohortId: 'fern-group', task: 'whip', minutes: 8, says: 'Fern: Single Whip, left has no room (8 minutes).' },
        { cohortId: 'fern-group', task: null, minutes: 12, says: 'Fern would be 12 minutes without a teacher’s eye.' },
      ],
    })
    const note = await screen.findByText('Not everything can be kept.')
    expect(within(note.parentElement!).getByRole('button', { name: 'Allow 12 min tonight' })).toBeTruthy()
    await user.click(within(note.parentElement!).getByRole('button', { name: 'Leave it for another lesson' }))
    expect(editsOf(asked)).toEqual([{ kind: 'takeOut', key: 'whip' }])
  })

  it('reads three of many at once, and leaves all of them for another lesson in one press', async () => {
    const { asked } = await open(sheet, {
      ...arrangement,
      shortfalls: ['whip', 'press', 'push', 'roll', 'ward'].map((task) => ({
        cohortId: 'fern-group',
        task,
        minutes: 2,
        says: `Fern: ${task} has no room (2 minutes).`,
      })),
    })
    const note = within((await screen.findByText('Not everything can be kept.')).parentElement!)
    expect(note.getAllByRole('listitem')).toHaveLength(3)
    await user.click(note.getByRole('button', { name: 'and 2 more' }))
    expect(note.getAllByRole('listitem')).toHaveLength(5)
    await user.click(note.getByRole('button', { name: 'Leave all 5 for another lesson' }))
    expect(editsOf(asked)).toHaveLength(5)
  })

  it('has whoever was ill back, whatever was done since', async () => {
    const ill: Schema['LessonEdit'] = {
      kind: 'teacher',
      who: { id: 'jonas', name: 'Jonas Lindqvist', leadsEverything: true, level: null, from: 0, until: 0 },
    }
    const later: Schema['LessonEdit'] = { kind: 'takeOut', key: 'press' }
    const { asked } = await open(sheet, {
      ...arrangement,
      teachers: arrangement.teachers.filter((teacher) => teacher.id !== 'jonas'),
      edits: [ill, later],
      version: 1,
    })
    await user.click(await screen.findByRole('button', { name: 'Jonas is there after all' }))
    expect(editsOf(asked)).toEqual([later])
  })

  it('says who looks at whom when and why, and makes room for whoever finds no look', async () => {
    const { asked } = await open()
    const watch = within((await screen.findByRole('heading', { name: 'Whom to watch' })).closest('section')!)
    expect(watch.getAllByRole('listitem').map((item) => item.textContent)).toEqual([
      '18:40NoorImke R. in Single Whip, left, second look',
      '18:55NoorPer D. in Single Whip, left, seen 7 days ago',
    ])
    expect(chosen().getByText('Watch Imke R. (second look) in Single Whip, left.')).toBeTruthy()
    expect(watch.getByText('Nobody looks tonight at Ilse B., Bernd H.:')).toBeTruthy()
    await user.click(watch.getByRole('button', { name: 'Watch Fern for 2 min' }))
    expect(editsOf(asked)).toMatchObject([
      { kind: 'add', task: { kind: 'watch', cohortIds: ['fern-group'], minutes: 2, what: 'Ilse B., Bernd H.' } },
    ])
  })

  it('prints for whoever stands in who is who, the counts, and who does it otherwise', async () => {
    await open()
    const paper = () => document.querySelector('article')!.textContent
    expect(paper()).toContain('Otherwise: Goran V. leaves out the kick')
    await user.click(screen.getByRole('combobox', { name: 'Whose sheet is printed' }))
    await user.click(await screen.findByRole('option', { name: 'Sheet for Noor' }))
    expect(paper()).toContain('Goran V.: left out until it is settled how. Watch Imke R. (second look) in Single Whip')
    expect(paper()).toContain('ankles and knees 6 · Weight Shifting 4')
    expect(paper()).not.toContain('Otherwise')
    expect(paper()).not.toContain('by themselves')
    await user.click(screen.getByRole('combobox', { name: 'Whose sheet is printed' }))
    await user.click(await screen.findByRole('option', { name: 'Sheet for who stands in for Noor' }))
    expect(paper()).toContain('Fern: Imke R., Per D. · by themselves: Press, right')
  })

  it('says who must not be left alone, and what is still to be settled', async () => {
    await open()
    const people = (await screen.findByRole('heading', { name: 'For these people' })).closest('section')!
    expect(people.textContent).toContain('Rail group has somebody beside it all lesson.')
    expect(people.textContent).toContain('Nobody turns on a knee that hurts.')
    expect(within(people).getByRole('link', { name: 'Settle it' }).getAttribute('href')).toBe('/people?view=safety')
    expect(screen.queryByRole('link', { name: 'Mark this lesson' })).toBeNull()
  })

  it('leads to planning when it is not planned', async () => {
    await open({ ...sheet, planned: false, cohorts: [] })
    expect(screen.getByRole('link', { name: 'Plan the term' }).getAttribute('href')).toBe('/term/evening')
  })
})
