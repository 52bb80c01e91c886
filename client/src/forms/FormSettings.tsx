import { useMutation } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import { TextField } from '../shared/fields'
import { useTakeOut } from '../shared/undo'
import { Collapsible } from '../ui/Collapsible'
import { Choice } from '../ui/Field'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { addForm, removeForm, type Form, type FormText } from './data'

interface FormSettingsProps {
  form: Form
  forms: Schema['FormItem'][]
  change: (what: string, wanted: FormText) => Promise<unknown>
}

/** The form itself: its name, what it is derived from, and taking it out. */
export const FormSettings = (props: FormSettingsProps) => (
  <Collapsible name="About this form" className="border-b border-line bg-plaster px-5 py-2">
    <Settings {...props} />
  </Collapsible>
)

function Settings({ form, forms, change }: FormSettingsProps) {
  const { text } = form
  const navigate = useNavigate()
  const takeAway = useTakeOut()
  const draft = useDraft({
    about: ['name of form', form.id],
    what: `the name of ${text.name}`,
    text: { name: text.name },
    version: null,
  })
  const remove = useMutation(removeForm)
  const bringBack = useMutation(addForm)
  const takeOut = () =>
    takeAway(
      remove.mutateAsync({ id: form.id }),
      {
        what: `taking out ${text.name}`,
        says: `${text.name} was taken out of the school.`,
        back: () => bringBack.mutateAsync({ id: form.id, text }),
      },
      () => void navigate('/forms'),
    )
  return (
    <div className="mt-2 grid gap-3 pb-2">
      <form
        className="flex items-end gap-2"
        onSubmit={draft.submit(({ name }) => change(`naming it ${text.name}`, { ...text, name }))}
      >
        <div className="flex-1">
          <TextField draft={draft} name="name" label="Name of the form" />
        </div>
        <button type="submit" className="button" disabled={!draft.text.name.trim() || !draft.dirty}>
          Save the name
        </button>
      </form>
      <Choice
        label="Derived from"
        value={text.parentId ?? ''}
        onChange={(parent) => void change('what it is derived from', { ...text, parentId: parent || null })}
      >
        <Option value="">no other form</Option>
        {forms
          .filter((one) => one.id !== form.id)
          .map((one) => (
            <Option key={one.id} value={one.id}>
              {one.name}
            </Option>
          ))}
      </Choice>
      {remove.isError && <Refusal error={remove.error} />}
      <button type="button" className="quiet-link justify-self-start" onClick={takeOut}>
        Take this form out of the school
      </button>
    </div>
  )
}
