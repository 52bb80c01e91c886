import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useSignedIn } from '../app/session'
import { newId } from '../ui/new-id'
import { Choice, Field } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'

interface StudentPanelProps {
  /** Undefined to add somebody. */
  student?: Schema['StudentItem']
  school: Schema['PeopleResponse']
  close: () => void
  saved: () => void
}

/** Adds a student, or changes name, sash and cohort of one. Limits are kept with the student and not shown here. */
export function StudentPanel({ student, school, close, saved }: StudentPanelProps) {
  const { today } = useSignedIn()
  const cohorts = school.classes.flatMap((meeting) => meeting.cohorts.map((cohort) => ({ ...cohort, class: meeting.name })))
  const [givenName, setGivenName] = useState(student?.givenName ?? '')
  const [familyName, setFamilyName] = useState(student?.familyName ?? '')
  const [sashId, setSashId] = useState(student?.sashId ?? school.sashes[0]?.id ?? '')
  const [half, setHalf] = useState<Schema['Half']>(student?.half ?? 'none')
  const [cohortId, setCohortId] = useState(student?.cohortId ?? cohorts[0]?.id ?? '')
  const save = useMutation({
    mutationFn: () => {
      const body = { givenName, familyName, sashId, half, cohortId }
      return student
        ? answer(api.PUT('/api/students/{id}', { params: { path: { id: student.id } }, body: { ...body, version: student.version } }))
        : answer(api.POST('/api/students', { body: { ...body, id: newId(), joined: today, limits: [], note: '' } }))
    },
    onSuccess: () => {
      saved()
      close()
    },
  })
  const problem = save.error instanceof Problem ? save.error : undefined
  const shown = ['givenName', 'familyName', 'sashId', 'half', 'cohortId']
  return (
    <Panel title={student ? student.name : 'New student'} facts={student?.class} close={close}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Field label="Given name" value={givenName} onChange={setGivenName} error={problem?.at('givenName')} />
        <Field label="Family name" value={familyName} onChange={setFamilyName} error={problem?.at('familyName')} />
        <Choice label="Sash" value={sashId} onChange={setSashId} error={problem?.at('sashId')}>
          {school.sashes.map((sash) => (
            <option key={sash.id} value={sash.id}>
              {sash.name}
            </option>
          ))}
        </Choice>
        <Choice label="Half" value={half} onChange={(value) => setHalf(value as Schema['Half'])} error={problem?.at('half')}>
          <option value="none">none</option>
          <option value="newer">newer</option>
          <option value="senior">senior</option>
        </Choice>
        <Choice label="Cohort" value={cohortId} onChange={setCohortId} error={problem?.at('cohortId')}>
          {cohorts.map((cohort) => (
            <option key={cohort.id} value={cohort.id}>
              {cohort.class}: {cohort.name}
            </option>
          ))}
        </Choice>
        {save.isError && shown.every((field) => !problem?.at(field)) && <Refusal error={save.error} shown={shown} reload={saved} />}
        <button type="submit" className="button button-primary" disabled={save.isPending}>
          {student ? 'Save the change' : 'Add the student'}
        </button>
      </form>
    </Panel>
  )
}
