import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { announcePlan, movesQuery, planQuery, takeRemedy, takeStep, type PlanPath, type PlanShown } from './data'

/** One class's term: what is shown of it, and the steps a head takes. Every step answers with the plan that follows from it. */
export function usePlan(path: PlanPath, shown: PlanShown) {
  return {
    plan: useQuery(planQuery(path, shown)),
    step: useMutation(takeStep),
    announce: useMutation(announcePlan),
    remedy: useMutation(takeRemedy),
  }
}

/** A posture on its way, and what each lesson would cost it. */
export function useMoving(path: PlanPath, drop: (chip: string, date: string) => void) {
  const [moving, setMoving] = useState<{ chip: string; at?: number }>()
  const costs = useQuery(movesQuery(path, moving?.chip))
  return {
    refused: moving ? costs.error : null,
    now: moving && { ...moving, costs: costs.data && Object.fromEntries(costs.data.map((cost) => [cost.date, cost])) },
    start: (chip: string, at?: number) => setMoving({ chip, at }),
    cancel: () => setMoving(undefined),
    drop: (chip: string, date: string) => {
      setMoving(undefined)
      if (costs.data?.find((cost) => cost.date === date)?.verdict !== 'here') drop(chip, date)
    },
  }
}
