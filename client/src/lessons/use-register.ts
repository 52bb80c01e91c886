import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { touch } from '../shared/queries'
import { useSignedIn } from '../shared/session'
import { useUndo } from '../shared/undo'
import { useWaiting, waiting } from '../shared/waiting'
import {
  factChanges,
  factOf,
  registerQuery,
  sendFact,
  type Facts,
  type FactKind,
  type Lesson,
  type RegisterFact,
  type RegisterItem,
  type RegisterStudent,
} from './data'
import { KIND, useTrying } from './use-trying'
import { withWaiting } from './with-waiting'

/** Marks go on being sent wherever somebody is, not only while the register is on the screen. */
export function useSendingMarks() {
  const queries = useQueryClient()
  useEffect(() => {
    waiting.through(KIND, {
      send: (fact: RegisterFact) => sendFact(fact),
      landed: () => touch(queries, factChanges),
    })
  }, [queries])
}

/** A lesson's register with everything that was tapped, sent or not; and the ways to add to it. */
export function useRegister(lesson: Lesson) {
  const { person } = useSignedIn()
  const { did } = useUndo()
  const register = useQuery(registerQuery(lesson))
  const everything = useWaiting()
  const entries = useMemo(
    () =>
      everything.filter((entry) => {
        const { lesson: its } = entry.variables as RegisterFact
        return entry.kind === KIND && its.classId === lesson.classId && its.date === lesson.date
      }),
    [everything, lesson.classId, lesson.date],
  )
  const data = useMemo(() => register.data && withWaiting(register.data, entries), [register.data, entries])

  const add = <K extends FactKind>(kind: K, fact: Omit<Facts[K], 'id'>, says: string): string => {
    const made = factOf(kind, lesson, fact)
    void waiting.add({ id: made.fact.id, kind: KIND, variables: made, by: person.id, says })
    return made.fact.id
  }
  const withdraw = (observationId: string, says: string) => add('withdrawal', { observationId }, `Withdrawing ${says}`)
  /** An observation can be taken back by itself as well as with the undo. */
  const observe = (
    student: RegisterStudent,
    item: RegisterItem,
    sign: Facts['observation']['sign'],
    rest: Partial<Facts['observation']>,
    words: string,
  ) => observeAll([{ student, item }], sign, rest, words, `${student.name}, ${item.name}`)
  /** The same of several, in one step with one undo. */
  const observeAll = (
    seen: readonly { student: RegisterStudent; item: RegisterItem }[],
    sign: Facts['observation']['sign'],
    rest: Partial<Facts['observation']>,
    words: string,
    of: string,
  ) => {
    const made = seen.map(({ student: { studentId, name, mode }, item }) => {
      const says = `${name}, ${item.name}: ${words}`
      const { postureId, side, from } = item
      const blank = { stage: null, faultId: null, words: null, weight: null, mode }
      return { says, id: add('observation', { studentId, postureId, side, from, sign, ...blank, ...rest }, says) }
    })
    did({
      what: `${of}: ${words}`,
      back: () => Promise.resolve(made.forEach(({ id, says }) => withdraw(id, says))),
    })
  }
  /** What was done about a correction; the same once more takes it back. */
  const tryWay = useTrying(lesson)
  return { register, data, entries, add, observe, observeAll, withdraw, tryWay }
}
