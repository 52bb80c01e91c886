import { act, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useRef } from 'react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { FloorHandle } from './FloorStage'
import { PlayerBar } from './PlayerBar'
import { usePlayer, type PlayedBeat } from './use-player'

const frame = (at: number) => Array.from({ length: 14 }, () => at)
const beats: PlayedBeat[] = [1, 2, 3].map((count) => ({ at: 0, count, frames: [frame(count - 0.5), frame(count)] }))

const shown = vi.fn()

function Played() {
  const stage = useRef<FloorHandle>({ show: shown } as unknown as FloorHandle)
  const player = usePlayer(frame(0), beats, stage)
  return (
    <>
      <PlayerBar {...player} beats={beats.length} says={player.beat < 0 ? 'the start' : `count ${player.beat + 1}`} />
      <p>frame {player.frame[0]}</p>
    </>
  )
}

describe('playing count by count', () => {
  let now = 0
  let next: FrameRequestCallback | undefined
  beforeEach(() => {
    now = 0
    shown.mockClear()
    vi.spyOn(window, 'requestAnimationFrame').mockImplementation((callback) => {
      next = callback
      return 1
    })
    vi.spyOn(window, 'cancelAnimationFrame').mockImplementation(() => {
      next = undefined
    })
    vi.spyOn(window, 'matchMedia').mockReturnValue({
      matches: false,
      addEventListener: vi.fn(),
      removeEventListener: vi.fn(),
    } as unknown as MediaQueryList)
  })

  /** So many seconds pass, a frame at a time. */
  const pass = (seconds: number) => {
    for (let left = seconds; left > 0; left -= 0.05) {
      now += 50
      const step = next
      next = undefined
      act(() => step?.(now))
    }
  }

  it('goes from count to count at its tempo, and stops at the end', async () => {
    render(<Played />)
    await userEvent.click(screen.getByText('Play'))
    pass(2.3)
    expect(screen.getByText('count 1')).toBeTruthy()
    pass(4.5)
    expect(screen.getByText('count 3')).toBeTruthy()
    expect(screen.getByText('Play')).toBeTruthy()
    expect(shown.mock.calls.length).toBeGreaterThan(60)
  })

  it('pauses where it is and goes on from there', async () => {
    render(<Played />)
    await userEvent.click(screen.getByText('Play'))
    pass(2.3)
    await userEvent.click(screen.getByText('Pause'))
    pass(5)
    expect(screen.getByText('count 1')).toBeTruthy()
    await userEvent.click(screen.getByText('Play'))
    pass(2.3)
    expect(screen.getByText('count 2')).toBeTruthy()
  })

  it('begins again when it is played at its end', async () => {
    render(<Played />)
    screen.getByRole('slider', { name: 'Count' }).focus()
    await userEvent.keyboard('{End}')
    expect(screen.getByText('frame 3')).toBeTruthy()
    await userEvent.click(screen.getByText('Play'))
    pass(2.3)
    expect(screen.getByText('count 1')).toBeTruthy()
  })

  it('is stepped by count, back and on, and stays within its ends', async () => {
    render(<Played />)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'One count back' }).disabled).toBe(true)
    await userEvent.click(screen.getByRole('button', { name: 'One count on' }))
    await userEvent.click(screen.getByRole('button', { name: 'One count on' }))
    expect(screen.getByText('frame 2')).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'One count back' }))
    expect(screen.getByText('frame 1')).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'To the start' }))
    expect(screen.getByText('the start')).toBeTruthy()
  })

  it('moves nothing in between for whoever wants less motion, and still comes to every count', async () => {
    vi.spyOn(window, 'matchMedia').mockReturnValue({ matches: true } as MediaQueryList)
    render(<Played />)
    await userEvent.click(screen.getByText('Play'))
    pass(2.3)
    expect(screen.getByText('count 1')).toBeTruthy()
    expect(shown).not.toHaveBeenCalled()
  })
})
