/**
 * For a button's onPointerDown: a press that ends where it began is a press, also where the button has moved away from under the hand meanwhile, because what it would do was said above it just then.
 */
export function steadyPress({ currentTarget: button, isPrimary }: React.PointerEvent<HTMLButtonElement>) {
  if (!isPrimary) return
  const began = button.getBoundingClientRect()
  const over = new AbortController()
  const end = ({ type, clientX: x, clientY: y }: PointerEvent) => {
    over.abort()
    const isWhereItBegan = x > began.left && x < began.right && y > began.top && y < began.bottom
    // A touch belongs to the button wherever that has gone, but its click does not: so what lies under the hand is asked for.
    if (type === 'pointerup' && isWhereItBegan && !button.contains(document.elementFromPoint(x, y))) button.click()
  }
  window.addEventListener('pointerup', end, { signal: over.signal })
  window.addEventListener('pointercancel', end, { signal: over.signal })
}
