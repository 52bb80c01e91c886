/** A small ring with a bar at the hall's front and a wedge where the body points. Degrees clockwise from the front; said in the school's own words. */
export function Dial({ facing, said, size = 30 }: { facing: number; said: string; size?: number }) {
  return (
    <svg
      role="img"
      aria-label={`facing ${said}`}
      viewBox="0 0 30 34"
      style={{ width: size, height: (size * 34) / 30 }}
      className="shrink-0"
    >
      <path d="M10 2H20" className="stroke-ink" strokeWidth="2.4" />
      <circle cx="15" cy="19" r="11.5" className="fill-white stroke-line" strokeWidth="1.6" />
      <path d="M15 19L10.6 8.6A11.3 11.3 0 0 1 19.4 8.6Z" className="fill-pine" transform={`rotate(${facing} 15 19)`} />
      <circle cx="15" cy="19" r="1.9" className="fill-ink" />
    </svg>
  )
}
