import { describe, expect, it } from 'vitest'
import type { FormText, Position } from './data'
import { position } from '../testing/heron-quay'
import { emptyForm, freeName } from './empty-form'
import { mergeForms } from './merge'

const base: FormText = { ...emptyForm('Lantern Form'), positions: ['a', 'b', 'c', 'd'].map((id) => position(id)) }
const edit = (text: FormText, id: string, part: Partial<Position>): FormText => ({
  ...text,
  positions: text.positions.map((one) => (one.id === id ? { ...one, ...part } : one)),
})
const ids = (text: FormText) => text.positions.map(({ id }) => id).join('')

describe('two changes of one form', () => {
  it('of different positions both stand', () => {
    const merged = mergeForms(base, edit(base, 'b', { note: 'ours' }), edit(base, 'c', { note: 'theirs' }))
    expect(merged.positions.map(({ note }) => note)).toEqual(['', 'ours', 'theirs', ''])
  })

  it('of different things both stand', () => {
    const merged = mergeForms(base, { ...base, name: 'Lamp Form' }, edit(base, 'a', { facing: 90 }))
    expect([merged.name, merged.positions[0]!.facing]).toEqual(['Lamp Form', 90])
  })

  it('what was added on both sides is there once, in its place', () => {
    const ours = { ...base, positions: base.positions.toSpliced(1, 0, position('x')) }
    const theirs = { ...base, positions: base.positions.toSpliced(3, 0, position('y')) }
    expect(ids(mergeForms(base, ours, theirs))).toBe('axbcyd')
  })

  it('what was taken out on either side is out, unless the other changed it', () => {
    const ours = { ...base, positions: base.positions.filter(({ id }) => id !== 'a') }
    const theirs = { ...base, positions: base.positions.filter(({ id }) => id !== 'd') }
    expect(ids(mergeForms(base, ours, theirs))).toBe('bc')
    expect(ids(mergeForms(base, edit(base, 'd', { note: 'kept' }), theirs))).toBe('abcd')
  })

  it('of the same position ours stands', () => {
    expect(
      mergeForms(base, edit(base, 'b', { note: 'ours' }), edit(base, 'b', { note: 'theirs' })).positions[1]!.note,
    ).toBe('ours')
  })

  it('nothing of ours leaves theirs, nothing of theirs leaves ours', () => {
    const other = edit(base, 'b', { note: 'x' })
    expect(mergeForms(base, base, other)).toEqual(other)
    expect(mergeForms(base, other, base)).toBe(other)
  })
})

it('a new thing has a name nothing else has', () => {
  expect(freeName('New form', [])).toBe('New form')
  expect(freeName('New form', ['New form', 'New form 2'])).toBe('New form 3')
})
