import type { ReactNode } from 'react'

/** Details beside the picture, never over it. Esc closes it: the screen listens. `atHand` keeps it in reach on a small screen, where beside is below. */
export function Panel({
  title,
  facts,
  close,
  atHand = false,
  children,
}: {
  title: ReactNode
  facts?: ReactNode
  close?: () => void
  atHand?: boolean
  children: ReactNode
}) {
  return (
    <aside
      aria-label="Details"
      className={`border-line bg-plaster px-5 py-4 max-lg:border-t lg:sticky lg:top-0 lg:max-h-screen lg:self-start lg:overflow-y-auto lg:border-l ${atHand ? 'max-lg:sticky max-lg:bottom-0 max-lg:z-20 max-lg:max-h-[60vh] max-lg:overflow-y-auto' : ''}`}
    >
      <div className="flex items-start justify-between gap-3">
        <div>
          <h2 className="text-xl leading-snug">{title}</h2>
          {facts && <p className="text-soft">{facts}</p>}
        </div>
        {close && (
          <button type="button" className="quiet-link" onClick={close}>
            Close
          </button>
        )}
      </div>
      <div className="mt-3 grid gap-4 [&_h3]:mb-1 [&_h3]:text-base">{children}</div>
    </aside>
  )
}
