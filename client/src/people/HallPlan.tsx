import type { Schema } from '../api/client'

type Plan = Pick<Schema['HallText'], 'name' | 'width' | 'depth' | 'rail' | 'railWall' | 'mirror'>

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
      {hall.rail > 0 && <line {...railOf(hall)} className="stroke-pine" strokeWidth="0.18" />}
    </svg>
  )
}

/** The rail in the middle of its wall, a little off it. */
function railOf({ width, depth, rail, railWall }: Plan) {
  const aside = railWall === 'left' || railWall === 'right'
  const wall = aside ? depth : width
  const [from, to] = [(wall - Math.min(rail, wall)) / 2, (wall + Math.min(rail, wall)) / 2]
  const off = { front: 0.3, back: depth - 0.3, left: 0.3, right: width - 0.3 }[railWall]
  return aside ? { x1: off, x2: off, y1: from, y2: to } : { x1: from, x2: to, y1: off, y2: off }
}
