import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { waiting } from '../shared/waiting'
import { factOf, type FactKind, type Facts, type Lesson } from './data'
import { KIND } from './use-trying'

/** Something that was seen, and how it is told: "Imke, Single Whip: alone". */
interface SaidOf {
  seen: Omit<Facts['observation'], 'id'>
  says: string
}

/** Adds facts about a lesson; they wait for the network where there is none. What was observed in one step has one undo. */
export function useMarking(lesson: Lesson) {
  const { person } = useSignedIn()
  const { did } = useUndo()
  const add = <K extends FactKind>(kind: K, fact: Omit<Facts[K], 'id'>, says: string): string => {
    const made = factOf(kind, lesson, fact)
    void waiting.add({ id: made.fact.id, kind: KIND, variables: made, by: person.id, says })
    return made.fact.id
  }
  const withdraw = (observationId: string, says: string) => add('withdrawal', { observationId }, `Withdrawing ${says}`)
  const observed = (all: readonly SaidOf[], what: string) => {
    const made = all.map(({ seen, says }) => ({ says, id: add('observation', seen, says) }))
    did({ what, back: () => Promise.resolve(made.forEach(({ id, says }) => withdraw(id, says))) })
  }
  return { add, withdraw, observed }
}
