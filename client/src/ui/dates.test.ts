import { describe, expect, it } from 'vitest'
import { readDate, readNumber, readTime } from './dates'
import { fieldDate, longDate } from './words'
import { decimal, number, schoolWeek, writeAs, writing } from './writing'

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

  it.each([
    ['11/24/2026', '2026-11-24'],
    ['Nov 24', '2026-11-24'],
    ['November 24, 2026', '2026-11-24'],
    ['3/4/2027', '2027-03-04'],
    ['24 Nov 2026', '2026-11-24'],
    ['24/11/2026', '2026-11-24'],
  ])('%s where the month is written first', (written, read) =>
    expect(readDate(written, '2026-11-24', 'monthDayYear')).toBe(read),
  )

  it.each(['dayMonthYear', 'monthDayYear', 'yearMonthDay'] as const)('reads back every date it writes: %s', (dates) => {
    const before = writing()
    writeAs({ ...before, dates })
    for (let day = 0; day < 800; day += 3) {
      const date = new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10)
      expect(readDate(fieldDate(date), '2000-01-01', dates)).toBe(date)
    }
    writeAs(before)
  })

  it('are written as the school does, and so are numbers and weeks', () => {
    const before = writing()
    writeAs({ dates: 'monthDayYear', decimals: 'comma', weekStart: 'sunday' })
    expect([fieldDate('2026-11-24'), longDate('2026-11-24'), decimal(8.54), number(6.25), schoolWeek()[0]]).toEqual([
      'Nov 24, 2026',
      'Tuesday, November 24',
      '8,5',
      '6,25',
      'sunday',
    ])
    expect(readNumber(number(6.25))).toBe(6.25)
    writeAs(before)
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
