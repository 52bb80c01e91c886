import { useEffect, useRef, type ReactNode } from 'react'
import { Link } from 'react-router'
import { Problem } from '../api/problem'

export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="p-8 text-soft">
      {what}…
    </p>
  )
}

/** What went wrong, and a way to try again. */
export function Failure({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <div role="alert" className="m-8 max-w-xl self-start border-l-4 border-lacquer pl-4">
      <p className="font-semibold">{error.message}</p>
      {retry && (
        <button type="button" className="button mt-3" onClick={retry}>
          Try again
        </button>
      )}
    </div>
  )
}

/** A refusal of a change: what is wrong and, when somebody else saved first, what they changed. */
export function Refusal({ error, shown = [], reload }: { error: Error; shown?: string[]; reload?: () => void }) {
  const problem = error instanceof Problem ? error : undefined
  return (
    <div role="alert" className="border-l-4 border-lacquer pl-3">
      <p className="font-semibold">{error.message}</p>
      <ul>
        {[...(problem?.changes ?? []), ...(problem?.others(shown) ?? [])].map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {reload && problem?.status === 409 && (
        <button type="button" className="quiet-link mt-1" onClick={reload}>
          Show what is there now
        </button>
      )}
    </div>
  )
}

/** What can be done next: somewhere to go, or something that happens here. */
export type NextStep = { name: string; to: string } | { name: string; act: () => void; busy?: boolean }

interface EmptyProps {
  /** The first of them is what most do; false for whoever may look only. */
  next?: readonly NextStep[] | false
  children: ReactNode
}

/** Nothing here yet: the next step, and a way to do it. */
export function Empty({ next, children }: EmptyProps) {
  return (
    <div className="m-8 max-w-xl rounded-lg border border-dashed border-line p-6 text-soft">
      {children}
      {next && (
        <p className="mt-3 flex flex-wrap gap-3">
          {next.map((step, at) => {
            const look = at === 0 ? 'button button-primary' : 'button'
            return 'to' in step ? (
              <Link key={step.name} className={look} to={step.to}>
                {step.name}
              </Link>
            ) : (
              <button key={step.name} type="button" className={look} disabled={step.busy} onClick={step.act}>
                {step.name}
              </button>
            )
          })}
        </p>
      )}
    </div>
  )
}

/** Title, one line of facts, and what can be done here. The window is called by it too. */
export function Heading({ title, facts, children }: { title: ReactNode; facts?: ReactNode; children?: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null)
  useEffect(() => {
    document.title = `${heading.current?.textContent ?? ''} · Zeitplan`
  })
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3 px-5 pt-5 pb-3">
      <div className="min-w-0">
        <h1 ref={heading} className="text-title leading-tight">
          {title}
        </h1>
        {facts && <p className="mt-1 text-soft">{facts}</p>}
      </div>
      <div className="flex flex-wrap items-center gap-3">{children}</div>
    </div>
  )
}
