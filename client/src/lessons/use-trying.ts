import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { waiting } from '../shared/waiting'
import { wayWords } from '../ui/words'
import { factOf, type Facts, type Lesson } from './data'

/** What waits to be sent about a lesson. */
export const KIND = 'register'

/** Whose correction, and which. */
export interface Corrected extends Pick<
  Facts['way'],
  'studentId' | 'postureId' | 'side' | 'from' | 'faultId' | 'words' | 'principleId'
> {
  /** As it is told: "Imke, Single Whip". */
  name: string
}

/** Says what was done about a correction in a lesson, or that it was not; it waits for the network where there is none, and can be undone. */
export function useTrying(lesson: Lesson) {
  const { person } = useSignedIn()
  const { did } = useUndo()
  return ({ name, ...corrected }: Corrected, way: Schema['Way'], done: boolean, cause: string) => {
    const says = `${name}: ${done ? '' : 'not '}${wayWords[way]}`
    const say = (isDone: boolean) => {
      const made = factOf('way', lesson, { ...corrected, way, cause, done: isDone })
      void waiting.add({ id: made.fact.id, kind: KIND, variables: made, by: person.id, says })
    }
    say(done)
    did({ what: says, back: () => Promise.resolve(say(!done)) })
  }
}
