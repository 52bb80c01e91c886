interface QrCodeProps {
  /** A row a string, a dark square where it has <code>#</code>; the quiet edge is part of it. */
  rows: readonly string[]
  /** What it is, for whoever cannot see it. */
  label: string
}

/** A picture to be scanned; black on white whatever the theme, or telephones do not read it. */
export function QrCode({ rows, label }: QrCodeProps) {
  const path = rows
    .flatMap((row, y) => Array.from(row, (square, x) => (square === '#' ? `M${x} ${y}h1v1h-1z` : '')))
    .join('')
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${rows.length} ${rows.length}`}
      className="size-52 bg-white"
      shapeRendering="crispEdges"
    >
      <path d={path} fill="#000" />
    </svg>
  )
}
