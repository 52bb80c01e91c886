import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { signIn } from '../shared/session'
import { Field } from '../ui/Field'
import { SOLE_PATH } from '../ui/sole-path'

export function SignInScreen({ school, isDemo }: { school: string; isDemo: boolean }) {
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const enter = useMutation(signIn)
  return (
    <main className="grid min-h-screen place-items-center p-6">
      <form
        className="w-full max-w-sm rounded-xl border border-line bg-paper p-8"
        onSubmit={(event) => {
          event.preventDefault()
          enter.mutate({ email, password })
        }}
      >
        <span className="flex items-center gap-3">
          <svg viewBox="0 0 24 40" className="h-9" aria-hidden>
            <path d={SOLE_PATH} className="fill-pine" />
          </svg>
          <span>
            <h1 className="text-2xl">Zeitplan</h1>
            <span className="text-soft">{school || 'A school that has no name yet'}</span>
          </span>
        </span>
        <div className="mt-6 grid gap-4">
          <Field label="Email" type="email" autoComplete="username" required value={email} onChange={setEmail} />
          <Field
            label="Password"
            type="password"
            autoComplete="current-password"
            required
            value={password}
            onChange={setPassword}
          />
          {enter.isError && (
            <p role="alert" className="text-lacquer">
              {enter.error.message}
            </p>
          )}
          <button type="submit" className="button button-primary" disabled={enter.isPending}>
            Sign in
          </button>
          {isDemo && (
            <p className="text-soft">This is the demo school. Its sign-ins were printed when it was started.</p>
          )}
        </div>
      </form>
    </main>
  )
}
