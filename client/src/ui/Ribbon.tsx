import type { Schema } from '../api/client'
import { visibleLine } from './colour'

/** A knotted sash in the cohort's colour; one bar for the newer half, two for the senior half. */
export function Ribbon({ colour, half = 'none', size = 34 }: { colour: string; half?: Schema['Half']; size?: number }) {
  return (
    <svg viewBox="0 0 34 36" style={{ width: size, height: (size * 36) / 34 }} aria-hidden className="shrink-0">
      <g fill={colour} stroke={visibleLine(colour)} strokeWidth="0.8" strokeLinejoin="round">
        <path d="M13 18L8 33L13.5 30.5L17 20Z" />
        <path d="M21 18L26 33L20.5 30.5L17 20Z" />
        <path d="M0.5 6H33.5V18H0.5Z" />
        <path d="M11.5 4.5H22.5V19.5H11.5Z" />
      </g>
      <g className="fill-white">
        {half !== 'none' && <rect x="2.5" y="10" width="7" height="2" />}
        {half === 'senior' && <rect x="2.5" y="13.6" width="7" height="2" />}
      </g>
    </svg>
  )
}
