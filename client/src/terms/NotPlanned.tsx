import { Empty } from '../ui/states'

interface NotPlannedProps {
  assigned: boolean
  firstCohort: { id: string; name: string } | undefined
  planning: boolean
  /** Left out for those who may look only. */
  plan: (() => void) | undefined
}

/** Where the board will be: what has to come first, and the button that does it. */
export function NotPlanned({ assigned, firstCohort, planning, plan }: NotPlannedProps) {
  const next = assigned
    ? { name: planning ? 'Planning…' : 'Plan it now', act: plan ?? (() => undefined), busy: planning }
    : firstCohort
      ? { name: `Assign to ${firstCohort.name}`, to: `/people?view=assign&cohort=${firstCohort.id}` }
      : { name: 'Add a cohort', to: '/people' }
  return (
    <Empty next={plan !== undefined && [next]}>
      {assigned
        ? 'This term has not been planned. Planning spreads what is assigned over its lessons.'
        : 'No cohort of this class has a segment yet. What is assigned is what can be planned.'}
    </Empty>
  )
}
