import type { ReactNode } from 'react'

export interface FigureShapes {
  box: string
  shapes: readonly { path: string; fill: string; edge: string; width: number }[]
}

interface FigureProps extends FigureShapes {
  /** What it shows, for whoever does not see it. */
  label: string
  className?: string
  /** Drawn over it, in its own centimetres. */
  children?: ReactNode
}

/** A body as it was drawn by the rules: shapes from the furthest to the nearest. */
export function Figure({ box, shapes, label, className, children }: FigureProps) {
  const body = shapes.map(({ path, fill, edge, width }, at) => (
    <path key={at} d={path} fill={fill} stroke={edge} strokeWidth={width} />
  ))
  return children ? (
    <svg viewBox={box} className={className}>
      <g role="img" aria-label={label}>
        {body}
      </g>
      {children}
    </svg>
  ) : (
    <svg role="img" aria-label={label} viewBox={box} className={className}>
      {body}
    </svg>
  )
}
