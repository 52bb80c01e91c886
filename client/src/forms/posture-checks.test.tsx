import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import type { Schema } from '../api/client'
import type { Counted, Engine, PostureFinding, Seen } from '../engine/engine'
import { AskedOf } from './AskedOf'
import { HandHandles, HandPanel } from './HandsOnFigure'
import { PostureFindings, mended } from './PostureFindings'
import { withPicture, type Count } from './data'
import { emptyCount } from './empty-posture'

const finding: PostureFinding = {
  rule: 'handBeyondReach',
  severity: 'error',
  count: 2,
  message: 'The right hand would have to reach 8 cm farther than its arm.',
  mends: [{ label: 'Reach less far: bent', edits: [{ count: 2, feet: '', body: 'R shoulder own bent' }] }],
}

describe('what the checks find in a posture', () => {
  const show = (count: number, ways: Schema['OurWay'][] = []) => {
    const [keep, mend] = [vi.fn<(ways: Schema['OurWay'][]) => void>(), vi.fn()]
    render(
      <PostureFindings findings={[finding]} count={count} mode="standing" ourWays={ways} keep={keep} mend={mend} />,
    )
    return { keep, mend, user: userEvent.setup() }
  }

  it('stands at its own count and is mended with one press', async () => {
    const { mend, user } = show(2)
    await user.click(screen.getByRole('button', { name: 'Reach less far: bent' }))
    expect(mend).toHaveBeenCalledWith(finding.mends[0]!.edits)
  })

  it('is not said at another count', () => {
    show(1)
    expect(screen.queryByRole('note')).toBeNull()
  })

  it('is kept as the school’s way with a reason only, and checked again', async () => {
    const { keep, user } = show(2)
    await user.click(screen.getByRole('button', { name: 'Keep it as our way' }))
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).disabled).toBe(true)
    await user.type(screen.getByLabelText('Why this is the school’s way'), 'Long arms here.')
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    const kept = { rule: 'handBeyondReach', mode: 'standing', count: 2, reason: 'Long arms here.' } as const
    expect(keep).toHaveBeenCalledWith([kept])
  })

  it('says the reason where it is kept, in this mode and count', async () => {
    const way = { rule: 'handBeyondReach', mode: 'standing', count: 2, reason: 'Long arms here.' } as const
    const other = { ...way, count: 3 }
    const { keep, user } = show(2, [way, other])
    expect(screen.getByRole('note').textContent).toContain('Kept as our way')
    await user.click(screen.getByRole('button', { name: 'Check it again' }))
    expect(keep).toHaveBeenCalledWith([other])
  })

  it('has one count in small pictures, or none', () => {
    const shown = (counts: Count[]) => counts.map(({ pictured }) => pictured)
    const two = withPicture([emptyCount, emptyCount, emptyCount], 1, true)
    expect(shown(two)).toEqual([false, true, false])
    expect(shown(withPicture(two, 2, true))).toEqual([false, false, true])
    expect(shown(withPicture(two, 1, false))).toEqual([false, false, false])
  })

  it('writes only what a mend writes', () => {
    const counts = [
      { ...emptyCount, feet: 'L 60%', body: 'L chest own bent' },
      { ...emptyCount, feet: 'R 60%', body: 'R shoulder own long' },
    ]
    expect(mended(counts, finding.mends[0]!.edits)).toEqual([counts[0], { ...counts[1], body: 'R shoulder own bent' }])
  })
})

describe('what a posture asks of a body', () => {
  function Asked({ known = true }: { known?: boolean }) {
    const [added, setAdded] = useState<Schema['Demand'][]>(['deepBend'])
    const [off, setOff] = useState<Schema['NotAsked'][]>([])
    return (
      <AskedOf
        label="What it asks of a body"
        asks={{ known, asks: [{ demand: 'trunkTwist', count: 1, because: 'the chest turns 30° against the pelvis' }] }}
        added={added}
        takenOff={off}
        onChange={(demands, not) => {
          setAdded(demands)
          setOff(not)
        }}
      />
    )
  }

  it('says why, and takes one off with a reason that is kept', async () => {
    const user = userEvent.setup()
    render(<Asked />)
    expect(screen.getByText(/the chest turns 30° against the pelvis, count 1/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'It does not ask for trunk twist' }))
    await user.type(screen.getByLabelText('Why it does not ask for trunk twist'), 'from the hips{Enter}')
    expect(screen.getByText(/not asked: “from the hips”/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Ask it again' }))
    expect(screen.queryByText(/from the hips/)).toBeNull()
  })

  it('lets what was added by hand be taken out', async () => {
    const user = userEvent.setup()
    render(<Asked />)
    await user.click(screen.getByRole('button', { name: 'Take it out' }))
    expect(screen.queryByText('deep bend')).toBeNull()
  })

  it('says that it is not known, and what follows from that', () => {
    render(<Asked known={false} />)
    expect(screen.getByRole('note').textContent).toContain('nobody with limits is given it')
  })
})

describe('hands on a figure', () => {
  const of: Counted = {
    entry: '',
    start: '',
    feet: [''],
    bodies: ['R chest own bent'],
    mode: 'standing',
    rail: '',
    pivotOnBall: false,
  }
  const seen = (view: Seen['view'], mirrored = false): Seen => ({ view, turned: 0, mirrored, sash: '', night: false })
  const stage = (view: Seen['view'], mirrored = false) => {
    const nudgeHand = vi.fn<Engine['nudgeHand']>(() => 'moved')
    const engine = {
      body: { read: () => ({ says: 'right hand at chest height', printed: '', problems: [] }), complete: () => [] },
      handsAt: () => [
        { x: 0, y: 0 },
        { x: 40, y: 0 },
      ],
      nudgeHand,
      handSaid: () => ({ palm: 'front', fingers: '', shape: 'palm', elbow: 'down', holds: 'nothing' }),
      sayOfHand: (text: string, hand: number, detail: string) => `${text}|${hand}|${detail}`,
    } as unknown as Engine
    const change = vi.fn<(text: string) => void>()
    const props = {
      engine,
      of,
      count: 1,
      seen: seen(view, mirrored),
      chosen: 1 as const,
      choose: () => undefined,
      text: 'R chest own bent',
      change,
    }
    render(
      <>
        <svg>
          <HandHandles {...props} />
        </svg>
        <HandPanel {...props} />
      </>,
    )
    return { change, nudgeHand, user: userEvent.setup() }
  }

  it.each([
    ['front', false, 'ArrowUp', { up: 1 }],
    ['front', false, 'ArrowLeft', { outwards: 1 }],
    ['front', true, 'ArrowRight', { outwards: 1 }],
    ['behind', false, 'ArrowRight', { outwards: 1 }],
    ['right', false, 'ArrowRight', { ahead: 1 }],
    ['left', false, 'ArrowRight', { ahead: -1 }],
    ['above', false, 'ArrowUp', { ahead: 1 }],
  ] as const)('from %s (mirrored: %s) %s moves the right hand as it looks', async (view, mirrored, key, by) => {
    const { nudgeHand, change, user } = stage(view, mirrored)
    screen.getByRole('slider', { name: 'Right hand, in the picture' }).focus()
    await user.keyboard(`{${key}}`)
    expect(nudgeHand).toHaveBeenCalledWith(of, 1, 1, by)
    expect(change).toHaveBeenCalledWith('moved')
  })

  it('shows how the chosen hand is, and no one way for a corner between two', () => {
    stage('front')
    const pressed = screen.getAllByRole('button', { pressed: true }).map((button) => button.textContent)
    expect(pressed).toEqual(['Front', 'Palm', 'Down'])
  })

  it('turns the palm of the chosen hand with one press', async () => {
    const { change, user } = stage('front')
    await user.click(screen.getAllByRole('button', { name: 'Fist' })[0]!)
    expect(change).toHaveBeenCalledWith('R chest own bent|1|fist')
  })
})
