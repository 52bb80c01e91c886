import type { Schema } from '../api/client'

type Plan = Pick<Schema['HallText'], 'name' | 'width' | 'depth' | 'rail' | 'mirror'>

/** A hall from above, true to scale; nothing while its size is not written. */
export function HallPlan({ hall, width }: { hall: Plan; width: number }) {
  if (!(hall.width > 0 && hall.depth > 0)) return null
  return (
    <svg
      viewBox={`-0.2 -0.4 ${hall.width + 0.4} ${hall.depth + 0.6}`}
      style={{ width }}
      role="img"
      aria-label={`${hall.name}, ${hall.width} by ${hall.depth} metres`}
    >
      <rect width={hall.width} height={hall.depth} className="fill-floorboard stroke-ink" strokeWidth="0.12" />
      {Array.from({ length: Math.floor(hall.width) }, (_, at) => (
        <line key={at} x1={at + 1} x2={at + 1} y1="0" y2={hall.depth} className="stroke-line" strokeWidth="0.03" />
      ))}
      <line
        x1={hall.width / 2 - 1}
        x2={hall.width / 2 + 1}
        y1="-0.22"
        y2="-0.22"
        className="stroke-ink"
        strokeWidth="0.14"
      />
      {hall.mirror && (
        <line x1="0.4" x2={hall.width - 0.4} y1="0.14" y2="0.14" className="stroke-river" strokeWidth="0.16" />
      )}
      {hall.rail > 0 && (
        <line
          x1={(hall.width - Math.min(hall.rail, hall.width)) / 2}
          x2={(hall.width + Math.min(hall.rail, hall.width)) / 2}
          y1={hall.depth - 0.3}
          y2={hall.depth - 0.3}
          className="stroke-pine"
          strokeWidth="0.18"
        />
      )}
    </svg>
  )
}
