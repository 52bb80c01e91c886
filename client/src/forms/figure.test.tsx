import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { Engine, type Counted } from '../engine/engine'
import { pressText } from '../testing/heron-quay'
import { countedOf } from '../shared/counted'
import { FigureStrip, PostureFigure } from './PostureFigure'

/** Rules that draw one shape, named after what they were asked for. */
const drawn = vi.fn((...asked: unknown[]) =>
  ['0 0 10 10', `M${asked.slice(1, 6).join(' ')}`, '#111111', 'none', '0'].join('\n'),
)
const engine = new Engine({
  DrawFigure: drawn,
  ReadBody: (text: string) => [`says ${text}`],
  CompleteBody: () => [],
} as unknown as ConstructorParameters<typeof Engine>[0])
const of: Counted = {
  entry: '',
  start: '',
  feet: ['', ''],
  bodies: ['', ''],
  mode: 'standing',
  rail: '',
  pivotOnBall: false,
}
const path = () => document.querySelector('path')!.getAttribute('d')

describe('a figure', () => {
  it('is seen from the front first, and from wherever one asks', async () => {
    render(<PostureFigure engine={engine} of={of} count={2} part={1} says="both hands at chest height" />)
    screen.getByRole('img', { name: 'Count 2, seen from the front: both hands at chest height' })
    expect(path()).toBe('M2 1 front 0 false')
    await userEvent.click(screen.getByRole('radio', { name: 'Behind' }))
    expect(path()).toBe('M2 1 behind 0 false')
    await userEvent.click(screen.getByRole('radio', { name: 'Above' }))
    expect(path()).toBe('M2 1 above 0 false')
    await userEvent.click(screen.getByRole('checkbox', { name: 'in a mirror' }))
    expect(path()).toBe('M2 1 above 0 true')
  })

  it('follows the count that is played, a part of it at a time', () => {
    const { rerender } = render(<PostureFigure engine={engine} of={of} count={1} part={0.25} says="" />)
    expect(path()).toBe('M1 0.25 front 0 false')
    rerender(<PostureFigure engine={engine} of={of} count={1} part={0.5} says="" />)
    expect(path()).toBe('M1 0.5 front 0 false')
  })

  it('stands in a row for every count, where it starts first, and one is chosen', async () => {
    const choose = vi.fn()
    render(<FigureStrip engine={engine} of={of} chosen={2} choose={choose} />)
    expect(screen.getAllByRole('button').map((button) => button.textContent)).toEqual(['start', '1', '2'])
    expect(screen.getByRole('button', { name: /^count 2/ }).getAttribute('aria-pressed')).toBe('true')
    await userEvent.click(screen.getByRole('button', { name: /^where it starts/ }))
    expect(choose).toHaveBeenCalledWith(0)
  })

  it('is drawn of a version with what steadies it', () => {
    const version = { mode: 'supported', start: 'L hold rail', rail: 'left', counts: pressText.counts } as never
    expect(countedOf(pressText, version, true)).toMatchObject({ mode: 'supported', rail: 'left', start: 'L hold rail' })
    expect(countedOf(pressText, undefined, false)).toMatchObject({ mode: 'standing', rail: '' })
  })
})
