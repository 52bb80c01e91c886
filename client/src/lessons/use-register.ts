import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { touch } from '../shared/queries'
import { useWaiting, waiting } from '../shared/waiting'
import {
  factChanges,
  registerQuery,
  sendFacts,
  togetherWith,
  type Facts,
  type Lesson,
  type RegisterFact,
  type RegisterItem,
  type RegisterStudent,
} from './data'
import { useMarking } from './use-marking'
import { KIND, useTrying } from './use-trying'
import type { TryWay } from './WaysDone'
import { withWaiting } from './with-waiting'

/** Marks go on being sent wherever somebody is, not only while the register is on the screen. */
export function useSendingMarks() {
  const queries = useQueryClient()
  useEffect(() => {
    waiting.through(KIND, {
      send: (fact: RegisterFact) => sendFacts([fact]),
      together: { word: togetherWith, send: (facts: RegisterFact[]) => sendFacts(facts) },
      landed: () => touch(queries, factChanges),
    })
  }, [queries])
}

/** A lesson's register with everything that was tapped, sent or not; and the ways to add to it. */
export function useRegister(lesson: Lesson) {
  const { add, withdraw, observed } = useMarking(lesson)
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
    const blank = { stage: null, faultId: null, words: null, weight: null }
    observed(
      seen.map(({ student: { studentId, name, mode }, item: { postureId, side, from, how, name: what } }) => ({
        seen: { studentId, postureId, side, from, sign, ...blank, mode, inRunThrough: how === 'runThrough', ...rest },
        says: `${name}, ${what}: ${words}`,
      })),
      `${of}: ${words}`,
    )
  }
  const trying = useTrying(lesson)
  /** What was done about a correction of somebody, in what they were watched in or against a principle; the same once more takes it back. */
  const tryWay = (
    { studentId, name }: RegisterStudent,
    { postureId, side, from, name: what }: RegisterItem,
    principleId: string | null,
    ...[{ faultId, words }, ...done]: Parameters<TryWay>
  ) => trying({ studentId, postureId, side, from, faultId, words, principleId, name: `${name}, ${what}` }, ...done)
  return { register, data, entries, add, observe, observeAll, withdraw, tryWay }
}
