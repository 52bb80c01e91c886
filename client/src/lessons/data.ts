import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { clock } from '../shared/clock'
import { door } from '../shared/door'
import type { Kind } from '../shared/queries'
import { newId } from '../ui/new-id'
import type { Arrangement, LessonEdit } from './arranging'

export type Register = Schema['RegisterResponse']
export type RegisterItem = Schema['RegisterItem']
export type RegisterStudent = Schema['RegisterStudentRow']

/** One lesson of one class. */
export interface Lesson {
  classId: string
  date: string
}

export const lessonsQuery = () =>
  queryOptions({ queryKey: ['lessons'], queryFn: () => answer(api.GET('/api/lessons')) })

export const lessonQuery = (lesson: Lesson) =>
  queryOptions({
    queryKey: ['lesson', lesson.classId, lesson.date],
    queryFn: () => answer(api.GET('/api/classes/{classId}/lessons/{date}', { params: { path: lesson } })),
  })

const arrangementKey = (lesson: Lesson) => ['arrangement', lesson.classId, lesson.date] as const

export const arrangementQuery = (lesson: Lesson, enabled = true) =>
  queryOptions({
    queryKey: arrangementKey(lesson),
    enabled,
    queryFn: () => answer(api.GET('/api/classes/{classId}/lessons/{date}/arrangement', { params: { path: lesson } })),
  })

/** @param version Of the arrangement: who works where follows from what they do. */
export const floorQuery = (lesson: Lesson, version: number | null) =>
  queryOptions({
    queryKey: [...arrangementKey(lesson), 'floor', version],
    queryFn: () => answer(api.GET('/api/classes/{classId}/lessons/{date}/floor', { params: { path: lesson } })),
  })

export const waysOutKey = (lesson: Lesson) => [...arrangementKey(lesson), 'ways out']

/** What collides where not everything has room, and what would help; it is tried, and takes a while. */
export const waysOutQuery = (lesson: Lesson, version: number | null, enabled: boolean) =>
  queryOptions({
    queryKey: [...waysOutKey(lesson), version],
    enabled,
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/classes/{classId}/lessons/{date}/arrangement/ways-out', { params: { path: lesson }, signal }),
      ),
  })

/** Whom one knows who could join a lesson of others for once. */
export const whoCouldJoinQuery = (lesson: Lesson) =>
  queryOptions({
    queryKey: ['who-could-join', lesson.classId, lesson.date],
    queryFn: () =>
      answer(api.GET('/api/classes/{classId}/lessons/{date}/who-could-join', { params: { path: lesson } })),
  })

/** What many of a cohort share, each tried as a block of this lesson. */
export const reTeachQuery = (lesson: Lesson, version: number | null, enabled: boolean) =>
  queryOptions({
    queryKey: [...arrangementKey(lesson), 're-teach', version],
    enabled,
    staleTime: Infinity,
    queryFn: () =>
      answer(api.GET('/api/classes/{classId}/lessons/{date}/arrangement/re-teach', { params: { path: lesson } })),
  })

/** What a lesson leaves to be decided. */
export const lookBackQuery = (lesson: Lesson) =>
  queryOptions({
    queryKey: ['look-back', lesson.classId, lesson.date],
    queryFn: () => answer(api.GET('/api/classes/{classId}/lessons/{date}/look-back', { params: { path: lesson } })),
  })

/** What was seen and no list had is known of the posture from now on. Sent twice it is kept once. */
export const keepFault = door({
  key: ['lessons', 'keep fault'],
  send: ({ postureId, ...body }: { postureId: string } & Schema['KnownFaultRequest']) =>
    answer(api.POST('/api/postures/{id}/faults', { params: { path: { id: postureId } }, body })),
  changes: ['posture', 'postures', 'register', 'lesson'],
})

/** All that has been done by hand, in its order; the rest is arranged around it, and that is the answer. */
export const saveArrangement = door({
  key: ['lessons', 'arrange'],
  send: ({ lesson, edits, version }: { lesson: Lesson; edits: LessonEdit[]; version: number | null }) =>
    answer(
      api.PUT('/api/classes/{classId}/lessons/{date}/arrangement', {
        params: { path: lesson },
        body: { edits, version },
      }),
    ),
  keeps: (arrangement: Arrangement, { lesson }) => [[arrangementKey(lesson), arrangement]],
  // Whoever joins is on the sheet and in the register; what is taught again takes minutes of the plan.
  changes: ['lesson', 'register', 'plan', 'today'],
  onClash: ['arrangement'],
})

export const registerQuery = (lesson: Lesson) =>
  queryOptions({
    queryKey: ['register', lesson.classId, lesson.date],
    queryFn: () => answer(api.GET('/api/classes/{classId}/lessons/{date}/register', { params: { path: lesson } })),
    // Two teachers mark one lesson: each sees before long what the other has tapped.
    refetchInterval: 10_000,
  })

/** The facts a register is made of. Each is added and named where it is tapped; sending one again adds nothing. */
export interface Facts {
  attendance: Schema['RegisterAttendanceMark']
  taught: Schema['RegisterTaughtMark']
  observation: Schema['RegisterMark']
  way: Schema['RegisterWayMark']
  withdrawal: { id: string; observationId: string }
}
export type FactKind = keyof Facts
export type RegisterFact = { [K in FactKind]: { kind: K; lesson: Lesson; fact: Facts[K] } }[FactKind]

/** A fact about a lesson, with a name of its own. */
export function factOf<K extends FactKind>(
  kind: K,
  lesson: Lesson,
  fact: Omit<Facts[K], 'id'>,
): Extract<RegisterFact, { kind: K }> {
  // When it was seen counts, not when it arrives.
  return { kind, lesson, fact: { seen: clock.now().toISOString(), ...fact, id: newId() } } as unknown as Extract<
    RegisterFact,
    { kind: K }
  >
}

/** What is of one kind and about one lesson goes in one request; a withdrawal goes by itself. */
export const togetherWith = ({ kind, lesson }: RegisterFact) =>
  kind === 'withdrawal' ? undefined : `${kind} ${lesson.classId} ${lesson.date}`

/** @param facts All of one kind and about one lesson. */
export function sendFacts(facts: readonly RegisterFact[]): Promise<unknown> {
  const { kind, lesson, fact } = facts[0]!
  const params = { path: lesson }
  const all = <K extends FactKind>() => facts.map((one) => one.fact as Facts[K])
  switch (kind) {
    case 'attendance':
      return answer(
        api.POST('/api/classes/{classId}/lessons/{date}/attendance', { params, body: { marks: all<'attendance'>() } }),
      )
    case 'taught':
      return answer(
        api.POST('/api/classes/{classId}/lessons/{date}/taught', { params, body: { marks: all<'taught'>() } }),
      )
    case 'observation':
      return answer(
        api.POST('/api/classes/{classId}/lessons/{date}/observations', {
          params,
          body: { marks: all<'observation'>() },
        }),
      )
    case 'way':
      return answer(api.POST('/api/classes/{classId}/lessons/{date}/ways', { params, body: { marks: all<'way'>() } }))
    case 'withdrawal':
      return answer(api.POST('/api/observations/{id}/withdrawal', { params: { path: { id: fact.observationId } } }))
  }
}

/** What follows from a register. */
export const factChanges: readonly Kind[] = [
  'register',
  'progress',
  'corrections',
  'next-sash',
  'patterns',
  'home',
  'look-back',
  'student',
  'today',
  'lessons',
  'plan',
]
