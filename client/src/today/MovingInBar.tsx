import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { leave } from '../shared/leaving'
import { Sole } from '../ui/Sole'
import { movingInQuery, putMovingInAside } from './data'
import { steps } from './moving-in'

/** Over every room until the first term is planned: how far the move is, what comes next, and the way there. */
export function MovingInBar() {
  const moving = useQuery(movingInQuery())
  const aside = useMutation(putMovingInAside)
  const queries = useQueryClient()
  // A step is done anywhere in the house: after every change it is looked at again.
  useEffect(
    () =>
      queries.getMutationCache().subscribe(({ type, mutation }) => {
        if (type === 'updated' && mutation.state.status === 'success')
          void queries.invalidateQueries({ queryKey: movingInQuery().queryKey })
      }),
    [queries],
  )
  if (!moving.data) return null
  const open = moving.data.steps.find(({ done }) => !done)
  const done = moving.data.steps.filter((step) => step.done).length
  return (
    <nav
      aria-label="Moving in"
      className="screen-only flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-floorboard px-5 py-2"
    >
      <Link
        to="/moving-in"
        className="flex items-center gap-2"
        aria-label={`Moving in: ${done} of ${moving.data.steps.length} steps are done`}
      >
        <span aria-hidden className="flex max-md:hidden">
          {moving.data.steps.map((step, at) => (
            <Sole
              key={step.step}
              stage={step.done ? 'flowing' : 'notMet'}
              side={at % 2 === 0 ? 'left' : 'right'}
              size={22}
            />
          ))}
        </span>
        <span aria-hidden className="text-soft tabular-nums md:hidden">
          {done} of {moving.data.steps.length}
        </span>
      </Link>
      {open ? (
        <>
          <span className="min-w-0 flex-1">
            Next:{' '}
            <Link to={steps[open.step].to} className="quiet-link font-semibold">
              {steps[open.step].name}
            </Link>
            <span className="text-soft max-md:hidden"> · {open.says}</span>
          </span>
          <Link to="/moving-in" className="quiet-link">
            All steps
          </Link>
        </>
      ) : (
        <>
          <span className="flex-1">You have moved in: your first term is planned and announced.</span>
          <button
            type="button"
            className="button"
            disabled={aside.isPending}
            onClick={() => leave(() => aside.mutate({ putAside: true }))}
          >
            Put this away
          </button>
        </>
      )}
    </nav>
  )
}
