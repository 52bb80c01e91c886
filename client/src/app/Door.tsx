import type { FormEvent, ReactNode } from 'react'
import { SOLE_PATH } from '../ui/sole-path'

/** The page before anybody is in: the mark, the school's name, and one thing to do. */
export function Door({ school, onSubmit, children }: { school: string; onSubmit?: () => void; children: ReactNode }) {
  const submit = (event: FormEvent) => {
    event.preventDefault()
    onSubmit?.()
  }
  return (
    <main className="grid min-h-screen place-items-center p-6">
      <form className="w-full max-w-sm rounded-xl border border-line bg-paper p-8" noValidate onSubmit={submit}>
        <span className="flex items-center gap-3">
          <svg viewBox="0 0 24 40" className="h-9" aria-hidden>
            <path d={SOLE_PATH} className="fill-pine" />
          </svg>
          <span>
            <h1 className="text-2xl">Zeitplan</h1>
            <span className="text-soft">{school || 'A school that has no name yet'}</span>
          </span>
        </span>
        <div className="mt-6 grid gap-4">{children}</div>
      </form>
    </main>
  )
}

export function DoorError({ error }: { error: Error | null }) {
  return (
    error && (
      <p role="alert" className="text-lacquer">
        {error.message}
      </p>
    )
  )
}
