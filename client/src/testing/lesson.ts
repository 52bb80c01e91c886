import type { Schema } from '../api/client'

/** What Fern meets on Tuesday 1 December. */
const whip: Schema['LessonMaterial'] = {
  postureId: 'whip',
  side: 'left',
  name: 'Single Whip, left',
  keyPoint: 'the knee over the foot',
  cues: ['turn', 'hook', 'step'],
  faults: ['the knee drifts inside', 'the elbow lifts', 'a third'],
  cautions: ['A turn on a loaded foot strains the knee.'],
  facing: 270,
}

const fern: Schema['LessonCohortSheet'] = {
  cohortId: 'fern-group',
  name: 'Fern',
  colour: '#6C8F4E',
  half: 'none',
  mode: 'standing',
  people: ['Imke R.', 'Per D.'],
  attended: false,
  passes: [],
  again: [],
  material: [whip, { ...whip, postureId: 'press', name: 'Press, right' }],
  cautions: [],
}

/** The evening as its page reads it. */
export const sheet: Schema['LessonSheet'] = {
  classId: 'evening',
  class: 'Tuesday evening',
  date: '2026-12-01',
  number: 13,
  kind: 'ordinary',
  start: '18:30:00',
  end: '20:00:00',
  hall: 'Quay Hall',
  stepsToTurn: 9,
  staff: ['Noor Adeyemi'],
  planned: true,
  cohorts: [fern, { ...fern, cohortId: 'rail', name: 'Rail group', attended: true }],
  care: [
    {
      student: 'Goran V.',
      cohortId: 'fern-group',
      postureId: 'whip',
      side: 'left',
      how: 'left out until it is settled how',
      says: 'Goran V. leaves out the kick',
      open: true,
    },
  ],
  cautions: ['Nobody turns on a knee that hurts.'],
}

const part = (
  kind: Schema['BlockKind'],
  start: number,
  end: number,
  more: Partial<Schema['ArrangementBlockOf']> = {},
): Schema['ArrangementBlockOf'] => ({
  start,
  end,
  cohortId: 'fern-group',
  kind,
  what: '',
  ledBy: null,
  with: [],
  because: 'The term plan asks for it.',
  task: null,
  fixed: false,
  material: [],
  pieces: [],
  pairs: null,
  ...more,
})
const watched = (student: string, reason: Schema['WatchReason'], days: number | null): Schema['ArrangementLookAt'] => ({
  start: null,
  end: null,
  teacherId: null,
  cohortId: 'fern-group',
  studentId: student,
  student,
  postureId: 'whip',
  side: 'left',
  posture: 'Single Whip, left',
  reason,
  days,
})

/** How it is arranged. */
export const arrangement: Schema['ArrangementResponse'] = {
  minutes: 90,
  begins: 10,
  ends: 85,
  cohorts: [
    { id: 'fern-group', name: 'Fern', people: 6, neverAlone: false, practises: 'Press, right' },
    { id: 'rail', name: 'Rail group', people: 4, neverAlone: true, practises: '' },
  ],
  teachers: [
    { id: 'noor', name: 'Noor Adeyemi', isAssistant: false, mayLead: ['fern-group', 'rail'] },
    { id: 'odile', name: 'Odile Marchetti', isAssistant: true, mayLead: ['rail'] },
    { id: 'jonas', name: 'Jonas Lindqvist', isAssistant: false, mayLead: ['fern-group', 'rail'] },
  ],
  blocks: [
    part('warmUp', 0, 10, {
      cohortId: null,
      what: 'joint by joint',
      ledBy: 'noor',
      pieces: [
        { what: 'ankles and knees', start: 0, end: 6, drillId: null },
        { what: 'Weight Shifting', start: 6, end: 10, drillId: 'shift' },
      ],
    }),
    part('new', 10, 18, {
      what: 'Single Whip, left',
      ledBy: 'noor',
      task: 'whip',
      material: [{ postureId: 'whip', side: 'left' }],
    }),
    part('ownPractice', 18, 85, { what: 'Press, right' }),
    part('visit', 25, 28, { ledBy: 'noor' }),
    part('review', 10, 85, { cohortId: 'rail', what: 'Press, right', ledBy: 'odile', task: 'rail press' }),
    part('settle', 85, 90, { cohortId: null, what: 'standing', ledBy: 'noor' }),
  ],
  shortfalls: [],
  gap: 0.1,
  meetsNeedsBest: true,
  looks: [
    { ...watched('Imke R.', 'secondLook', 7), start: 10, end: 18, teacherId: 'noor' },
    { ...watched('Per D.', 'inTurn', 7), start: 25, end: 28, teacherId: 'noor' },
  ],
  unseen: [watched('Ilse B.', 'longUnseen', null), watched('Bernd H.', 'overlooked', 14)],
  missingMinutes: 1,
  focus: null,
  joining: [],
  beforeClass: [],
  edits: [],
  version: null,
}

export const address = '/api/classes/evening/lessons/2026-12-01'
