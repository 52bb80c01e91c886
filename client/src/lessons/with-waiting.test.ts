import { describe, expect, it } from 'vitest'
import { lesson, register } from '../testing/register'
import { factOf, type RegisterFact } from './data'
import { withWaiting } from './with-waiting'

describe('what waits is drawn as if it had landed', () => {
  const entry = (fact: RegisterFact) => ({ id: fact.fact.id, kind: 'register', variables: fact, by: 'jonas', says: '' })
  const mark = factOf('observation', lesson, {
    studentId: 'Imke R.',
    postureId: 'press',
    side: 'left',
    sign: 'stage',
    stage: 'alone',
    faultId: null,
    words: null,
    weight: null,
  })

  it('a principle that is broken, what was done about it, and that it was taken back', () => {
    const seen = factOf('observation', lesson, {
      ...{ studentId: 'Imke R.', postureId: 'press', side: 'left', sign: 'fault', stage: null, faultId: null },
      ...{ words: 'Knee over foot', weight: 'shape', principleId: 'knees' },
    })
    const tried = factOf('way', lesson, {
      ...{ studentId: 'Imke R.', postureId: 'press', side: 'left', from: null, faultId: null },
      ...{ words: 'Knee over foot', way: 'image', cause: '', done: true, principleId: 'knees' },
    })
    const gone = factOf('withdrawal', lesson, { observationId: seen.fact.id })
    const imke = (...facts: RegisterFact[]) => withWaiting(register, facts.map(entry)).students[0]!
    expect(imke(seen, tried).against).toMatchObject([
      { principle: 'Knee over foot', today: [{ sign: 'fault' }], correction: { triedToday: [{ way: 'image' }] } },
    ])
    expect(imke(seen, tried).cells).toEqual(register.students[0]!.cells)
    expect(imke(seen, gone).against[0]!.today).toEqual([])
  })

  it('and never twice, when it has landed but is not gone from the queue yet', () => {
    const once = withWaiting(register, [entry(mark)])
    expect(withWaiting(once, [entry(mark)])).toEqual(once)
  })

  it('in the order it was tapped', () => {
    const back = factOf('withdrawal', lesson, { observationId: mark.fact.id })
    expect(withWaiting(register, [entry(mark), entry(back)])).toEqual(register)
    const here = factOf('attendance', lesson, { studentId: 'Imke R.', present: true })
    const away = factOf('attendance', lesson, { studentId: 'Imke R.', present: false })
    expect(withWaiting(register, [entry(here), entry(away)]).students[0]!.present).toBe(false)
  })

  it('but not what was refused', () => {
    expect(withWaiting(register, [{ ...entry(mark), refused: 'no' }])).toEqual(register)
  })
})
