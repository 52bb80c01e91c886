import { describe, expect, it } from 'vitest'
import { readDate, readNumber, readTime } from './dates'
import { fieldDate } from './words'

describe('dates', () => {
  it.each([
    ['24 November 2026', '2026-11-24'],
    ['Tuesday 24 November 2026', '2026-11-24'],
    ['24 nov 26', '2026-11-24'],
    ['24.11.2026', '2026-11-24'],
    ['24/11/2026', '2026-11-24'],
    ['1st Dec 2026', '2026-12-01'],
    ['2026-11-24', '2026-11-24'],
    ['5 Jan', '2027-01-05'],
    ['5.1.', '2027-01-05'],
  ])('%s', (written, read) => expect(readDate(written, '2026-11-24')).toBe(read))

  it.each(['', '24', '31.2.2026', '29 Feb 2027', 'tomorrow', '24 Smarch', '24.11.2026.1', '1 2 3 4', '2026-13-01'])(
    '%s is none',
    (written) => expect(readDate(written, '2026-11-24')).toBeUndefined(),
  )

  it('reads back every date it writes', () => {
    for (let day = 0; day < 800; day += 3) {
      const date = new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10)
      expect(readDate(fieldDate(date), '2000-01-01')).toBe(date)
    }
  })
})

describe('times', () => {
  it.each([
    ['18:30', '18:30:00'],
    ['18.30', '18:30:00'],
    ['1830', '18:30:00'],
    ['7', '07:00:00'],
    ['6:30 pm', '18:30:00'],
    ['12 am', '00:00:00'],
    ['12 pm', '12:00:00'],
  ])('%s', (written, read) => expect(readTime(written)).toBe(read))

  it.each(['', '24:00', '18:60', '13 pm', 'noon', '18:3'])('%s is none', (written) =>
    expect(readTime(written)).toBeUndefined(),
  )
})

describe('numbers', () => {
  it('take a point or a comma, nothing is null, and words are none', () => {
    expect(['3', '3,5', ' 4.25 ', '-1', '.5', '', 'x', '3,5,1'].map(readNumber)).toEqual([
      3,
      3.5,
      4.25,
      -1,
      0.5,
      null,
      undefined,
      undefined,
    ])
  })
})
