import { describe, expect, it } from 'vitest'
import { middleOf, soleTransform, standBetween, standOf, START_FRAME, turnBetween } from './floor'

const frame = (left: [number, number, number, number], right: [number, number, number, number], hips = 0) => [
  left[0],
  left[1],
  left[2],
  0,
  left[3],
  right[0],
  right[1],
  right[2],
  0,
  right[3],
  hips,
  0,
  0,
  50,
]

describe('a turn', () => {
  it('goes the shorter way round', () => {
    for (let from = 0; from < 360; from += 15)
      for (let to = 0; to < 360; to += 15) {
        const turn = turnBetween(from, to)
        expect((((from + turn - to) % 360) + 360) % 360).toBe(0)
        expect(Math.abs(turn)).toBeLessThanOrEqual(180)
      }
  })

  it('over the top of the dial does not go all the way back', () =>
    expect([turnBetween(350, 10), turnBetween(10, 350), turnBetween(0, 180)]).toEqual([20, -20, 180]))
})

describe('a stand on the way', () => {
  const from = standOf(frame([0, 0, 350, 0], [1, 0, 0, 100], 350))
  const to = standOf(frame([0, 3, 10, 70], [1, 0, 45, 30], 10))

  it('begins where it was and ends where it arrives', () => {
    expect(standBetween(from, to, 0)).toMatchObject({ left: from.left, right: from.right, hips: from.hips })
    expect(standBetween(from, to, 1)).toBe(to)
  })

  it('has both feet carry everything between them at every moment', () => {
    for (let part = 0; part <= 1; part += 0.1) {
      const between = standBetween(from, to, part)
      expect(between.left.load + between.right.load).toBeCloseTo(100)
    }
  })

  it('turns through straight ahead, not through the back', () => {
    const half = standBetween(from, to, 0.5)
    expect([turnBetween(0, half.left.toes), turnBetween(0, half.hips), half.left.ahead]).toEqual([0, 0, 1.5])
  })

  it('keeps a foot in the air until it is down', () => {
    const lifted = { ...from, left: { ...from.left, contact: 4 } }
    expect(standBetween(lifted, to, 0.9).left.contact).toBe(4)
    expect(standBetween(lifted, to, 1).left.contact).toBe(0)
  })
})

describe('a sole', () => {
  it('is placed by its heel, toes up, one foot-length long', () => {
    expect(soleTransform(standOf(START_FRAME).left)).toBe(
      'translate(-0.200 0.000) rotate(0.0) scale(0.025) translate(-12.5 -33)',
    )
    expect(middleOf(standOf(START_FRAME))).toEqual({ right: 0, ahead: 0 })
  })
})
