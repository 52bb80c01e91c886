import type { ReactNode } from 'react'

/** A key to press. */
export function Kbd({ children }: { children: ReactNode }) {
  return (
    <kbd className="mx-0.5 inline-block max-md:hidden rounded border border-b-2 border-line bg-plaster px-1.5 font-sans text-small text-ink">
      {children}
    </kbd>
  )
}
