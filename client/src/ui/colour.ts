/** Relative luminance of #RRGGBB (WCAG 2.2). */
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const part = parseInt(colour.slice(at, at + 2), 16) / 255
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

function darken(colour: string, by: number): string {
  return (
    '#' +
    [1, 3, 5]
      .map((at) =>
        Math.round(parseInt(colour.slice(at, at + 2), 16) * by)
          .toString(16)
          .padStart(2, '0'),
      )
      .join('')
  )
}

/** Background and text for a chip in a cohort's colour, readable at small sizes: dark text on a light colour, white on one darkened until it reads. */
export function readable(colour: string): { background: string; color: string } {
  if (luminance(colour) > 0.45) return { background: colour, color: '#20262a' }
  let background = colour
  for (let by = 0.97; 1.05 / (luminance(background) + 0.05) < 4.8 && by > 0.3; by -= 0.03)
    background = darken(colour, by)
  return { background, color: '#ffffff' }
}

/** A line in a cohort's colour that still shows on paper. */
export const visibleLine = (colour: string) => (luminance(colour) > 0.45 ? darken(colour, 0.72) : colour)
