import { useQuery } from '@tanstack/react-query'
import { formQuery } from '../shared/material'

/** A run of a form by its ends: "Crane Cools Wings, left to Cross Hands, right". */
export function RunName({ formId, fromId, toId }: { formId: string; fromId: string; toId: string }) {
  const form = useQuery(formQuery(formId)).data
  const name = (id: string) => form?.study.positions.find((position) => position.id === id)?.name ?? '…'
  return (
    <>
      <span className="font-serif font-semibold text-ink">
        {fromId === toId ? name(fromId) : `${name(fromId)} to ${name(toId)}`}
      </span>{' '}
      <span className="text-soft">{form?.text.name}</span>
    </>
  )
}
