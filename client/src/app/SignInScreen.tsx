import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { hasPasskeys } from '../shared/passkeys'
import { useWaiting } from '../shared/waiting'
import { askForLetter, signIn, signInWithPasskey } from '../shared/session'
import { Field } from '../ui/Field'
import { Door, DoorError } from './Door'
import { SecondStep } from './SecondStep'

interface SignInScreenProps {
  school: string
  isDemo: boolean
  /** Whether somebody who has lost their password can have a letter by mail. */
  mails: boolean
}

export function SignInScreen({ school, isDemo, mails }: SignInScreenProps) {
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const enter = useMutation(signIn)
  const passkey = useMutation(signInWithPasskey)
  const letter = useMutation(askForLetter)
  if (enter.data?.secondFactor)
    return (
      <SecondStep
        school={school}
        back={() => {
          setPassword('')
          enter.reset()
        }}
      />
    )
  return (
    <Door school={school} onSubmit={() => enter.mutate({ email, password })}>
      <Field label="Email" type="email" autoComplete="username" required value={email} onChange={setEmail} />
      <Field
        label="Password"
        type="password"
        autoComplete="current-password"
        required
        value={password}
        onChange={setPassword}
      />
      <Unsent />
      <DoorError error={enter.error ?? passkey.error ?? letter.error} />
      <button type="submit" className="button button-primary" disabled={enter.isPending}>
        Sign in
      </button>
      {hasPasskeys() && (
        <button type="button" className="button" disabled={passkey.isPending} onClick={() => passkey.mutate()}>
          Use a passkey
        </button>
      )}
      {letter.isSuccess ? (
        <p role="status" className="text-pine">
          If somebody signs in with {letter.variables.email}, a letter is on its way there.
        </p>
      ) : mails ? (
        <button
          type="button"
          className="quiet-link justify-self-start"
          disabled={letter.isPending || email.trim() === ''}
          onClick={() => letter.mutate({ email })}
        >
          I have lost my password
        </button>
      ) : (
        !isDemo && <p className="text-soft">Lost your password? Your head of school can write you a letter.</p>
      )}
      {isDemo && <p className="text-soft">This is the demo school. Its sign-ins were printed when it was started.</p>}
    </Door>
  )
}

/** Whoever was signed out in the middle of marking hears that nothing is lost. */
function Unsent() {
  const marks = useWaiting().filter(({ refused }) => refused === undefined).length
  if (marks === 0) return null
  return (
    <p role="status" className="border-l-4 border-ochre-mark pl-3">
      {marks === 1 ? '1 mark is' : `${marks} marks are`} not sent yet. {marks === 1 ? 'It waits' : 'They wait'} on this
      device, and {marks === 1 ? 'is' : 'are'} sent when whoever tapped {marks === 1 ? 'it' : 'them'} signs in.
    </p>
  )
}
