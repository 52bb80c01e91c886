import type { Schema } from '../api/client'

const lack = (part: Partial<Schema['NextSashLack']>): Schema['NextSashLack'] => ({
  kind: 'posture',
  what: '',
  time: null,
  toClear: null,
  toSee: null,
  likely: '2026-12-10',
  ...part,
})
const goal = (part: Partial<Schema['NextSashGoal']>): Schema['NextSashGoal'] => ({
  side: 'left',
  has: 'follows',
  takenOver: false,
  asked: 'alone',
  new: null,
  ...part,
})
const next: Schema['NextSashStep'] = {
  sash: 'Copper',
  half: 'none',
  colour: '#B5693C',
  isUnsaid: false,
  missing: [
    lack({ kind: 'weeks', time: { count: 20, asked: 26 }, likely: '2026-12-12' }),
    lack({
      kind: 'correction',
      what: 'Single Whip, left',
      toClear: { words: 'the knee drifts inside', weight: 'keyPoint' },
    }),
    lack({ what: 'Push, left', toSee: goal({}) }),
    lack({ kind: 'link', what: 'Push, left → Single Whip, left', toSee: goal({ has: 'notMet' }) }),
  ],
  notAsked: [],
  likely: '2026-12-12',
  lessonsAWeek: 1.2,
}
const waits = (studentId: string, name: string, part: Partial<Schema['NextSashStep']>) => ({
  studentId,
  name,
  cohortId: 'fern',
  cohort: 'Fern',
  sash: 'Fern',
  sashColour: '#6E8C4A',
  half: 'senior' as const,
  since: '2026-06-02',
  next: { ...next, ...part },
})
/** Of Tuesday evening: one is ready, one nearly, one without a date, and one of a level of which nothing is said. */
export const readiness: Schema['NextSashClassNextSash'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  people: [
    waits('wilma', 'Wilma E.', { missing: [], likely: null }),
    waits('imke', 'Imke R.', {}),
    waits('lucia', 'Lucia T.', { isUnsaid: true, missing: [], likely: null }),
    waits('goran', 'Goran V.', {
      missing: [lack({ what: 'Needle at Sea Bottom, left', toSee: goal({ has: 'notMet' }), likely: null })],
      likely: null,
      notAsked: ['Heel Kick, right'],
    }),
  ],
}
