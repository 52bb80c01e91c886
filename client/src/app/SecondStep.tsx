import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { signInWithCode } from '../shared/session'
import { Field } from '../ui/Field'
import { Door, DoorError } from './Door'

/** After the password: the code of the app, or one of the recovery codes. */
export function SecondStep({ school, back }: { school: string; back: () => void }) {
  const [code, setCode] = useState('')
  const enter = useMutation(signInWithCode)
  return (
    <Door school={school} onSubmit={() => enter.mutate({ code })}>
      <p>Your password is right. Now the six digits your telephone shows, or one of your recovery codes.</p>
      <Field label="Code" autoComplete="one-time-code" value={code} onChange={setCode} />
      <DoorError error={enter.error} />
      <button type="submit" className="button button-primary" disabled={enter.isPending || code.trim() === ''}>
        Sign in
      </button>
      <p className="text-soft">
        Telephone and codes are lost? Your head of school can take the second factor off.{' '}
        <button type="button" className="quiet-link" onClick={back}>
          Begin again
        </button>
      </p>
    </Door>
  )
}
