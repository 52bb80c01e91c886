import { useMutation } from '@tanstack/react-query'
import { signOut, useSignedIn } from '../shared/session'
import { Heading } from '../ui/states'
import { SecondFactor } from './SecondFactor'

/** For a head whose school asks for a second factor they do not have yet: nothing else comes before it. */
export function SecureFirst() {
  const { person } = useSignedIn()
  const out = useMutation(signOut)
  return (
    <main className="mx-auto max-w-3xl pb-10">
      <Heading title="Before you go on" facts={`Signed in as ${person.name}`}>
        <button type="button" className="button" disabled={out.isPending} onClick={() => out.mutate()}>
          Sign out
        </button>
      </Heading>
      <div className="grid gap-6 px-5">
        <p>
          This school asks every head for a second factor, so that nobody else opens it with a password they have found.
          Set one up; then everything is here again.
        </p>
        <SecondFactor />
      </div>
    </main>
  )
}
