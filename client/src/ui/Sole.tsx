import type { Schema } from '../api/client'
import { SOLE_PATH } from './sole-path'
import { stageWords, weightWords } from './words'

interface SoleProps {
  stage: Schema['Stage']
  side: Schema['Side']
  correction?: Schema['Weight'] | null
  fading?: boolean
  /** What it is about, for the label: "Imke R., Single Whip, left". */
  of?: string
  size?: number
}

/** How far up the sole is filled, from the heel at 39 to the toes at 1. */
const filledFrom: Record<Schema['Stage'], number> = {
  notMet: 40,
  shown: 30,
  follows: 21,
  alone: 12,
  flowing: 0,
  settled: 0,
}

/** What all soles draw with; once on a page that shows any. */
export function SoleInk() {
  return (
    <svg aria-hidden className="absolute size-0">
      <defs>
        {Object.entries(filledFrom).map(([stage, top]) => (
          <clipPath key={stage} id={`sole-${stage}`}>
            <rect x="0" y={top} width="24" height={41 - top} />
          </clipPath>
        ))}
        <pattern id="sole-hatch" width="3.4" height="3.4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="1.5" height="3.4" className="fill-pine" />
        </pattern>
      </defs>
    </svg>
  )
}

/** A student's standing on one posture: fills from the heel as it settles. */
export function Sole({ stage, side, correction, fading = false, of, size = 28 }: SoleProps) {
  const says = [
    of,
    stageWords[stage] + (fading ? ', fading' : ''),
    correction && `correction: ${weightWords[correction]}`,
  ]
    .filter(Boolean)
    .join(': ')
  return (
    <svg role="img" aria-label={says} viewBox="-4 -4 34 50" style={{ height: size, width: size * 0.68 }}>
      <title>{says}</title>
      <g transform={side === 'right' ? 'translate(24 0) scale(-1 1)' : undefined}>
        <path d={SOLE_PATH} className="fill-paper" />
        {stage !== 'notMet' && (
          <path
            d={SOLE_PATH}
            clipPath={`url(#sole-${stage})`}
            className={fading ? undefined : 'fill-pine'}
            fill={fading ? 'url(#sole-hatch)' : undefined}
          />
        )}
        <path
          d={SOLE_PATH}
          fill="none"
          className={stage === 'notMet' ? 'stroke-soft' : 'stroke-pine'}
          strokeWidth={stage === 'notMet' ? 1.2 : 1.6}
          strokeDasharray={stage === 'notMet' ? '2.5 2.5' : undefined}
        />
      </g>
      {stage === 'settled' && <path d="M3 43.5H21" className="stroke-pine" strokeWidth="2.6" />}
      {correction === 'keyPoint' && (
        <path d="M23 -3L29.5 8.5H16.5Z" className="fill-lacquer stroke-paper" strokeWidth="1.2" />
      )}
      {correction === 'shape' && (
        <path d="M23 -3L29 3.5L23 10L17 3.5Z" className="fill-paper stroke-ochre-mark" strokeWidth="2.2" />
      )}
      {correction === 'finesse' && (
        <circle cx="23" cy="3" r="4.4" className="fill-paper stroke-soft" strokeWidth="2.2" />
      )}
    </svg>
  )
}
