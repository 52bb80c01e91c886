import { describe, expect, it } from 'vitest'
import type { ArrangedBlock, Arrangement, LessonEdit } from '../arranging'
import { blockAt, cohortOf, nextOf, repetitions, timeLeft, visitIn } from './hall'
import { longer, lost, over, pausedIn, swapped, withEdit } from './happening'

const block = (start: number, end: number, rest: Partial<ArrangedBlock>): ArrangedBlock => ({
  start,
  end,
  cohortId: 'copper',
  kind: 'review',
  what: 'Press, right',
  ledBy: 'noor',
  with: [],
  because: '',
  task: null,
  fixed: false,
  material: [],
  pieces: [],
  pairs: null,
  ...rest,
})

const press = block(10, 16, { task: 'press' })
const push = block(24, 30, { task: 'push', what: 'Push, right' })
const practice = block(16, 24, { kind: 'ownPractice', ledBy: null, what: 'Opening to Press' })
const look = block(19, 21, { kind: 'visit', ledBy: 'jonas' })
const evening: Arrangement = {
  minutes: 90,
  begins: 10,
  ends: 80,
  cohorts: [],
  teachers: [],
  blocks: [
    block(0, 10, { cohortId: null, kind: 'warmUp', what: 'joint by joint' }),
    press,
    practice,
    look,
    push,
    block(30, 90, { cohortId: null, kind: 'settle', what: '' }),
  ],
  looks: [],
  unseen: [],
  missingMinutes: 0,
  focus: null,
  joining: [],
  beforeClass: [],
  shortfalls: [],
  gap: 0,
  meetsNeedsBest: true,
  edits: [],
  version: 3,
}

describe('a minute of a lesson', () => {
  it('is what a cohort does in it, a visit apart', () => {
    expect(blockAt(evening, 'copper', 5)?.kind).toBe('warmUp')
    expect(blockAt(evening, 'copper', 19)).toBe(practice)
    expect(visitIn(evening, practice, 20)).toBe(look)
    expect(visitIn(evening, practice, 21)).toBeUndefined()
  })

  it('that nobody has filled goes on with what came before', () =>
    expect(blockAt({ ...evening, blocks: [press, push] }, 'copper', 20)).toBe(press))

  it('finds each teacher where they are, or where they go next', () => {
    expect(cohortOf(evening, 'jonas', 3)).toBe('copper')
    expect(nextOf(evening, 'noor', 12)).toBe(push)
    expect(cohortOf(evening, 'odile', 3)).toBeUndefined()
  })
})

describe('what happens', () => {
  it('is paused until it goes on, whoever says so', () => {
    const pause: LessonEdit = { kind: 'pause', from: 12, who: 'Noor' }
    expect(pausedIn([pause])).toBe(pause)
    expect(pausedIn([pause, ...lost(evening, 12, 20, 'Paused by Noor')])).toBeUndefined()
    expect(pausedIn([...lost(evening, 5, 6, ''), pause])).toBe(pause)
  })

  it('ends what is led, makes it longer, or puts what comes next before it', () => {
    const [done] = over(evening, press, 13)
    expect(done).toMatchObject({ kind: 'since', from: 13, until: 13 })
    expect(done).toMatchObject({ stood: expect.arrayContaining([{ ...press, end: 13 }]) as unknown })
    expect(longer(evening, press, 13, 2)[1]).toEqual({ kind: 'stretch', key: 'press', minutes: 5 })
    expect(swapped(evening, press, push, 13).slice(1)).toEqual([
      { kind: 'pin', key: 'push', start: 13, teacherId: 'noor' },
      { kind: 'pin', key: 'press', start: 19, teacherId: 'noor' },
    ])
  })
})

it('counts whoever joins at once, where they are by the last word', () => {
  const cohort = { id: 'copper', name: 'Copper', people: 5, neverAlone: false, practises: '' }
  const joins = (cohortId: string | null): LessonEdit => ({
    kind: 'joins',
    who: 'wenke',
    name: 'Wenke',
    cohortId,
    from: null,
    neverAlone: true,
  })
  const there = { ...evening, cohorts: [cohort, { ...cohort, id: 'fern', name: 'Fern' }] }
  const after = (...edits: LessonEdit[]) => edits.reduce((now, edit) => withEdit(now, edit, undefined), there)
  const people = (arrangement: Arrangement) => arrangement.cohorts.map((one) => one.people)
  expect(people(after(joins('copper')))).toEqual([6, 5])
  expect(after(joins('copper')).cohorts[0]!.neverAlone).toBe(true)
  expect(people(after(joins('copper'), joins('fern')))).toEqual([5, 6])
  expect(after(joins('copper'), joins('fern')).joining).toMatchObject([{ name: 'Wenke', cohortId: 'fern' }])
  expect(people(after(joins('copper'), joins(null)))).toEqual([5, 5])
})

it('says how often something is gone through, and how long is left', () => {
  const pass = { secondsPerCount: 6, who: 'all', view: 'asUsual', said: 'cues', layers: [] } as const
  expect(
    repetitions([
      { ...pass, layers: [], name: 'show', repetitions: 2, minutes: null },
      { ...pass, layers: [], name: 'questions', repetitions: 1, minutes: 3 },
    ]),
  ).toEqual([
    { name: 'show', at: 1, of: 2 },
    { name: 'show', at: 2, of: 2 },
    { name: 'questions', at: 1, of: 1 },
  ])
  expect([timeLeft(340), timeLeft(-4)]).toEqual(['5:40', '0:00'])
})
