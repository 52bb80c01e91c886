import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import { ChoiceField, DraftProblem, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { newId } from '../ui/new-id'
import { Panel } from '../ui/Panel'
import { Option } from '../ui/Select'
import { addStaff } from './data'

const fresh = { name: '', role: 'assistant' as Schema['StaffRole'], email: '', password: '' }

const shown = (field: string) => ['name', 'email', 'password'].includes(field)

/** Somebody who teaches, with a sign-in of their own. */
export function StaffPanel({ close }: { close: () => void }) {
  const [made] = useState(newId)
  const draft = useDraft({
    about: ['staff', 'new'],
    what: 'the new sign-in',
    text: fresh,
    version: null,
    survivesReload: false,
  })
  const add = useMutation(addStaff)
  return (
    <Panel title="Somebody who teaches" close={() => leave(close)} forWriting>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit((text) => add.mutateAsync({ id: made, ...text }), close)}
      >
        <TextField draft={draft} name="name" label="Name" />
        <ChoiceField draft={draft} name="role" label="Role">
          <Option value="assistant">assistant: sees mode and caution, no limits</Option>
          <Option value="instructor">instructor: teaches and marks</Option>
          <Option value="head">head of school: everything</Option>
        </ChoiceField>
        <TextField draft={draft} name="email" label="Email to sign in with" type="email" />
        <TextField
          draft={draft}
          name="password"
          label="First password, 12 characters or more"
          type="password"
          autoComplete="new-password"
        />
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save="Add" cancel={() => leave(close)} />
      </form>
    </Panel>
  )
}
