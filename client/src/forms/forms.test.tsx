import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { answers, jonas, noor, position, postureItem, press } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import type { Form, FormText } from './data'
import { FormsScreen } from './FormsScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const area = { left: 1, back: 1, right: 1, front: 1, width: 2, depth: 2 }
const need: Schema['FloorNeed'] = { feet: area, reach: area, travelled: 3, fromHome: 0.4 }

/** The form with everything the server says about it. */
const formOf = (text: FormText, version: number, findings: Schema['Finding'][] = []): Form => ({
  id: 'lantern',
  text,
  version,
  derivation: null,
  study: {
    positions: text.positions.map((one, at) => ({
      id: one.id,
      name: `Press ${one.id}, ${one.side}`,
      number: String(at + 1),
      facingSaid: '12 o’clock',
      isRepeat: false,
      diagonal: 0,
      counts: 2,
      seconds: 8,
      demands: [],
      link: null,
    })),
    analysis: {
      positions: text.positions.length,
      postures: 1,
      links: 0,
      bothSides: 0,
      repeated: 0,
      runThroughSeconds: 24,
      homeTurn: 0,
      demands: [],
    },
    findings,
    floor: { start: [0, 0, 0, 0.5, 1, 0, 0, 0.5], beats: [], need },
    sections: text.sections.map(({ id }) => ({ id, need })),
    cues: [],
  },
})
const text: FormText = {
  name: 'Lantern Form',
  sections: [{ id: 'one', name: 'Section one' }],
  positions: [position('a'), position('b', { side: 'right' }), position('c')],
  parentId: null,
  segments: [],
  accepted: [],
}

async function open({ as = noor, at = '/forms', first = formOf(text, 7) } = {}) {
  let kept = first
  const server = serve({
    ...answers,
    'GET /api/forms': { body: [{ id: 'lantern', name: 'Lantern Form', positions: 3, parentId: null }] },
    'GET /api/postures': { body: [postureItem('press', 'Press')] },
    'GET /api/postures/press': { body: press },
    'GET /api/forms/lantern': () => ({ body: kept }),
    'PUT /api/forms/lantern': (body) => {
      const { text: sent, version } = body as { text: FormText; version: number }
      if (version !== kept.version) return { status: 409, body: refusal('The form was changed meanwhile.') }
      kept = formOf(sent, kept.version + 1)
      return { body: kept }
    },
  })
  const drawn = draw(
    <Routes>
      <Route path="/forms/:formId?" element={<FormsScreen />} />
      <Route path="*" element={null} />
    </Routes>,
    { at, as },
  )
  await screen.findByRole('heading', { name: 'Lantern Form' })
  return {
    ...server,
    ...drawn,
    kept: () => kept.text,
    /** Somebody else saves, and this screen reads it. */
    theirs: async (change: (now: FormText) => FormText) => {
      kept = formOf(change(kept.text), kept.version + 1)
      await drawn.queries.invalidateQueries({ queryKey: ['form'] })
    },
  }
}
const ids = (now: FormText) => now.positions.map(({ id }) => id).join('')
const row = (name: RegExp) => screen.getByRole('button', { name })

describe('a form', () => {
  it('is changed in place, each change on top of the one before, and taken back in order', async () => {
    const { kept } = await open({ at: '/forms?position=a&open=1' })
    await user.click(await screen.findByRole('button', { name: 'Move down' }))
    await user.click(screen.getByRole('button', { name: /^Do it on the right/ }))
    await waitFor(() =>
      expect(kept().positions.map(({ id, side }) => `${id} ${side}`)).toEqual(['b right', 'a right', 'c left']),
    )
    await user.click(await screen.findByRole('button', { name: /^Undo mirroring Press a, left/ }))
    await waitFor(() => expect(kept().positions[1]!.side).toBe('left'))
    await user.click(await screen.findByRole('button', { name: /^Undo moving/ }))
    await waitFor(() => expect(ids(kept())).toBe('abc'))
  })

  it('keeps what somebody else saved: when a change is made, and when it is taken back', async () => {
    const { kept, theirs } = await open({ at: '/forms?position=a' })
    row(/Press a, left/).focus()
    await theirs((now) => ({ ...now, name: 'Lamp Form' }))
    await screen.findByRole('heading', { name: 'Lamp Form' })
    await user.keyboard('m')
    await waitFor(() => expect(kept().positions[0]!.side).toBe('right'))
    expect(kept().name).toBe('Lamp Form')
    await theirs((now) => ({
      ...now,
      positions: now.positions.map((one) => (one.id === 'c' ? { ...one, note: 'theirs' } : one)),
    }))
    await user.keyboard('z')
    await waitFor(() => expect(kept().positions[0]!.side).toBe('left'))
    expect(kept().positions[2]!.note).toBe('theirs')
    expect(kept().name).toBe('Lamp Form')
  })

  it('says why a change was refused, and stays as it was', async () => {
    const { answer, kept } = await open({ at: '/forms?position=a&open=1' })
    answer['PUT /api/forms/lantern'] = { status: 400, body: refusal('A form needs a position.') }
    await user.click(await screen.findByRole('button', { name: 'Take it out' }))
    await screen.findByText('A form needs a position.')
    expect(ids(kept())).toBe('abc')
    expect(row(/Press a, left/)).toBeTruthy()
    expect(screen.getByRole('button', { name: /^Undo/ }).hasAttribute('disabled')).toBe(true)
  })

  it('asks before half-typed words go with the panel', async () => {
    await open({ at: '/forms?position=a&open=1' })
    await user.type(await screen.findByLabelText('Way in, from where the position before ends'), 'L shift 60')
    await user.click(screen.getByRole('button', { name: 'Close' }))
    const question = await screen.findByRole('alertdialog')
    expect(question.textContent).toContain('the way into Press a, left')
    await user.click(within(question).getByRole('button', { name: 'Keep writing' }))
    expect(screen.getByLabelText<HTMLInputElement>('Way in, from where the position before ends').value).toBe(
      'L shift 60',
    )
  })

  it('keeps half-typed words while another change is saved', async () => {
    const { kept } = await open({ at: '/forms?position=a&open=1' })
    const way = 'Way in, from where the position before ends'
    await user.type(await screen.findByLabelText(way), 'L shift 60')
    await user.click(screen.getByRole('button', { name: 'Move down' }))
    await waitFor(() => expect(ids(kept())).toBe('bac'))
    expect(screen.getByLabelText<HTMLInputElement>(way).value).toBe('L shift 60')
  })

  it('is walked with the arrows as one stop, and opened from the chosen position', async () => {
    const { router } = await open()
    row(/Press a, left/).focus()
    await user.keyboard('{ArrowDown}{ArrowDown}{Enter}')
    await waitFor(() => expect(router.state.location.search).toContain('position=c'))
    expect(row(/Press c, left/).getAttribute('aria-pressed')).toBe('true')
    await user.click(screen.getByRole('button', { name: 'Open' }))
    expect(await screen.findByRole('heading', { name: 'Press c, left' })).toBeTruthy()
  })

  it('says what disagrees where it does, and mends it with one press', async () => {
    const finding: Schema['Finding'] = {
      rule: 'facingSum',
      severity: 'error',
      positionId: 'b',
      count: null,
      foot: null,
      message: 'A turn of 90° leads to 3 o’clock; 12 o’clock is written.',
      mends: [{ label: 'Write 3 o’clock', turn: null, facing: 90, side: null, wayIn: null, wayInBody: null }],
      acceptedBecause: null,
    }
    const { kept } = await open({ first: formOf(text, 7, [finding]) })
    expect(screen.getByText('1 thing disagrees')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Write 3 o’clock' }))
    await waitFor(() => expect(kept().positions[1]!.facing).toBe(90))
  })

  it('is for an instructor to read', async () => {
    const { asked } = await open({ as: jonas, at: '/forms?position=a&open=1' })
    await screen.findByRole('heading', { name: 'Press a, left' })
    expect(screen.queryByRole('button', { name: /^Undo|Move down|Take it out|Rename/ })).toBeNull()
    await user.keyboard('m')
    expect(asked.filter(({ what }) => what.startsWith('PUT'))).toEqual([])
  })
})
