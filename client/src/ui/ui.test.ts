import { describe, expect, it } from 'vitest'
import { readProblem } from '../api/problem'
import { readable } from './colour'
import { newId } from './new-id'
import { shortPosture, shortPostures } from './words'

function luminance(colour: string): number {
  const part = (at: number) => {
    const value = parseInt(colour.slice(at, at + 2), 16) / 255
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4
  }
  return 0.2126 * part(1) + 0.7152 * part(3) + 0.0722 * part(5)
}

describe('chips', () => {
  it('read at small sizes in whatever colour a school gives a sash', () => {
    for (let at = 0; at < 4096; at += 7) {
      const colour =
        '#' + [at >> 8, (at >> 4) & 15, at & 15].map((nibble) => (nibble * 17).toString(16).padStart(2, '0')).join('')
      const { background, color } = readable(colour)
      const [light, dark] = [luminance(background), luminance(color)].toSorted((a, b) => b - a) as [number, number]
      expect((light + 0.05) / (dark + 0.05), colour).toBeGreaterThanOrEqual(4.5)
    }
  })
})

describe('words', () => {
  it('shorten a side to a letter', () =>
    expect(['Brush Knee, left', 'Push, right', 'Cross Hands'].map(shortPosture)).toEqual([
      'Brush Knee L',
      'Push R',
      'Cross Hands',
    ]))

  it('say of a link where it comes from where two lead to the same', () =>
    expect(
      shortPostures([
        'Press, right → Push, right',
        'Push, right',
        'Crane, left → Knee, left',
        'Pipa, left → Knee, left',
      ]),
    ).toEqual(['→ Push R', 'Push R', 'Crane L → Knee L', 'Pipa L → Knee L']))
})

describe('identifiers', () => {
  it('are version 7, in order of time and never the same', () => {
    const made = Array.from({ length: 500 }, newId)
    expect(new Set(made).size).toBe(500)
    for (const id of made) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    expect(parseInt(made[0]!.replaceAll('-', '').slice(0, 12), 16)).toBeCloseTo(Date.now(), -4)
  })
})

describe('problems', () => {
  it('keep our own words, and never show those of something in between', () => {
    expect(
      readProblem(409, { type: 'urn:zeitplan:problem:stale', title: 'The form was changed.', changes: ['a'] }),
    ).toMatchObject({ message: 'The form was changed.', changes: ['a'] })
    expect(readProblem(502, '<html>').message).toBe('That did not work (502). Nothing was saved.')
    expect(readProblem(0, undefined).message).toContain('does not answer')
  })

  it('tell fields that are shown from those that are not', () => {
    const problem = readProblem(400, { errors: { name: ['Give a name.'], 'staffIds[1]': ['Taken.'] } })
    expect(problem.at('name')).toBe('Give a name.')
    expect(problem.others(['name'])).toEqual(['Taken.'])
  })
})
