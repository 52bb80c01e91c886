import { counted } from '../ui/words'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { posturesQuery } from '../shared/material'
import { newId } from '../ui/new-id'
import { Empty, Refusal } from '../ui/states'
import { addForm, takeStarter } from './data'
import { emptyForm } from './empty-form'

/** A school without a form: take over the catalogue that ships with the program, bring a file, or begin with an empty page. */
export function StartPanel() {
  const postures = useQuery(posturesQuery())
  const starter = useMutation(takeStarter)
  const blank = useMutation(addForm)
  const busy = starter.isPending || blank.isPending
  return (
    <Empty>
      <p className="text-ink">No form has been written down yet.</p>
      <p className="mt-2">
        The starter catalogue has 47 postures with their counts, faults and seated and supported versions, 11 drills,
        and two house forms to change as you like.
      </p>
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="button" className="button button-primary" disabled={busy} onClick={() => starter.mutate()}>
          {starter.isPending ? 'Taking it over…' : 'Take over the starter catalogue'}
        </button>
        <button
          type="button"
          className="button"
          disabled={busy}
          onClick={() => blank.mutate({ id: newId(), text: emptyForm('New form') })}
        >
          Begin with an empty page
        </button>
        <Link className="button" to="/forms/files">
          Bring a file
        </Link>
      </div>
      {(postures.data?.length ?? 0) > 0 && (
        <p className="mt-2">The school has {counted(postures.data!.length, 'posture')} already.</p>
      )}
      {(starter.error ?? blank.error) && (
        <div className="mt-3">
          <Refusal error={(starter.error ?? blank.error)!} />
        </div>
      )}
    </Empty>
  )
}
