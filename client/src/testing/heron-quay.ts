import type { Schema } from '../api/client'

/** Heron Quay Tai Chi, as small as it can be and still be a school: one class of two cohorts, three people, one term. */

type Person = NonNullable<Schema['SessionResponse']['person']>

export const today = '2026-11-24'

export const noor: Person = { id: 'noor', name: 'Noor Adeyemi', role: 'head' }
export const jonas: Person = { id: 'jonas', name: 'Jonas Wiek', role: 'instructor' }
export const odile: Person = { id: 'odile', name: 'Odile Marchetti', role: 'assistant' }

export const sessionOf = (person: Person | null): Schema['SessionResponse'] => ({
  schoolName: 'Heron Quay Tai Chi',
  isDemo: true,
  movingIn: false,
  weekStart: 'monday',
  dates: 'dayMonthYear',
  decimals: 'point',
  today,
  wall: `${today}T12:00:00`,
  at: `${today}T12:00:00Z`,
  person,
  mayBegin: false,
  demoAddress: null,
  mustSecure: false,
  mailsPasswords: false,
  token: '',
})

const asks: Schema['SashAsks'] = {
  studies: [],
  stage: 'alone',
  accepts: 'finesse',
  layers: ['feet', 'waist', 'hands'],
  bothSides: false,
  weeks: 12,
  lessons: 10,
  postures: [],
}

const ivory = {
  id: 'ivory',
  name: 'Ivory',
  order: 1,
  colour: '#D9CBA3',
  hasHalves: false,
  asks,
  students: 1,
  version: 11,
}
const fern = { id: 'fern', name: 'Fern', order: 2, colour: '#6C8F4E', hasHalves: true, asks, students: 2, version: 12 }

export const cohort = (
  id: string,
  part: Partial<Schema['PeopleCohortResponse']> = {},
): Schema['PeopleCohortResponse'] => ({
  id,
  name: id === 'ivory-group' ? 'Ivory' : 'Fern',
  order: id === 'ivory-group' ? 1 : 2,
  sashId: id === 'ivory-group' ? 'ivory' : 'fern',
  half: 'none',
  mode: 'standing',
  colour: id === 'ivory-group' ? ivory.colour : fern.colour,
  beginners: false,
  mustBeAttended: false,
  students: id === 'ivory-group' ? 1 : 2,
  version: id === 'ivory-group' ? 21 : 22,
  ...part,
})

export const evening: Schema['PeopleClassResponse'] = {
  id: 'evening',
  name: 'Tuesday evening',
  weekday: 'tuesday',
  start: '18:30:00',
  minutes: 90,
  hallId: 'quay',
  staffIds: ['noor', 'jonas'],
  substitutes: [],
  cohorts: [cohort('ivory-group'), cohort('fern-group')],
  version: 31,
}

export const school: Schema['PeopleResponse'] = {
  sashes: [ivory, fern],
  halls: [
    {
      id: 'quay',
      name: 'Quay Hall',
      width: 12,
      depth: 8,
      chairs: 10,
      rail: 6,
      hours: [],
      allowed: 40,
      mirror: false,
      railWall: 'back',
      version: 41,
    },
  ],
  staff: [noor, jonas, odile].map((person) => ({ ...person, closed: false })),
  classes: [evening],
}

export const student = (id: string, part: Partial<Schema['StudentItem']> = {}): Schema['StudentItem'] => ({
  id,
  name: id === 'imke' ? 'Imke Rademaker' : id === 'goran' ? 'Goran Vidal' : 'Adaeze Obi',
  givenName: id === 'imke' ? 'Imke' : id === 'goran' ? 'Goran' : 'Adaeze',
  familyName: id === 'imke' ? 'Rademaker' : id === 'goran' ? 'Vidal' : 'Obi',
  sashId: id === 'adaeze' ? 'ivory' : 'fern',
  half: 'none',
  sashSince: '2026-02-03',
  cohortIds: [id === 'adaeze' ? 'ivory-group' : 'fern-group'],
  mode: 'standing',
  joined: '2025-09-02',
  left: null,
  hasLimits: id === 'goran',
  version: 51,
  ...part,
})

export const students = [student('imke'), student('goran'), student('adaeze')]

export const details: Schema['StudentDetails'] = {
  aim: 'health',
  scope: 'steadier on stairs',
  mode: 'standing',
  heldHand: 'symmetric',
  contactName: 'Berit',
  contactPhone: '0100 555 01',
  consents: ['messages'],
}

export const limits: Schema['LimitResponse'] = {
  limits: [{ demand: 'kick', side: 'symmetric', since: '2026-09-01', note: 'a step instead' }],
  note: 'asks before a new hall',
  version: 61,
}

export const term: Schema['TermResponse'] = {
  id: 'autumn',
  name: 'Autumn 2026',
  start: '2026-09-08',
  end: '2026-12-15',
  closures: [{ date: '2026-10-27', until: null, reason: 'the hall is painted' }],
  testDays: ['2026-12-15'],
  isCurrent: true,
  version: 71,
}

export const conventions: Schema['ConventionResponse'] = {
  ways: {
    facing: 'clock',
    zeroIsCompass: 0,
    demonstration: 'backToClass',
    toeTouchAllowed: true,
    weightedPivots: false,
    pivotOn: 'heel',
    numbering: { compoundAsOne: false, repeats: 'each', endsCounted: true },
    bothSides: false,
    layers: 'feetFirst',
    countsPerBreath: 2,
    bowLoad: 70,
    emptyLoad: 10,
    rearToes: 45,
    risesAndSinks: false,
    trunkInclined: false,
    closesTogether: true,
    kneeOverToes: true,
    handsSettleAfter: false,
    newPostures: 2,
    keyPointDecides: true,
    footMetres: 0.26,
  },
  directions: ['12', '1:30', '3', '4:30', '6', '7:30', '9', '10:30'].map((hour) => `${hour} o’clock`),
  version: 81,
}

const pattern: Schema['TeachingPattern'] = {
  id: 'show-and-follow',
  name: 'Show and follow',
  passes: [
    {
      name: 'Show',
      repetitions: 2,
      secondsPerCount: 3,
      who: 'teacher',
      view: 'asUsual',
      said: 'cues',
      layers: [],
      minutes: null,
    },
  ],
}

const kettle: Schema['HouseholdOccasion'] = {
  id: 'kettle',
  when: 'While the kettle boils',
  how: 'Let one leg empty until its heel is light.',
  trains: 'shiftingWeight',
  asks: [],
  for: ['free', 'holding'],
}

export const teaching: Schema['TeachingResponse'] = {
  teaching: {
    patterns: [pattern],
    standing: pattern.id,
    supported: pattern.id,
    again: pattern.id,
    talkEvery: 4,
    talkMinutes: 10,
    warmUp: [{ what: 'joint by joint', minutes: 10, drillId: null }],
    eyes: { longestAlone: 8, longestVisit: 6, manyToVisit: 4, noNewInLast: 5 },
    occasions: [kettle],
  },
  shipped: [pattern],
  paces: [
    { said: 'nothing', secondsPerCount: 2 },
    { said: 'cues', secondsPerCount: 3 },
  ],
  examples: ['about 8 minutes'],
  warmUpMinutes: 10,
  shippedOccasions: [kettle, { ...kettle, id: 'queue', when: 'While waiting in a queue' }],
  version: 91,
}

/** What the server of this school answers to whoever only looks. */
export const answers = {
  'GET /api/people': { body: school },
  'GET /api/assignments': { body: [] },
  'GET /api/students': { body: students },
  'GET /api/terms': { body: [term] },
  'GET /api/conventions': { body: conventions },
  'GET /api/teaching': { body: teaching },
  'GET /api/rules': {
    body: {
      rules: [],
      smoothSeconds: 12,
      reachMetres: 1.5,
      unseenDays: 14,
      beginnersAttended: 3,
    } satisfies Schema['RulesResponse'],
  },
  'GET /api/forms': { body: [] },
  'GET /api/postures': { body: [] },
  'POST /api/classes/check': { body: [] },
}

export const pressText: Schema['PostureText'] = {
  name: 'Press',
  otherNames: [],
  kind: 'posture',
  family: 'Sparrow’s tail',
  writtenSide: 'right',
  namedBy: 'leadingFoot',
  difficulty: 1,
  keyPoint: 'the weight goes into the front foot before the hands do',
  parts: [],
  builtFrom: null,
  needs: [],
  start: '',
  entry: 'L 0,0 60; R 1,0 40',
  counts: [
    {
      cue: 'join the hands',
      feet: '',
      waist: '',
      hands: 'palms meet',
      gaze: '',
      breath: 'in',
      shape: '',
      onlyIf: '',
      pictured: false,
      body: '',
      as: 0,
    },
    {
      cue: 'press',
      feet: 'R shift 70',
      waist: '',
      hands: 'both arms round',
      gaze: '',
      breath: 'out',
      shape: '',
      onlyIf: '',
      pictured: false,
      body: '',
      as: 0,
    },
  ],
  merged: [],
  end: null,
  loop: null,
  checkpoints: [],
  faults: [
    {
      id: 'leans',
      seen: 'leans into the press',
      weight: 'shape',
      causes: [{ why: 'reaching', mend: 'stop at the toes' }],
      otherWays: [],
      principleId: null,
    },
  ],
  images: ['a ball held between the arms'],
  application: '',
  recording: '',
  simplifications: [],
  demands: [],
  notAsked: [],
  ourWays: [],
  cautions: [],
  versions: [],
  changes: [],
}

export const press: Schema['PostureResponse'] = {
  id: 'press',
  text: pressText,
  side: 'right',
  reads: pressText,
  said: [
    { feet: '', waist: '', hands: '', gaze: '' },
    { feet: 'most of the weight into the right foot', waist: '', hands: '', gaze: '' },
  ],
  versionsSaid: [],
  modes: [{ mode: 'standing', isKnown: true, feetCarry: false, asks: [], takenOff: [], findings: [] }],
  looked: [],
  usedIn: [],
  retired: false,
  version: 101,
}

export const postureItem = (id: string, name: string): Schema['PostureItem'] => ({
  id,
  name,
  otherNames: [],
  kind: 'posture',
  family: 'Sparrow’s tail',
  writtenSide: 'right',
  difficulty: 1,
  counts: 2,
  isCompound: false,
  turn: 0,
  modes: [],
  demands: [],
})

export const position = (id: string, part: Partial<Schema['Position']> = {}): Schema['Position'] => ({
  id,
  sectionId: 'one',
  postureId: 'press',
  side: 'left',
  turn: 0,
  facing: 0,
  repeats: 1,
  note: '',
  compoundId: null,
  wayIn: '',
  wayInBody: '',
  parentId: null,
  isTransition: false,
  ...part,
})
