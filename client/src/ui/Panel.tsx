import type { ReactNode } from 'react'

/** Details beside the picture, never over it. Esc closes it: the screen listens. */
export function Panel({ title, facts, close, children }: { title: ReactNode; facts?: ReactNode; close?: () => void; children: ReactNode }) {
  return (
    <aside aria-label="Details" className="border-l border-line bg-plaster px-5 py-4">
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
