/// <reference types="node" />
import { readFileSync } from 'node:fs'
import { render, screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { Sole, soleTiles } from './Sole'
import { SOLE_PATH } from './sole-path'

const read = (file: string) => readFileSync(new URL(file, import.meta.url), 'utf8')
const stages = ['notMet', 'shown', 'follows', 'alone', 'flowing', 'settled'] as const

describe('the soles', () => {
  it('each have a tile of their own, a fading one another than a fresh one', () => {
    const tiles = (['left', 'right'] as const).flatMap((side) =>
      stages.flatMap((stage) => [
        soleTiles({ stage, side }).sole,
        ...(stage === 'notMet' ? [] : [soleTiles({ stage, side, fading: true }).sole]),
        ...(stage === 'shown' || stage === 'alone' ? [soleTiles({ stage, side, takenOver: true }).sole] : []),
      ]),
    )
    expect(tiles.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 26 }, (_, at) => at))
    expect(
      (['keyPoint', 'shape', 'finesse'] as const).map(
        (correction) => soleTiles({ stage: 'alone', side: 'left', correction }).mark,
      ),
    ).toEqual([26, 27, 28])
  })

  it('stand in the picture where they are looked for: the right foot where the left one is mirrored to', () => {
    const picture = read('soles.svg')
    const named = [...picture.matchAll(/translate\((\d+) 4\)"><!-- ([\w ,]+) -->/g)].map(([, x, name]) => [
      (Number(x) - 4) / 34,
      name,
    ])
    for (const stage of stages) {
      const name = stage === 'notMet' ? 'not met' : stage
      expect(named).toContainEqual([soleTiles({ stage, side: 'left' }).sole, name])
      const mirrored = Number(picture.match(/translate\((\d+) 0\) scale\(-1 1\)/)![1])
      const right = soleTiles({ stage, side: 'right' }).sole
      expect(mirrored - 34 * soleTiles({ stage, side: 'left' }).sole - 28).toBe(34 * right + 4)
    }
    for (const stage of ['shown', 'alone'] as const)
      expect(named).toContainEqual([soleTiles({ stage, side: 'left', takenOver: true }).sole, `${stage}, taken over`])
    expect(named.slice(-3)).toEqual([
      [26, 'key point'],
      [27, 'shape'],
      [28, 'finesse'],
    ])
  })

  it('are drawn in the colours and the outline of everything else', () => {
    const picture = read('soles.svg')
    const tokens = [...read('../styles.css').matchAll(/--color-[\w-]+: (#[\da-f]{6});/g)].map(([, colour]) => colour)
    for (const [colour] of picture.matchAll(/#[\da-f]{6}/g)) expect(tokens).toContain(colour)
    expect(picture).toContain(`d="${SOLE_PATH}"`)
  })

  it('say what they show', () => {
    render(<Sole stage="flowing" side="left" fading correction="keyPoint" of="Imke R., Single Whip, left" />)
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'Imke R., Single Whip, left: flowing, fading: correction: key point',
    )
    render(<Sole stage="alone" side="left" takenOver of="Goran V., Press, left" />)
    expect(screen.getByRole('img', { name: 'Goran V., Press, left: alone, taken over' })).toBeTruthy()
  })
})
