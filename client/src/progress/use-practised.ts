import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Schema } from '../api/client'
import { touch } from '../shared/queries'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { useWaiting, waiting } from '../shared/waiting'
import { newId } from '../ui/new-id'
import { dayMonth } from '../ui/words'
import { sendPractised, type Practised } from './data'

const KIND = 'practice'

/** What people said they practised goes on being sent wherever somebody is. */
export function useSendingPractice() {
  const queries = useQueryClient()
  useEffect(() => {
    waiting.through(KIND, {
      send: (fact: Practised) => sendPractised(fact),
      landed: () => touch(queries, ['home']),
    })
  }, [queries])
}

/** What the people of a class practised, with everything that was tapped, sent or not; and the way to add to it. */
export function usePractised(classId: string) {
  const { person } = useSignedIn()
  const { did } = useUndo()
  const entries = useWaiting().filter(
    (entry) => entry.kind === KIND && (entry.variables as Practised).classId === classId,
  )
  /** Minutes on a day, what waits included; 0 for nothing. */
  const minutesOn = (who: Schema['HomePracticePractiser'], date: string) => {
    const tapped = entries
      .filter((entry) => entry.refused === undefined)
      .map((entry) => (entry.variables as Practised).log)
      .findLast((log) => log.studentId === who.studentId && log.date === date)
    return tapped?.minutes ?? who.practised.find((day) => day.date === date)?.minutes ?? 0
  }
  const say = (who: Schema['HomePracticePractiser'], date: string, minutes: number) => {
    const before = minutesOn(who, date)
    const says = `${who.name}, ${dayMonth(date)}: ${minutes > 0 ? `${minutes} min` : 'nothing'}`
    const send = (it: number) => {
      const log = { id: newId(), studentId: who.studentId, date, minutes: it }
      const fact: Practised = { classId, log }
      void waiting.add({ id: log.id, kind: KIND, variables: fact, by: person.id, says })
    }
    send(minutes)
    did({ what: says, back: () => Promise.resolve(send(before)) })
  }
  return { entries, minutesOn, say }
}
