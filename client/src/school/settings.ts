import type { Ways } from './data'

export interface Setting {
  name: string
  /** What the choice means, in a sentence. */
  means: string
  value: (ways: Ways) => string
  options: [string, string][]
  set: (ways: Ways, value: string) => Ways
}

const yes = (value: string) => value === 'yes'
const said = (value: boolean) => (value ? 'yes' : 'no')

/** Every convention a school chooses, in the order it is asked for. */
export const settings: Setting[] = [
  {
    name: 'Directions are said',
    means: 'How every facing is printed and spoken: on the forms, the cue sheets and the dials.',
    value: (ways) => ways.facing,
    options: [
      ['clock', 'as on a clock: 3 o’clock'],
      ['compass', 'as on a compass: east'],
      ['hall', 'by the hall: right wall'],
      ['degrees', 'in degrees: 90°'],
    ],
    set: (ways, value) => ({ ...ways, facing: value as Ways['facing'] }),
  },
  {
    name: 'The form’s zero is called, on a compass',
    means: 'Only for schools that say compass points: the direction a form begins in.',
    value: (ways) => String(ways.zeroIsCompass),
    options: [
      ['0', 'north'],
      ['90', 'east'],
      ['180', 'south'],
      ['270', 'west'],
    ],
    set: (ways, value) => ({ ...ways, zeroIsCompass: Number(value) }),
  },
  {
    name: 'Teachers show',
    means:
      'Decides the column “do” of every cue sheet: with the back to the class they do what they say, mirrored they do the other side.',
    value: (ways) => ways.demonstration,
    options: [
      ['backToClass', 'with the back to the class'],
      ['facingMirrored', 'facing the class, mirrored'],
      ['facingUnmirrored', 'facing the class, not mirrored'],
    ],
    set: (ways, value) => ({ ...ways, demonstration: value as Ways['demonstration'] }),
  },
  {
    name: 'Toes may touch beside the standing foot',
    means: 'Where they may not, a T-step in a form is shown as a caution.',
    value: (ways) => said(ways.toeTouchAllowed),
    options: [
      ['yes', 'allowed'],
      ['no', 'avoided'],
    ],
    set: (ways, value) => ({ ...ways, toeTouchAllowed: yes(value) }),
  },
  {
    name: 'Feet turn',
    means:
      'Unweighted, a turn of a foot that carries more than half is a caution for the knee; weighted, it is this school’s way.',
    value: (ways) => (ways.weightedPivots ? 'weighted' : 'unweighted'),
    options: [
      ['unweighted', 'unweighted'],
      ['weighted', 'weighted'],
    ],
    set: (ways, value) => ({ ...ways, weightedPivots: value === 'weighted' }),
  },
  {
    name: 'A foot turns on',
    means: 'What a pivot means where the notation does not say: it moves the feet on every floor map.',
    value: (ways) => ways.pivotOn,
    options: [
      ['heel', 'the heel'],
      ['ball', 'the ball'],
    ],
    set: (ways, value) => ({ ...ways, pivotOn: value as Ways['pivotOn'] }),
  },
  {
    name: 'A compound posture counts',
    means: 'Grasp the Sparrow’s Tail as one number, or ward off, roll back, press and push as four.',
    value: (ways) => said(ways.numbering.compoundAsOne),
    options: [
      ['yes', 'as one'],
      ['no', 'by its parts'],
    ],
    set: (ways, value) => ({ ...ways, numbering: { ...ways.numbering, compoundAsOne: yes(value) } }),
  },
  {
    name: 'A repeated posture counts',
    means: 'What gets a number of its own when the same posture comes again right away.',
    value: (ways) => ways.numbering.repeats,
    options: [
      ['each', 'each time'],
      ['once', 'once'],
      ['eachStep', 'each step'],
      ['eachPair', 'each pair'],
    ],
    set: (ways, value) => ({
      ...ways,
      numbering: { ...ways.numbering, repeats: value as Ways['numbering']['repeats'] },
    }),
  },
  {
    name: 'The opening and the close',
    means: 'Whether the first and the last position have numbers.',
    value: (ways) => said(ways.numbering.endsCounted),
    options: [
      ['yes', 'are counted'],
      ['no', 'are not counted'],
    ],
    set: (ways, value) => ({ ...ways, numbering: { ...ways.numbering, endsCounted: yes(value) } }),
  },
  {
    name: 'Sides are taught',
    means: 'As in the form, or every posture on both sides, which takes longer.',
    value: (ways) => said(ways.bothSides),
    options: [
      ['no', 'as in the form'],
      ['yes', 'both, always'],
    ],
    set: (ways, value) => ({ ...ways, bothSides: yes(value) }),
  },
  {
    name: 'Layers come in this order',
    means: 'The order in which a count is read everywhere.',
    value: (ways) => ways.layers,
    options: [
      ['feetFirst', 'feet, waist, hands, breath'],
      ['handsFirst', 'hands first'],
    ],
    set: (ways, value) => ({ ...ways, layers: value as Ways['layers'] }),
  },
  {
    name: 'One breath lasts',
    means: 'Said on the cue sheets; the breath is never held or forced to fit.',
    value: (ways) => String(ways.countsPerBreath),
    options: [
      ['1', 'one count'],
      ['2', 'two counts'],
    ],
    set: (ways, value) => ({ ...ways, countsPerBreath: Number(value) }),
  },
  {
    name: 'The leading foot of a bow carries',
    means:
      'A bow with another load is noted; below 60 or above 70 % it is a caution. At 60 % the rear knee carries 40 %, so the hips stay a little open.',
    value: (ways) => String(ways.bowLoad),
    options: [
      ['60', '60 %'],
      ['70', '70 %'],
    ],
    set: (ways, value) => ({ ...ways, bowLoad: Number(value) }),
  },
  {
    name: 'The light foot of an empty stance carries at most',
    means: 'More than this is a caution.',
    value: (ways) => String(ways.emptyLoad),
    options: [
      ['10', '10 %'],
      ['30', '30 %'],
    ],
    set: (ways, value) => ({ ...ways, emptyLoad: Number(value) }),
  },
  {
    name: 'The rear toes of a bow point out',
    means: 'A bow whose rear toes point clearly elsewhere is noted.',
    value: (ways) => String(ways.rearToes),
    options: [
      ['45', '45°'],
      ['60', '60°'],
    ],
    set: (ways, value) => ({ ...ways, rearToes: Number(value) }),
  },
  {
    name: 'Height',
    means: 'Said with every posture; how low is each person’s own in any case.',
    value: (ways) => said(ways.risesAndSinks),
    options: [
      ['no', 'level'],
      ['yes', 'rises and sinks'],
    ],
    set: (ways, value) => ({ ...ways, risesAndSinks: yes(value) }),
  },
  {
    name: 'Trunk',
    means: 'Said with every posture.',
    value: (ways) => said(ways.trunkInclined),
    options: [
      ['no', 'upright'],
      ['yes', 'inclined'],
    ],
    set: (ways, value) => ({ ...ways, trunkInclined: yes(value) }),
  },
  {
    name: 'A side-step closes',
    means: 'How near the foot comes when Cloud Hands and its like close the step; said with every posture.',
    value: (ways) => said(ways.closesTogether),
    options: [
      ['no', 'to shoulder width'],
      ['yes', 'together'],
    ],
    set: (ways, value) => ({ ...ways, closesTogether: yes(value) }),
  },
  {
    name: 'The knee goes',
    means: 'Said with every posture; it points where the toes point in any case.',
    value: (ways) => said(ways.kneeOverToes),
    options: [
      ['no', 'not past the toes'],
      ['yes', 'over the toes at most'],
    ],
    set: (ways, value) => ({ ...ways, kneeOverToes: yes(value) }),
  },
  {
    name: 'The hands',
    means: 'Hands that go on once the weight has arrived are found, unless they settle after it here.',
    value: (ways) => said(ways.handsSettleAfter),
    options: [
      ['no', 'arrive with the weight'],
      ['yes', 'settle after it'],
    ],
    set: (ways, value) => ({ ...ways, handsSettleAfter: yes(value) }),
  },
  {
    name: 'New postures in one lesson',
    means: 'At most; one for beginners, adapted groups and hard postures. The next plan uses it.',
    value: (ways) => String(ways.newPostures),
    options: ['1', '2', '3', '4'].map((count) => [count, count]),
    set: (ways, value) => ({ ...ways, newPostures: Number(value) }),
  },
  {
    name: 'The key point alone decides a pass',
    means: 'Where it does, shape corrections do not hold anybody back from the next sash.',
    value: (ways) => said(ways.keyPointDecides),
    options: [
      ['no', 'no'],
      ['yes', 'yes'],
    ],
    set: (ways, value) => ({ ...ways, keyPointDecides: yes(value) }),
  },
  {
    name: 'A foot is',
    means: 'Lengths in the notation are foot-lengths: this makes metres of them on floor maps and in halls.',
    value: (ways) => String(ways.footMetres),
    options: ['0.22', '0.24', '0.26', '0.28', '0.3'].map((length) => [
      length,
      `${Math.round(Number(length) * 100)} cm long`,
    ]),
    set: (ways, value) => ({ ...ways, footMetres: Number(value) }),
  },
]
