import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { removeDemo, useSignedIn } from '../shared/session'
import { AlertDialog } from '../ui/AlertDialog'
import { Refusal } from '../ui/states'

/** The demo school beside one's own: looked at in a window of its own, and taken away when it is of no more use. */
export function DemoBeside() {
  const { demoAddress } = useSignedIn()
  const [asking, setAsking] = useState(false)
  const remove = useMutation(removeDemo)
  if (!demoAddress) return null
  return (
    <section className="mt-8 border-t border-line pt-4">
      <h2 className="text-lg">The demo school</h2>
      <p className="mt-1 max-w-prose text-soft">
        It is still there, with its own people and its own sign-ins, and knows nothing of your school.
      </p>
      {remove.error && <Refusal error={remove.error} />}
      <p className="mt-2 flex flex-wrap gap-5">
        <a className="quiet-link" href={demoAddress} target="_blank" rel="noreferrer">
          Look at it in another window
        </a>
        <button type="button" className="quiet-link" onClick={() => setAsking(true)}>
          Take it away
        </button>
      </p>
      <AlertDialog
        open={asking}
        title="Take the demo school away?"
        act="Take it away"
        leave="Keep it"
        busy={remove.isPending}
        onAct={() => remove.mutate(undefined, { onSettled: () => setAsking(false) })}
        onLeave={() => setAsking(false)}
      >
        <p>Everything in it goes and does not come back. Nothing of your own school changes.</p>
      </AlertDialog>
    </section>
  )
}
