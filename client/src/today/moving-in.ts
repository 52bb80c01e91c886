import type { Schema } from '../api/client'

type Step = Schema['MovingInStep']

/** Each step in a head's words, and the screen on which it is done. */
export const steps: Record<Step, { name: string; to: string }> = {
  school: { name: 'Name and place', to: '/school?view=school' },
  password: { name: 'Your own password', to: '/school?view=account' },
  halls: { name: 'Halls', to: '/people?view=halls' },
  ladder: { name: 'The sash ladder', to: '/people?view=ladder' },
  material: { name: 'Forms', to: '/forms' },
  people: { name: 'Students', to: '/people?view=roster' },
  classes: { name: 'Classes and cohorts', to: '/people?view=classes' },
  takenOver: { name: 'What people already know', to: '/progress/taken-over' },
  term: { name: 'The term', to: '/school?view=terms' },
  assign: { name: 'Who learns what', to: '/people?view=assign' },
  plan: { name: 'The plan', to: '/term' },
}
