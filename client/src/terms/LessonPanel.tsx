import { useMutation } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useDraft } from '../shared/draft'
import { ChoiceField, DateInput, DraftProblem, NumberInput, SaveBar, TimeInput } from '../shared/fields'
import { leave } from '../shared/leaving'
import { Checkbox } from '../ui/Checkbox'
import { Choice, Field, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { RadioGroup } from '../ui/RadioGroup'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { longDate } from '../ui/words'
import { dropLesson, saveLesson } from './data'

interface LessonPanelProps {
  term: Schema['TermResponse']
  schoolClass: Schema['PeopleClassResponse']
  school: Schema['PeopleResponse']
  /** The lesson; null to add one. */
  lesson: Schema['PlanColumn'] | null
  /** Everything is planned around what was saved. */
  saved: () => void
  close: () => void
}

/** One lesson of the calendar: closed, a test, moved, longer, elsewhere, with other staff. */
export function LessonPanel({ term, schoolClass, school, lesson, saved, close }: LessonPanelProps) {
  const draft = useDraft<Written, Versions>({
    about: ['lesson', schoolClass.id, lesson?.date ?? 'new'],
    what: lesson ? `the lesson on ${longDate(lesson.date)}` : 'the new lesson',
    text: begin(term, schoolClass, lesson),
    version: { schoolClass: schoolClass.version, term: term.version },
  })
  const save = useMutation(saveLesson)
  const drop = useMutation(dropLesson)
  const { text, change } = draft
  const errors = draft.problem instanceof Problem ? draft.problem : undefined
  const isExtra =
    lesson !== null && new Date(`${lesson.usual}T00:00:00Z`).getUTCDay() !== weekdays.indexOf(schoolClass.weekday)
  const staff = (id: string) => school.staff.find((member) => member.id === id)?.name ?? ''
  const substitutes = school.staff.filter((member) => !member.closed && !schoolClass.staffIds.includes(member.id))
  return (
    <Panel
      title={
        lesson
          ? `${lesson.number === null ? 'No lesson on' : `Lesson ${lesson.number},`} ${longDate(lesson.date)}`
          : 'A lesson more'
      }
      facts={schoolClass.name}
      close={() => leave(close)}
      forWriting
    >
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit(
          (wanted, version) =>
            save.mutateAsync({
              classId: schoolClass.id,
              date: lesson?.usual ?? wanted.date,
              body: requestOf(term, schoolClass, lesson, wanted, version!),
            }),
          saved,
        )}
      >
        {lesson && (
          <>
            <RadioGroup
              label="Is it held?"
              value={text.held}
              options={[
                { value: 'yes', name: 'Yes' },
                { value: 'class', name: 'No, this class does not meet' },
                { value: 'school', name: 'No, the school is closed' },
              ]}
              onChange={(held) => change({ held })}
            />
            {text.held !== 'yes' && (
              <Field
                label="Why"
                value={text.reason}
                onChange={(reason) => change({ reason })}
                error={errors?.at('closed') ?? errors?.like(/^closures/)}
              />
            )}
          </>
        )}
        {text.held === 'yes' && (
          <>
            {lesson && (
              <Checkbox checked={text.test} onChange={(test) => change({ test })}>
                A test day, for the whole school
              </Checkbox>
            )}
            <DateInput draft={draft} name="date" label={lesson ? 'Held on' : 'On'} />
            <FieldError error={errors?.at('movedTo')} />
            <div className="grid grid-cols-2 gap-3">
              <TimeInput draft={draft} name="start" label="From" />
              <NumberInput draft={draft} name="minutes" label="Minutes" />
            </div>
            <NumberInput draft={draft} name="watchMinutes" label="Minutes of the teachers kept for watching" />
            <ChoiceField draft={draft} name="hallId" label="Hall">
              {school.halls.map((hall) => (
                <Option key={hall.id} value={hall.id}>
                  {hall.name}
                </Option>
              ))}
            </ChoiceField>
            {schoolClass.staffIds.map((id) => (
              <Choice
                key={id}
                label={staff(id)}
                value={text.staff[id] ?? id}
                onChange={(instead) => change({ staff: { ...text.staff, [id]: instead } })}
              >
                <Option value={id}>is there</Option>
                <Option value="">is away, nobody instead</Option>
                {substitutes.map((member) => (
                  <Option key={member.id} value={member.id}>
                    is away, {member.name} instead
                  </Option>
                ))}
              </Choice>
            ))}
          </>
        )}
        <DraftProblem
          draft={draft}
          shown={(field) =>
            ['closed', 'movedTo', 'date', 'start', 'minutes', 'hallId', 'watchMinutes'].includes(field) ||
            field.startsWith('closures')
          }
        />
        {drop.isError && <Refusal error={drop.error} />}
        <SaveBar
          draft={draft}
          save={lesson ? 'Save and plan around it' : 'Add it and plan'}
          cancel={() => leave(close)}
        />
        {isExtra && (
          <button
            type="button"
            className="quiet-link justify-self-start"
            disabled={drop.isPending}
            onClick={() =>
              leave(() =>
                drop.mutate(
                  { classId: schoolClass.id, date: lesson.usual, version: schoolClass.version },
                  { onSuccess: saved },
                ),
              )
            }
          >
            Take this lesson out
          </button>
        )}
      </form>
    </Panel>
  )
}

const weekdays: Schema['DayOfWeek'][] = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday']

/** A lesson is a part of its class; what its day is to the whole school is a part of the term. */
interface Versions {
  schoolClass: number
  term: number
}

interface Written extends Record<string, unknown> {
  held: 'yes' | 'class' | 'school'
  reason: string
  test: boolean
  date: string
  start: string
  minutes: number
  /** None keeps nothing. */
  watchMinutes: number
  hallId: string
  /** For each of the staff, who teaches: they, somebody instead, or nobody. */
  staff: Record<string, string>
}

function begin(
  term: Schema['TermResponse'],
  schoolClass: Schema['PeopleClassResponse'],
  lesson: Schema['PlanColumn'] | null,
): Written {
  const closure = term.closures.find(
    ({ date, until }) => lesson && date <= lesson.date && lesson.date <= (until ?? date),
  )
  return {
    held: closure ? 'school' : lesson?.closed ? 'class' : 'yes',
    reason: lesson?.closed ?? '',
    test: lesson?.kind === 'test',
    date: lesson?.date ?? '',
    start: lesson?.start ?? schoolClass.start,
    minutes: lesson?.minutes ?? schoolClass.minutes,
    watchMinutes: lesson?.watchMinutes ?? 0,
    hallId: lesson?.hallId ?? schoolClass.hallId,
    staff: Object.fromEntries(
      schoolClass.substitutes
        .filter((one) => one.date === lesson?.date)
        .map((one) => [one.awayId, one.insteadId ?? '']),
    ),
  }
}

/** What is different about the lesson, with what the day is to the whole school where that changes: all of it or nothing. */
function requestOf(
  term: Schema['TermResponse'],
  schoolClass: Schema['PeopleClassResponse'],
  lesson: Schema['PlanColumn'] | null,
  draft: Written,
  versions: Versions,
): Schema['LessonChangeRequest'] {
  const before = begin(term, schoolClass, lesson)
  const isSchools =
    before.test !== draft.test ||
    (draft.test && before.date !== draft.date) ||
    before.held === 'school' ||
    draft.held === 'school'
  return {
    closed: draft.held === 'class' ? draft.reason : null,
    movedTo: lesson && draft.held === 'yes' && draft.date !== lesson.usual ? draft.date : null,
    start: draft.start === schoolClass.start ? null : draft.start,
    minutes: draft.minutes === schoolClass.minutes ? null : draft.minutes,
    hallId: draft.hallId === schoolClass.hallId ? null : draft.hallId,
    watchMinutes: draft.watchMinutes || null,
    away:
      draft.held === 'yes'
        ? Object.entries(draft.staff)
            .filter(([id, instead]) => instead !== id)
            .map(([awayId, insteadId]) => ({ awayId, insteadId: insteadId || null }))
        : [],
    version: versions.schoolClass,
    school: isSchools
      ? {
          test: draft.test && draft.held === 'yes',
          closed: draft.held === 'school' ? draft.reason : null,
          version: versions.term,
        }
      : null,
  }
}
