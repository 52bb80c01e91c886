import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { newId } from '../ui/new-id'
import { Choice, Field } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { useRefreshPeople } from './queries'

/** Somebody who teaches, with a sign-in of their own. */
export function StaffPanel({ close }: { close: () => void }) {
  const refresh = useRefreshPeople()
  const [text, setText] = useState<{ name: string; role: Schema['StaffRole']; email: string; password: string }>({
    name: '',
    role: 'assistant',
    email: '',
    password: '',
  })
  const change = (part: Partial<typeof text>) => setText((before) => ({ ...before, ...part }))
  const save = useMutation({
    mutationFn: () => answer(api.POST('/api/staff', { body: { id: newId(), ...text } })),
    onSuccess: () => {
      void refresh()
      close()
    },
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  return (
    <Panel title="Somebody who teaches" close={close}>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Field label="Name" value={text.name} onChange={(name) => change({ name })} error={problem?.at('name')} />
        <Choice label="Role" value={text.role} onChange={(role) => change({ role: role as typeof text.role })}>
          <option value="assistant">assistant: sees mode and caution, no limits</option>
          <option value="instructor">instructor: teaches and marks</option>
          <option value="head">head of school: everything</option>
        </Choice>
        <Field
          label="Email to sign in with"
          type="email"
          value={text.email}
          onChange={(email) => change({ email })}
          error={problem?.at('email')}
        />
        <Field
          label="First password, 12 characters or more"
          type="password"
          autoComplete="new-password"
          value={text.password}
          onChange={(password) => change({ password })}
          error={problem?.at('password')}
        />
        {save.isError && <Refusal error={save.error} shown={['name', 'email', 'password']} />}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          Add
        </button>
      </form>
    </Panel>
  )
}
