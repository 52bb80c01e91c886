/** The floor as numbers: what the walk's frames mean. Foot-lengths to the right of the start and ahead of it; degrees clockwise; per cent. */
export interface Foot {
  right: number
  ahead: number
  toes: number
  contact: number
  load: number
}

export interface Stand {
  left: Foot
  right: Foot
  hips: number
  chest: number
  low: boolean
}

/** Places in the contact of a frame; from here on a foot is held up. */
const AIR = 4
const HEEL = 1

export const contactWords = [
  'flat',
  'on the heel',
  'on the ball',
  'toes touch',
  'in the air',
  'in the air, heel ahead',
  'in the air, toes long',
] as const

const foot = (frame: readonly number[], at: number): Foot => ({
  right: frame[at]!,
  ahead: frame[at + 1]!,
  toes: frame[at + 2]!,
  contact: frame[at + 3]!,
  load: frame[at + 4]!,
})

export const standOf = (frame: readonly number[]): Stand => ({
  left: foot(frame, 0),
  right: foot(frame, 5),
  hips: frame[10]!,
  chest: frame[11]!,
  low: frame[12]! > 0,
})

/** Feet together, weight even, facing the form's zero. */
export const START_FRAME = [-0.2, 0, 0, 0, 50, 0.2, 0, 0, 0, 50, 0, 0, 0, 50, 0, 0]

/** The shortest way round from one direction to another, in (-180, 180]. */
export function turnBetween(from: number, to: number): number {
  const turn = (((to - from) % 360) + 360) % 360
  return turn > 180 ? turn - 360 : turn
}

const mix = (a: number, b: number, part: number) => a + (b - a) * part
const mixTurn = (a: number, b: number, part: number) => a + turnBetween(a, b) * part

function mixFoot(a: Foot, b: Foot, part: number): Foot {
  return {
    right: mix(a.right, b.right, part),
    ahead: mix(a.ahead, b.ahead, part),
    toes: mixTurn(a.toes, b.toes, part),
    contact: part < 1 ? Math.max(a.contact, b.contact) : b.contact,
    load: mix(a.load, b.load, part),
  }
}

/** A stand on the way from one to the next. */
export function standBetween(a: Stand, b: Stand, part: number): Stand {
  if (part >= 1) return b
  return {
    left: mixFoot(a.left, b.left, part),
    right: mixFoot(a.right, b.right, part),
    hips: mixTurn(a.hips, b.hips, part),
    chest: mix(a.chest, b.chest, part),
    low: part < 0.5 ? a.low : b.low,
  }
}

/** The middle between the heels. */
export const middleOf = (stand: Stand) => ({
  right: (stand.left.right + stand.right.right) / 2,
  ahead: (stand.left.ahead + stand.right.ahead) / 2,
})

/** Whether only the heel touches: drawn with the front of the sole open. */
export const inAir = (foot: Foot) => foot.contact >= AIR

export const onHeel = (foot: Foot) => foot.contact === HEEL

/** A sole whose heel lies at (0, 0), toes up, one foot-length long; x right, y down, in foot-lengths. */
export const soleTransform = (foot: Foot) =>
  `translate(${foot.right.toFixed(3)} ${(-foot.ahead).toFixed(3)}) rotate(${foot.toes.toFixed(1)}) scale(0.025) translate(-12.5 -33)`
