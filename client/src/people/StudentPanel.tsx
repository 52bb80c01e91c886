import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { placesOf } from '../app/places'
import { useSignedIn } from '../app/session'
import { newId } from '../ui/new-id'
import { Choice, Field, FieldError } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Failure, Refusal, Tabs, Waiting } from '../ui/states'
import { dayMonth } from '../ui/words'
import { LimitsForm } from './LimitsForm'
import { modeNames, useRefreshPeople, type School, type Student } from './queries'

type Text = Schema['StudentText']

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

/** One student: who, at which level, where, how they take part; and, apart from it, their limits. */
export function StudentPanel({ student, school, close }: { student?: Student; school: School; close: () => void }) {
  const { person } = useSignedIn()
  const [part, setPart] = useState<'about' | 'limits'>('about')
  const places = student ? placesOf(school, student) : []
  return (
    <Panel
      title={student?.name ?? 'New student'}
      facts={places.map(({ meeting, cohort }) => `${cohort.name}, ${meeting.name}`).join(' · ') || undefined}
      close={close}
    >
      {student && person.role !== 'assistant' && !student.left && (
        <Tabs
          label="Part"
          value={part}
          options={[
            { value: 'about', name: 'About' },
            { value: 'limits', name: 'Limits' },
          ]}
          onChange={setPart}
        />
      )}
      {student && places[0] && (
        <Link className="quiet-link justify-self-start" to={`/progress/${places[0].meeting.id}?student=${student.id}`}>
          What {student.givenName} can do
        </Link>
      )}
      {part === 'limits' && student ? (
        <LimitsForm student={student} />
      ) : !student ? (
        <About details={noDetails} school={school} close={close} />
      ) : person.role === 'assistant' ? (
        <Facts student={student} />
      ) : (
        <Opened key={student.version} student={student} school={school} close={close} />
      )}
    </Panel>
  )
}

function Opened({ student, school, close }: { student: Student; school: School; close: () => void }) {
  const { isHead } = useSignedIn()
  const details = useQuery({
    queryKey: ['student-details', student.id, student.version],
    queryFn: () => answer(api.GET('/api/students/{id}/details', { params: { path: { id: student.id } } })),
  })
  if (details.isError) return <Failure error={details.error} />
  if (details.isPending) return <Waiting what="Opening the student" />
  return isHead ? (
    <About student={student} details={details.data} school={school} close={close} />
  ) : (
    <Facts student={student} details={details.data} />
  )
}

function Facts({ student, details }: { student: Student; details?: Text['details'] }) {
  return (
    <dl className="grid grid-cols-[120px_1fr] gap-y-1">
      <dt className="text-soft">Takes part</dt>
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
}: {
  student?: Student
  details: Text['details']
  school: School
  close: () => void
}) {
  const { today } = useSignedIn()
  const refresh = useRefreshPeople()
  const [text, setText] = useState<Text>(() => ({
    givenName: student?.givenName ?? '',
    familyName: student?.familyName ?? '',
    sashId: student?.sashId ?? school.sashes[0]?.id ?? '',
    half: student?.half ?? 'none',
    cohortIds: student?.cohortIds ?? [],
    joined: student?.joined ?? today,
    details,
  }))
  const [since, setSince] = useState(student?.sashSince ?? today)
  const change = (part: Partial<Text>) => setText((before) => ({ ...before, ...part }))
  const detail = (part: Partial<Text['details']>) => change({ details: { ...text.details, ...part } })
  const sash = school.sashes.find((one) => one.id === text.sashId)
  const promoted = student && (student.sashId !== text.sashId || student.half !== text.half)
  const save = useMutation({
    mutationFn: async () => {
      // Another level counts from today unless another day is written; the day of the old one must not be carried over.
      const day = promoted && since === student.sashSince ? null : since
      if (student)
        await answer(
          api.PUT('/api/students/{id}', {
            params: { path: { id: student.id } },
            body: { text, sashSince: day, version: student.version },
          }),
        )
      else await answer(api.POST('/api/students', { body: { id: newId(), text, sashSince: since } }))
    },
    onSuccess: () => {
      void refresh()
      close()
    },
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const shown = [
    'givenName',
    'familyName',
    'sashId',
    'half',
    'cohortIds',
    'joined',
    'sashSince',
    'details.scope',
    'details.contactName',
    'details.contactPhone',
    'details.heldHand',
    ...text.cohortIds.map((_, at) => `cohortIds[${at}]`),
  ]
  const holds = text.details.mode === 'supported'
  return (
    <>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="Given name"
            value={text.givenName}
            onChange={(givenName) => change({ givenName })}
            error={problem?.at('givenName')}
          />
          <Field
            label="Family name"
            value={text.familyName}
            onChange={(familyName) => change({ familyName })}
            error={problem?.at('familyName')}
          />
          <Choice
            label="Sash"
            value={text.sashId}
            onChange={(sashId) => change({ sashId, half: 'none' })}
            error={problem?.at('sashId')}
          >
            {school.sashes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Choice>
          {sash?.hasHalves ? (
            <Choice
              label="Half"
              value={text.half}
              onChange={(half) => change({ half: half as Text['half'] })}
              error={problem?.at('half')}
            >
              <option value="none">neither yet</option>
              <option value="newer">newer</option>
              <option value="senior">senior</option>
            </Choice>
          ) : (
            <span />
          )}
          <Field
            label="At this level since"
            type="date"
            value={since}
            onChange={setSince}
            error={problem?.at('sashSince')}
          />
          <Field
            label="Joined"
            type="date"
            value={text.joined}
            onChange={(joined) => change({ joined })}
            error={problem?.at('joined')}
          />
        </div>
        <fieldset className="grid gap-2">
          <legend className="mb-1 font-semibold">Learns in</legend>
          {school.classes.map((meeting) => {
            const own = meeting.cohorts.find((cohort) => text.cohortIds.includes(cohort.id))
            return (
              <Choice
                key={meeting.id}
                label={meeting.name}
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
                error={own && problem?.at(`cohortIds[${text.cohortIds.indexOf(own.id)}]`)}
              >
                <option value="">does not come</option>
                {meeting.cohorts.map((cohort) => (
                  <option key={cohort.id} value={cohort.id}>
                    {cohort.name}
                  </option>
                ))}
              </Choice>
            )
          })}
          <FieldError error={problem?.at('cohortIds')} />
        </fieldset>
        <div className="grid grid-cols-2 gap-3">
          <Choice
            label="Usually takes part"
            value={text.details.mode}
            onChange={(mode) =>
              detail({
                mode: mode as Text['details']['mode'],
                heldHand: mode === 'supported' ? text.details.heldHand : 'symmetric',
              })
            }
          >
            {modeNames.map((mode) => (
              <option key={mode} value={mode}>
                {mode}
              </option>
            ))}
          </Choice>
          {holds ? (
            <Choice
              label="Holds on with"
              value={text.details.heldHand}
              onChange={(hand) => detail({ heldHand: hand as Text['details']['heldHand'] })}
              error={problem?.at('details.heldHand')}
            >
              <option value="symmetric">either hand</option>
              <option value="left">the left hand</option>
              <option value="right">the right hand</option>
            </Choice>
          ) : (
            <span />
          )}
          <Choice
            label="Comes for"
            value={text.details.aim}
            onChange={(aim) => detail({ aim: aim as Text['details']['aim'] })}
          >
            {Object.entries(aims).map(([value, word]) => (
              <option key={value} value={value}>
                {word}
              </option>
            ))}
          </Choice>
          <Field
            label="Wants of the syllabus"
            value={text.details.scope}
            onChange={(scope) => detail({ scope })}
            error={problem?.at('details.scope')}
          />
          <Field
            label="In an emergency"
            value={text.details.contactName}
            onChange={(contactName) => detail({ contactName })}
            error={problem?.at('details.contactName')}
          />
          <Field
            label="Telephone"
            type="tel"
            value={text.details.contactPhone}
            onChange={(contactPhone) => detail({ contactPhone })}
            error={problem?.at('details.contactPhone')}
          />
        </div>
        <fieldset>
          <legend className="mb-1 font-semibold">Has agreed</legend>
          {(Object.entries(consents) as [Schema['Consent'], string][]).map(([consent, words]) => (
            <label key={consent} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                checked={text.details.consents.includes(consent)}
                onChange={(event) =>
                  detail({
                    consents: event.target.checked
                      ? [...text.details.consents, consent]
                      : text.details.consents.filter((one) => one !== consent),
                  })
                }
              />
              {words}
            </label>
          ))}
        </fieldset>
        {save.isError && shown.every((field) => !problem?.at(field)) && (
          <Refusal error={save.error} shown={shown} reload={() => void refresh()} />
        )}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {student ? 'Save the student' : 'Add the student'}
        </button>
      </form>
      {student && <Leaving student={student} close={close} />}
    </>
  )
}

/** Leaving keeps everything that was learned; erasing cannot be undone and asks twice. */
function Leaving({ student, close }: { student: Student; close: () => void }) {
  const refresh = useRefreshPeople()
  const [sure, setSure] = useState(false)
  const done = () => {
    void refresh()
    close()
  }
  const leave = useMutation({
    mutationFn: () =>
      answer(
        api.POST('/api/students/{id}/leaving', {
          params: { path: { id: student.id } },
          body: { version: student.version },
        }),
      ),
    onSuccess: done,
  })
  const erase = useMutation({
    mutationFn: () =>
      answer(
        api.POST('/api/students/{id}/erasure', {
          params: { path: { id: student.id } },
          body: { version: student.version },
        }),
      ),
    onSuccess: done,
  })
  return (
    <section className="grid gap-2 border-t border-line pt-3">
      <p className="flex flex-wrap gap-5">
        {!student.left && (
          <button type="button" className="quiet-link" disabled={leave.isPending} onClick={() => leave.mutate()}>
            {student.givenName} leaves the school
          </button>
        )}
        {!sure && (
          <button type="button" className="quiet-link" onClick={() => setSure(true)}>
            Erase on request
          </button>
        )}
      </p>
      {sure && (
        <div className="border-l-4 border-lacquer pl-3">
          <p>
            Name, contact, limits, notes and own words are taken out for good. Attendance and stages stay as counts
            nobody can be found in. This cannot be undone.
          </p>
          <p className="mt-2 flex gap-4">
            <button type="button" className="button" disabled={erase.isPending} onClick={() => erase.mutate()}>
              Erase {student.name} for good
            </button>
            <button type="button" className="quiet-link" onClick={() => setSure(false)}>
              Keep
            </button>
          </p>
        </div>
      )}
      {(leave.isError || erase.isError) && (
        <Refusal error={(leave.error ?? erase.error)!} reload={() => void refresh()} />
      )}
    </section>
  )
}
