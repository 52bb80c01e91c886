import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useDraft } from '../shared/draft'
import { ChoiceField, DateInput, DraftProblem, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { Opening } from '../shared/Opening'
import { placesOf } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { AlertDialog } from '../ui/AlertDialog'
import { Checkbox } from '../ui/Checkbox'
import { Choice, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { steadyPress } from '../ui/steady-press'
import { TabList, TabPanel, Tabs } from '../ui/Tabs'
import { dayMonth } from '../ui/words'
import { LimitsForm } from './LimitsForm'
import { detailsQuery, eraseStudent, leaveSchool, modeNames, saveStudent, type School, type Student } from './data'

type Text = Schema['StudentText']
type Written = Text & { sashSince: string }

/** Somebody new is there: to be seen, or, where the next one is to be written, what was written of them. */
type Added = (id: string, before?: Text) => void

const consents: Record<Schema['Consent'], string> = {
  handsOn: 'to be touched when corrected',
  partnerWork: 'to work with a partner, contact included',
  recording: 'to be in the school’s recordings',
  messages: 'to be written to',
}
const aims: Record<Schema['Aim'], string> = { theArt: 'the art', health: 'health', partnerWork: 'partner work' }

const noDetails: Text['details'] = {
  aim: 'theArt',
  scope: '',
  mode: 'standing',
  heldHand: 'symmetric',
  contactName: '',
  contactPhone: '',
  consents: [],
}

const shown = (field: string) =>
  ['givenName', 'familyName', 'sashId', 'half', 'cohortIds', 'joined', 'sashSince'].includes(field) ||
  /^(details\.|cohortIds\[)/.test(field)

/** One student: who, at which level, where, how they take part; and, apart from it, their limits. */
export function StudentPanel({
  student,
  school,
  close,
  after,
  added,
}: {
  student?: Student
  school: School
  close: () => void
  /** Who was written just before, from the same list: level and cohorts are likely the same. */
  after?: Text
  added?: Added
}) {
  const { person } = useSignedIn()
  const [part, setPart] = useState<'about' | 'limits'>('about')
  const places = student ? placesOf(school, student) : []
  const hasLimits = student !== undefined && person.role !== 'assistant' && !student.left
  return (
    <Panel
      title={student?.name ?? 'New student'}
      facts={
        after
          ? `${after.givenName} ${after.familyName} is on the roster. Who comes next?`
          : places.map((place) => `${place.cohort.name}, ${place.schoolClass.name}`).join(' · ') || undefined
      }
      close={() => leave(close)}
      forWriting
    >
      {student && places[0] && (
        <Link
          className="quiet-link justify-self-start"
          to={`/progress/${places[0].schoolClass.id}?student=${student.id}`}
        >
          What {student.givenName} can do
        </Link>
      )}
      {!student ? (
        <About details={noDetails} school={school} close={close} after={after} added={added} />
      ) : !hasLimits ? (
        <Opened student={student} school={school} close={close} />
      ) : (
        <Tabs value={part} onChange={(next) => leave(() => setPart(next))}>
          <TabList
            label="Part"
            options={[
              { value: 'about', name: 'About' },
              { value: 'limits', name: 'Limits' },
            ]}
          />
          <TabPanel value="about">
            <Opened student={student} school={school} close={close} />
          </TabPanel>
          <TabPanel value="limits">
            <LimitsForm student={student} />
          </TabPanel>
        </Tabs>
      )}
    </Panel>
  )
}

function Opened({ student, school, close }: { student: Student; school: School; close: () => void }) {
  const { isHead, person } = useSignedIn()
  return person.role === 'assistant' ? (
    <Facts student={student} />
  ) : (
    <WithDetails student={student}>
      {(details) =>
        isHead ? (
          <About student={student} details={details} school={school} close={close} />
        ) : (
          <Facts student={student} details={details} />
        )
      }
    </WithDetails>
  )
}

function WithDetails({
  student,
  children,
}: {
  student: Student
  children: (details: Text['details']) => React.ReactNode
}) {
  const details = useQuery(detailsQuery(student))
  if (!details.data) return <Opening of={[details]} what="Opening the student" />
  return children(details.data)
}

function Facts({ student, details }: { student: Student; details?: Text['details'] }) {
  return (
    <dl className="grid grid-cols-[120px_1fr] gap-y-1">
      <dt className="text-soft">Usual mode</dt>
      <dd>{student.mode}</dd>
      <dt className="text-soft">Joined</dt>
      <dd>
        {dayMonth(student.joined)} {student.joined.slice(0, 4)}
      </dd>
      {details && (
        <>
          <dt className="text-soft">Comes for</dt>
          <dd>
            {aims[details.aim]}. {details.scope}
          </dd>
          <dt className="text-soft">In an emergency</dt>
          <dd>
            {details.contactName || '–'} {details.contactPhone}
          </dd>
          <dt className="text-soft">Agreed</dt>
          <dd>{details.consents.map((one) => consents[one]).join('; ') || 'nothing yet'}</dd>
        </>
      )}
    </dl>
  )
}

function About({
  student,
  details,
  school,
  close,
  after,
  added,
}: {
  student?: Student
  details: Text['details']
  school: School
  close: () => void
  after?: Text
  added?: Added
}) {
  const { today } = useSignedIn()
  const [another, setAnother] = useState(false)
  const draft = useDraft<Written>({
    about: ['student', student?.id ?? 'new'],
    what: student ? `what you wrote about ${student.name}` : 'the new student',
    text: {
      givenName: student?.givenName ?? '',
      familyName: student?.familyName ?? '',
      sashId: student?.sashId ?? after?.sashId ?? school.sashes[0]?.id ?? '',
      half: student?.half ?? after?.half ?? 'none',
      cohortIds: student?.cohortIds ?? after?.cohortIds ?? [],
      joined: student?.joined ?? today,
      details,
      sashSince: student?.sashSince ?? today,
    },
    version: student?.version ?? null,
  })
  const save = useMutation(saveStudent)
  const { text, change } = draft
  const detail = (part: Partial<Text['details']>) => change({ details: { ...text.details, ...part } })
  const sash = school.sashes.find((one) => one.id === text.sashId)
  const holds = text.details.mode === 'supported'
  const keep = async ({ sashSince, ...wanted }: Written, version: number | null) => {
    // Another level counts from today unless another day is written; the day of the old one must not be carried over.
    const promoted = student && (student.sashId !== wanted.sashId || student.half !== wanted.half)
    const since = promoted && sashSince === student.sashSince ? null : sashSince
    await save.mutateAsync({ id: student?.id ?? draft.made, text: wanted, sashSince: since, version, another })
  }
  return (
    <>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          const goesOn = (event.nativeEvent.submitter as HTMLButtonElement | null)?.name === 'next'
          draft.submit(keep, () => (student ? close() : added?.(draft.made, goesOn ? text : undefined)))(event)
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <TextField draft={draft} name="givenName" label="Given name" />
          <TextField draft={draft} name="familyName" label="Family name" />
          <ChoiceField draft={draft} name="sashId" label="Sash" then={() => change({ half: 'none' })}>
            {school.sashes.map((one) => (
              <Option key={one.id} value={one.id}>
                {one.name}
              </Option>
            ))}
          </ChoiceField>
          {sash?.hasHalves ? (
            <ChoiceField draft={draft} name="half" label="Half">
              <Option value="none">neither yet</Option>
              <Option value="newer">newer</Option>
              <Option value="senior">senior</Option>
            </ChoiceField>
          ) : (
            <span />
          )}
          <DateInput draft={draft} name="sashSince" label="At this level since" />
          <DateInput draft={draft} name="joined" label="Joined" />
        </div>
        <fieldset className="grid gap-2">
          <legend className="mb-1 font-semibold">Learns in</legend>
          {school.classes.map((schoolClass) => {
            const own = schoolClass.cohorts.find((cohort) => text.cohortIds.includes(cohort.id))
            return (
              <Choice
                key={schoolClass.id}
                label={schoolClass.name}
                value={own?.id ?? ''}
                onChange={(id) =>
                  change({
                    cohortIds: own
                      ? text.cohortIds.flatMap((one) => (one === own.id ? (id ? [id] : []) : [one]))
                      : id
                        ? [...text.cohortIds, id]
                        : text.cohortIds,
                  })
                }
                error={own && draft.at(`cohortIds[${text.cohortIds.indexOf(own.id)}]`)}
              >
                <Option value="">does not come</Option>
                {schoolClass.cohorts.map((cohort) => (
                  <Option key={cohort.id} value={cohort.id}>
                    {cohort.name}
                  </Option>
                ))}
              </Choice>
            )
          })}
          <FieldError error={draft.at('cohortIds')} />
        </fieldset>
        <div className="grid grid-cols-2 gap-3">
          <ChoiceField
            draft={draft}
            name="details.mode"
            label="Usual mode"
            then={(mode) =>
              mode !== 'supported' && detail({ mode: mode as Text['details']['mode'], heldHand: 'symmetric' })
            }
          >
            {modeNames.map((mode) => (
              <Option key={mode} value={mode}>
                {mode}
              </Option>
            ))}
          </ChoiceField>
          {holds ? (
            <ChoiceField draft={draft} name="details.heldHand" label="Holds on with">
              <Option value="symmetric">either hand</Option>
              <Option value="left">the left hand</Option>
              <Option value="right">the right hand</Option>
            </ChoiceField>
          ) : (
            <span />
          )}
          <ChoiceField draft={draft} name="details.aim" label="Comes for">
            {Object.entries(aims).map(([value, word]) => (
              <Option key={value} value={value}>
                {word}
              </Option>
            ))}
          </ChoiceField>
          <TextField draft={draft} name="details.scope" label="Wants of the syllabus" />
          <TextField draft={draft} name="details.contactName" label="In an emergency" />
          <TextField draft={draft} name="details.contactPhone" label="Telephone" type="tel" />
        </div>
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 font-semibold">Has agreed</legend>
          {(Object.entries(consents) as [Schema['Consent'], string][]).map(([consent, words]) => (
            <Checkbox
              key={consent}
              checked={text.details.consents.includes(consent)}
              onChange={(checked) =>
                detail({
                  consents: checked
                    ? [...text.details.consents, consent]
                    : text.details.consents.filter((one) => one !== consent),
                })
              }
            >
              {words}
            </Checkbox>
          ))}
        </fieldset>
        <DraftProblem draft={draft} shown={shown} />
        {!student && draft.problem instanceof Problem && draft.problem.kind === 'same-name' && (
          <Checkbox checked={another} onChange={setAnother}>
            This is somebody else of the same name: add them, too
          </Checkbox>
        )}
        {student ? (
          <SaveBar draft={draft} save="Save the student" cancel={() => leave(close)} />
        ) : (
          <div className="flex flex-wrap gap-3">
            <button type="submit" className="button button-primary" disabled={draft.saving} onPointerDown={steadyPress}>
              Add the student
            </button>
            <button type="submit" name="next" className="button" disabled={draft.saving} onPointerDown={steadyPress}>
              Add, and write the next
            </button>
            <button type="button" className="button" onClick={() => leave(close)}>
              Cancel
            </button>
          </div>
        )}
      </form>
      {student && <Leaving student={student} close={close} />}
    </>
  )
}

/** Leaving keeps everything that was learned; erasing cannot be undone. Both ask. */
function Leaving({ student, close }: { student: Student; close: () => void }) {
  const [asking, setAsking] = useState<'leave' | 'erase'>()
  const goes = useMutation(leaveSchool)
  const erase = useMutation(eraseStudent)
  const failed = goes.error ?? erase.error
  const then = { onSuccess: close, onSettled: () => setAsking(undefined) }
  const about = { id: student.id, version: student.version }
  return (
    <section className="grid gap-2 border-t border-line pt-3">
      <p className="flex flex-wrap gap-5">
        {!student.left && (
          <button type="button" className="quiet-link" onClick={() => setAsking('leave')}>
            {student.givenName} leaves the school
          </button>
        )}
        <a className="quiet-link" href={`/api/students/${student.id}/everything`} download>
          Everything about {student.givenName}
        </a>
        <button type="button" className="quiet-link" onClick={() => setAsking('erase')}>
          Erase on request
        </button>
      </p>
      <AlertDialog
        open={asking === 'leave'}
        title={`${student.name} leaves the school?`}
        act={`${student.givenName} leaves`}
        leave="Keep"
        busy={goes.isPending}
        onAct={() => goes.mutate(about, then)}
        onLeave={() => setAsking(undefined)}
      >
        <p>
          {student.givenName} is in no class any more. Everything that was learned is kept, under “who left” in the
          roster.
        </p>
      </AlertDialog>
      <AlertDialog
        open={asking === 'erase'}
        title={`Erase ${student.name} for good?`}
        act="Erase for good"
        leave="Keep"
        busy={erase.isPending}
        onAct={() => erase.mutate(about, then)}
        onLeave={() => setAsking(undefined)}
      >
        <p>
          Name, contact, limits, notes and own words are taken out for good. Attendance and stages stay as counts nobody
          can be found in. This cannot be undone.
        </p>
      </AlertDialog>
      {failed && <Refusal error={failed} />}
    </section>
  )
}
