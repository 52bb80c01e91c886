import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { Choice, Field } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { longDate } from '../ui/words'

interface LessonPanelProps {
  term: Schema['TermResponse']
  meeting: Schema['PeopleClassResponse']
  school: Schema['PeopleResponse']
  /** The lesson; null to add one. */
  lesson: Schema['PlanColumn'] | null
  /** Everything is planned around what was saved. */
  saved: () => void
  close: () => void
}

/** One lesson of the calendar: closed, a test, moved, longer, elsewhere, with other staff. */
export function LessonPanel({ term, meeting, school, lesson, saved, close }: LessonPanelProps) {
  const queries = useQueryClient()
  const [draft, setDraft] = useState(() => begin(term, meeting, lesson))
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part })
  const done = async () => {
    await Promise.all([
      queries.invalidateQueries({ queryKey: ['people'] }),
      queries.invalidateQueries({ queryKey: ['terms'] }),
    ])
    saved()
  }
  const save = useMutation({ mutationFn: () => saveLesson(term, meeting, lesson, draft), onSuccess: done })
  const drop = useMutation({
    mutationFn: () =>
      answer(
        api.DELETE('/api/classes/{classId}/calendar/{date}', {
          params: { path: { classId: meeting.id, date: lesson!.usual }, query: { version: meeting.version } },
        }),
      ),
    onSuccess: done,
  })
  const errors = save.error instanceof Problem ? save.error : undefined
  const isExtra =
    lesson !== null && new Date(`${lesson.usual}T00:00:00Z`).getUTCDay() !== weekdays.indexOf(meeting.weekday)
  const staff = (id: string) => school.staff.find((member) => member.id === id)?.name ?? ''
  const substitutes = school.staff.filter((member) => !meeting.staffIds.includes(member.id))
  return (
    <Panel
      title={
        lesson
          ? `${lesson.number === null ? 'No lesson on' : `Lesson ${lesson.number},`} ${longDate(lesson.date)}`
          : 'A lesson more'
      }
      facts={meeting.name}
      close={close}
    >
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        {lesson && (
          <>
            <Choice label="Is it held?" value={draft.held} onChange={(held) => set({ held: held as Draft['held'] })}>
              <option value="yes">Yes</option>
              <option value="class">No, this class does not meet</option>
              <option value="school">No, the school is closed</option>
            </Choice>
            {draft.held !== 'yes' && (
              <Field
                label="Why"
                value={draft.reason}
                onChange={(reason) => set({ reason })}
                error={errors?.at('closed') ?? errors?.like(/^closures/)}
                required
              />
            )}
          </>
        )}
        {draft.held === 'yes' && (
          <>
            {lesson && (
              <label className="flex items-center gap-2 font-semibold">
                <input type="checkbox" checked={draft.test} onChange={(event) => set({ test: event.target.checked })} />{' '}
                A test day, for the whole school
              </label>
            )}
            <Field
              label={lesson ? 'Held on' : 'On'}
              type="date"
              value={draft.date}
              onChange={(date) => set({ date })}
              error={errors?.at('movedTo') ?? errors?.at('date')}
              required
            />
            <div className="grid grid-cols-2 gap-3">
              <Field
                label="From"
                type="time"
                value={draft.start}
                onChange={(start) => set({ start })}
                error={errors?.at('start')}
                required
              />
              <Field
                label="Minutes"
                type="number"
                min={30}
                max={300}
                value={draft.minutes}
                onChange={(minutes) => set({ minutes })}
                error={errors?.at('minutes')}
                required
              />
            </div>
            <Choice
              label="Hall"
              value={draft.hallId}
              onChange={(hallId) => set({ hallId })}
              error={errors?.at('hallId')}
            >
              {school.halls.map((hall) => (
                <option key={hall.id} value={hall.id}>
                  {hall.name}
                </option>
              ))}
            </Choice>
            {meeting.staffIds.map((id) => (
              <Choice
                key={id}
                label={staff(id)}
                value={draft.staff[id] ?? id}
                onChange={(instead) => set({ staff: { ...draft.staff, [id]: instead } })}
              >
                <option value={id}>is there</option>
                <option value="">is away, nobody instead</option>
                {substitutes.map((member) => (
                  <option key={member.id} value={member.id}>
                    is away, {member.name} instead
                  </option>
                ))}
              </Choice>
            ))}
          </>
        )}
        {save.isError && (
          <Refusal error={save.error} shown={['closed', 'movedTo', 'date', 'start', 'minutes', 'hallId']} />
        )}
        {drop.isError && <Refusal error={drop.error} />}
        <div className="flex flex-wrap gap-3">
          <button type="submit" className="button button-primary" disabled={save.isPending}>
            {lesson ? 'Save and plan around it' : 'Add it and plan'}
          </button>
          {isExtra && (
            <button type="button" className="button" onClick={() => drop.mutate()} disabled={drop.isPending}>
              Take it out
            </button>
          )}
        </div>
      </form>
    </Panel>
  )
}

const weekdays: Schema['DayOfWeek'][] = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday']

interface Draft {
  held: 'yes' | 'class' | 'school'
  reason: string
  test: boolean
  date: string
  start: string
  minutes: string
  hallId: string
  /** For each of the staff, who teaches: they, somebody instead, or nobody. */
  staff: Record<string, string>
}

function begin(
  term: Schema['TermResponse'],
  meeting: Schema['PeopleClassResponse'],
  lesson: Schema['PlanColumn'] | null,
): Draft {
  const closure = term.closures.find((one) => one.date === lesson?.date)
  return {
    held: closure ? 'school' : lesson?.closed ? 'class' : 'yes',
    reason: lesson?.closed ?? '',
    test: lesson?.kind === 'test',
    date: lesson?.date ?? '',
    start: (lesson?.start ?? meeting.start).slice(0, 5),
    minutes: String(lesson?.minutes ?? meeting.minutes),
    hallId: lesson?.hallId ?? meeting.hallId,
    staff: Object.fromEntries(
      meeting.substitutes.filter((one) => one.date === lesson?.date).map((one) => [one.awayId, one.insteadId ?? '']),
    ),
  }
}

/** What is different about the lesson, with what the day is to the whole school where that changes: all of it or nothing. */
function saveLesson(
  term: Schema['TermResponse'],
  meeting: Schema['PeopleClassResponse'],
  lesson: Schema['PlanColumn'] | null,
  draft: Draft,
) {
  const before = begin(term, meeting, lesson)
  const isSchools =
    before.test !== draft.test ||
    (draft.test && before.date !== draft.date) ||
    before.held === 'school' ||
    draft.held === 'school'
  return answer(
    api.PUT('/api/classes/{classId}/calendar/{date}', {
      params: { path: { classId: meeting.id, date: lesson?.usual ?? draft.date } },
      body: {
        closed: draft.held === 'class' ? draft.reason : null,
        movedTo: lesson && draft.held === 'yes' && draft.date !== lesson.usual ? draft.date : null,
        start: draft.start === meeting.start.slice(0, 5) ? null : `${draft.start}:00`,
        minutes: Number(draft.minutes) === meeting.minutes ? null : Number(draft.minutes),
        hallId: draft.hallId === meeting.hallId ? null : draft.hallId,
        away:
          draft.held === 'yes'
            ? Object.entries(draft.staff)
                .filter(([id, instead]) => instead !== id)
                .map(([awayId, insteadId]) => ({ awayId, insteadId: insteadId || null }))
            : [],
        version: meeting.version,
        school: isSchools
          ? {
              test: draft.test && draft.held === 'yes',
              closed: draft.held === 'school' ? draft.reason : null,
              version: term.version,
            }
          : null,
      },
    }),
  )
}
