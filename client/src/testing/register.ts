import type { Register } from '../lessons/data'

export const lesson = { classId: 'evening', date: '2026-11-24' }

export const item = (postureId: string, name: string): Register['cohorts'][number]['items'][number] => ({
  postureId,
  side: 'left',
  name,
  kind: 'posture',
  from: null,
  how: 'introduced',
  taught: null,
  planned: 6,
  took: null,
  faults: [],
  goodEnough: null,
  acceptedFaults: [],
  besideFocus: [],
})

export const cell = (postureId: string) => ({
  postureId,
  side: 'left' as const,
  from: null,
  stage: 'shown' as const,
  fading: false,
  takenOver: false,
  correction: null,
  relearn: null,
  open: [],
  today: [],
})

export const register: Register = {
  ...lesson,
  class: 'Tuesday evening',
  number: 5,
  held: true,
  recorded: false,
  cohorts: [
    {
      cohortId: 'copper',
      name: 'Copper',
      colour: '#AE6A38',
      half: 'none',
      items: [item('press', 'Press, left'), item('push', 'Push, left')],
    },
  ],
  students: ['Imke R.', 'Goran V.'].map((name) => ({
    studentId: name,
    name,
    cohortId: 'copper',
    mode: 'standing',
    present: null,
    cells: [cell('press'), cell('push')],
    against: [],
  })),
}
