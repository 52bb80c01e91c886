import { useMutation, useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { Sole } from '../ui/Sole'
import { Heading } from '../ui/states'
import { movingInQuery, putMovingInAside } from './data'
import { steps } from './moving-in'

/** The way from an empty school to a planned first term: one print for each step, filled once it is done. */
export function MovingInScreen() {
  const moving = useQuery(movingInQuery())
  const aside = useMutation(putMovingInAside)
  const go = useNavigate()
  if (!moving.data) return <Opening of={[moving]} what="Looking at what is there" />
  const { steps: all, putAside } = moving.data
  const done = all.filter((step) => step.done).length
  const next = all.find((step) => !step.done)
  return (
    <>
      <Heading
        title={next ? 'Moving in' : 'You have moved in'}
        facts={
          next
            ? `${done} of ${all.length} steps are done. Leave at any time: what is there stays, and this page knows where you were.`
            : 'Your first term is planned and announced.'
        }
      >
        {putAside ? (
          <button type="button" className="button" onClick={() => aside.mutate({ putAside: false })}>
            Show it over every page again
          </button>
        ) : (
          <button
            type="button"
            className={next ? 'button' : 'button button-primary'}
            disabled={aside.isPending}
            onClick={() => aside.mutate({ putAside: true }, { onSuccess: () => void go('/') })}
          >
            Put this away
          </button>
        )}
      </Heading>
      <ol className="mx-5 mb-10 max-w-3xl border-t border-line">
        {all.map((step, at) => (
          <StepRow key={step.step} step={step} at={at} isNext={step === next} />
        ))}
      </ol>
    </>
  )
}

function StepRow({ step, at, isNext }: { step: Schema['MovingInStepView']; at: number; isNext: boolean }) {
  const { name, to } = steps[step.step]
  return (
    <li className={`flex items-center gap-4 border-b border-fine px-3 py-2.5 ${isNext ? 'bg-white' : 'bg-paper'}`}>
      <span aria-hidden className={`flex w-14 ${at % 2 === 0 ? 'justify-start' : 'justify-end'}`}>
        <Sole stage={step.done ? 'flowing' : 'notMet'} side={at % 2 === 0 ? 'left' : 'right'} size={36} />
      </span>
      <span className="min-w-0 flex-1">
        <Link to={to} className="font-serif text-lg hover:underline">
          {name}
        </Link>
        <span className="sr-only">{step.done ? ', done: ' : ', open: '}</span>
        <span className="block text-soft">{step.says}</span>
      </span>
      {isNext ? (
        <Link to={to} className="button button-primary" aria-label={`Do this next: ${name}`}>
          Do this next
        </Link>
      ) : (
        <Link to={to} className="quiet-link" aria-label={step.done ? `Look at ${name}` : `Do this: ${name}`}>
          {step.done ? 'Look' : 'Do this'}
        </Link>
      )}
    </li>
  )
}
