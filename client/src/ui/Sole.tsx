import type { CSSProperties } from 'react'
import type { Schema } from '../api/client'
import { stageWords, weightWords } from './words'

interface Standing {
  stage: Schema['Stage']
  side: Schema['Side']
  correction?: Schema['Weight'] | null
  fading?: boolean
  /** Held to be so by the sash somebody came with: nobody here has seen it. */
  takenOver?: boolean
}

const stages: readonly Schema['Stage'][] = ['notMet', 'shown', 'follows', 'alone', 'flowing', 'settled']
const marks: readonly Schema['Weight'][] = ['keyPoint', 'shape', 'finesse']
const TILES = 29
const LEFT = 13

/** Its width, of its height: what `soleLook` is put on must have it, or a neighbour in the picture shows. */
export const SOLE_RATIO = 34 / 50

/** In words: "Imke R., Single Whip, left: alone, fading: correction: shape". */
export const soleSays = (of: string | undefined, { stage, fading = false, takenOver = false, correction }: Standing) =>
  [
    of,
    stageWords[stage] + (takenOver ? ', taken over' : '') + (fading ? ', fading' : ''),
    correction && `correction: ${weightWords[correction]}`,
  ]
    .filter(Boolean)
    .join(': ')

/** Where its tile, and that of its mark, stand in soles.svg. */
export function soleTiles({ stage, side, fading = false, takenOver = false, correction }: Standing) {
  const filled = stages.indexOf(stage)
  const left =
    takenOver && filled > 0
      ? LEFT - (stage === 'shown' ? 2 : 1)
      : fading && filled > 0
        ? filled + stages.length - 1
        : filled
  return {
    sole: side === 'right' ? 2 * LEFT - 1 - left : left,
    mark: correction ? 2 * LEFT + marks.indexOf(correction) : null,
  }
}

const place = (tile: number) => `${(tile / (TILES - 1)) * 100}% 0`

/** What draws it on an element of any size, within its padding. */
export function soleLook(standing: Standing): { className: string; style: CSSProperties } {
  const { sole, mark } = soleTiles(standing)
  return mark === null
    ? { className: 'sole', style: { backgroundPosition: place(sole) } }
    : { className: 'sole marked', style: { backgroundPosition: `${place(mark)}, ${place(sole)}` } }
}

interface SoleProps extends Standing {
  /** What it is about, for the label: "Imke R., Single Whip, left". */
  of?: string
  size?: number
}

/** A student's standing on one posture: fills from the heel as it settles. */
export function Sole({ of, size = 28, ...standing }: SoleProps) {
  const says = soleSays(of, standing)
  const { className, style } = soleLook(standing)
  return (
    <span
      role="img"
      aria-label={says}
      title={says}
      className={`${className} shrink-0`}
      style={{ ...style, height: size, width: size * SOLE_RATIO }}
    />
  )
}
