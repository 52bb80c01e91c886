import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { Choice, Field } from '../ui/Field'
import { Refusal } from '../ui/states'
import { useRefreshMaterial, type Form, type FormText } from './queries'

/** The form itself: its name, what it is derived from, and taking it out. */
export function FormSettings({
  form,
  forms,
  change,
}: {
  form: Form
  forms: Schema['FormItem'][]
  change: (what: string, wanted: FormText) => void
}) {
  const { text } = form
  const navigate = useNavigate()
  const refresh = useRefreshMaterial()
  const [name, setName] = useState(text.name)
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE('/api/forms/{id}', { params: { path: { id: form.id } } })),
    onSuccess: async () => {
      void navigate('/forms')
      await refresh()
    },
  })
  return (
    <details className="border-b border-line bg-plaster px-5 py-2">
      <summary className="font-semibold">About this form</summary>
      <div className="mt-2 grid gap-3 pb-2">
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            change(`naming it ${text.name}`, { ...text, name })
          }}
        >
          <div className="flex-1">
            <Field label="Name of the form" value={name} onChange={setName} />
          </div>
          <button type="submit" className="button" disabled={!name.trim() || name === text.name}>
            Keep the name
          </button>
        </form>
        <Choice
          label="Derived from"
          value={text.parentId ?? ''}
          onChange={(parent) => change('what it is derived from', { ...text, parentId: parent || null })}
        >
          <option value="">no other form</option>
          {forms
            .filter((one) => one.id !== form.id)
            .map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
        </Choice>
        {remove.isError && <Refusal error={remove.error} />}
        <button type="button" className="quiet-link justify-self-start" onClick={() => remove.mutate()}>
          Take this form out of the school
        </button>
      </div>
    </details>
  )
}
