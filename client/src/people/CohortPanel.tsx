import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import { CheckField, ChoiceField, DraftProblem, SaveBar, TextField } from '../shared/fields'
import { leave } from '../shared/leaving'
import { studentsQuery } from '../shared/people'
import { useTakeOut } from '../shared/undo'
import { rulesQuery } from '../shared/ways'
import { Checkbox } from '../ui/Checkbox'
import { Choice } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { modeNames, removeCohort, saveCohort, type Cohort, type School, type SchoolClass } from './data'

type Text = Schema['CohortText']

/** The colours of adapted groups: neither of a sash nor of a correction. */
const groupColours = ['#3E7C86', '#A3566B', '#7A6A9B', '#8A7A3C', '#4F7F5F']

const textOf = ({ name, order, sashId, half, mode, colour, beginners, mustBeAttended }: Cohort): Text => ({
  name,
  order,
  sashId,
  half,
  mode,
  colour,
  beginners,
  mustBeAttended,
})

const fresh = (schoolClass: SchoolClass, school: School): Text => ({
  name: school.sashes[0]?.name ?? '',
  order: Math.max(0, ...schoolClass.cohorts.map((one) => one.order)) + 1,
  sashId: school.sashes[0]?.id ?? null,
  half: 'none',
  mode: 'standing',
  colour: school.sashes[0]?.colour ?? groupColours[0]!,
  beginners: false,
  mustBeAttended: false,
})

const shown = (field: string) => ['name', 'sashId', 'half', 'colour', 'mode'].includes(field)

interface CohortPanelProps {
  cohort?: Cohort
  schoolClass: SchoolClass
  school: School
  close: () => void
}

/** Who in a class works on the same material in the same mode. */
export function CohortPanel({ cohort, schoolClass, school, close }: CohortPanelProps) {
  const draft = useDraft<Text>({
    about: ['cohort', cohort?.id ?? `new in ${schoolClass.id}`],
    what: cohort ? `the cohort ${cohort.name}` : 'the new cohort',
    text: cohort ? textOf(cohort) : fresh(schoolClass, school),
    version: cohort?.version ?? null,
  })
  const save = useMutation(saveCohort)
  const [asks, setAsks] = useState(true)
  const free = useFree(cohort ? null : draft.text)
  const attended = useQuery(rulesQuery()).data?.beginnersAttended
  const { text, change } = draft
  const sash = school.sashes.find((one) => one.id === text.sashId)
  const madeFrom = (id: string) => {
    const chosen = school.sashes.find((one) => one.id === id)
    change(
      chosen
        ? { sashId: id, half: 'none', colour: chosen.colour, name: chosen.name }
        : {
            sashId: null,
            half: 'none',
            name: 'Chair group',
            mode: 'seated',
            colour: groupColours[schoolClass.cohorts.length % groupColours.length]!,
          },
    )
  }
  const holds = text.mode === 'supported' || text.mode === 'seated'
  return (
    <Panel title={cohort?.name ?? 'New cohort'} facts={schoolClass.name} close={() => leave(close)} forWriting>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={draft.submit(
          (wanted, version) =>
            save.mutateAsync({
              id: cohort?.id ?? draft.made,
              classId: schoolClass.id,
              text: wanted,
              version,
              takesIn: asks ? free.map((student) => student.id) : [],
            }),
          close,
        )}
      >
        <Choice label="Made from" value={text.sashId ?? ''} onChange={madeFrom} error={draft.at('sashId')}>
          {school.sashes.map((one) => (
            <Option key={one.id} value={one.id}>
              the sash {one.name}
            </Option>
          ))}
          <Option value="">people of any sash: an adapted group</Option>
        </Choice>
        {sash?.hasHalves && (
          <ChoiceField
            draft={draft}
            name="half"
            label="Half"
            then={(half) => change({ name: half === 'none' ? sash.name : `${sash.name}, ${half}` })}
          >
            <Option value="none">the whole sash</Option>
            <Option value="newer">the newer half</Option>
            <Option value="senior">the senior half</Option>
          </ChoiceField>
        )}
        <TextField draft={draft} name="name" label="Name" />
        <ChoiceField draft={draft} name="mode" label="Mode">
          {modeNames.map((mode) => (
            <Option key={mode} value={mode}>
              {mode}
            </Option>
          ))}
        </ChoiceField>
        {!sash && <TextField draft={draft} name="colour" label="Colour" type="color" />}
        <CheckField
          draft={draft}
          name="beginners"
          label="Beginners"
          hint={`One new posture a lesson, and somebody beside them in their first ${attended ?? '…'} lessons.`}
        />
        <Checkbox
          disabled={holds}
          checked={holds || text.mustBeAttended}
          onChange={(mustBeAttended) => change({ mustBeAttended })}
          hint={
            holds
              ? 'Somebody who can help stays with whoever holds on or sits.'
              : 'Without this they practise by themselves what they already can do.'
          }
        >
          Never left alone
        </Checkbox>
        {free.length > 0 && (
          <Checkbox checked={asks} onChange={setAsks} hint={free.map((student) => student.name).join(', ')}>
            Takes in the {free.length === 1 ? 'one person' : `${free.length} people`} at {sash!.name} who{' '}
            {free.length === 1 ? 'is' : 'are'} in no class
          </Checkbox>
        )}
        <DraftProblem draft={draft} shown={shown} />
        <SaveBar draft={draft} save={cohort ? 'Save the cohort' : 'Add the cohort'} cancel={() => leave(close)} />
      </form>
      {cohort && <Removal cohort={cohort} schoolClass={schoolClass} close={close} />}
    </Panel>
  )
}

/** Whoever has the sash, or its half, and is in no class; nobody for an adapted group, which people are chosen for one by one. */
function useFree(text: Text | null) {
  const students = useQuery(studentsQuery()).data ?? []
  return students.filter(
    (student) =>
      text?.sashId === student.sashId &&
      student.left === null &&
      student.cohortIds.length === 0 &&
      (text.half === 'none' || text.half === student.half),
  )
}

/** Its people go to another cohort of the class; an empty one goes altogether, and can come back. */
function Removal({ cohort, schoolClass, close }: Omit<CohortPanelProps, 'school'> & { cohort: Cohort }) {
  const [into, setInto] = useState('')
  const takeAway = useTakeOut()
  const remove = useMutation(removeCohort)
  const save = useMutation(saveCohort)
  const takeOut = () =>
    takeAway(
      remove.mutateAsync({ id: cohort.id, into }),
      cohort.students === 0
        ? {
            what: `taking out ${cohort.name}`,
            says: `${cohort.name} was taken out of ${schoolClass.name}.`,
            back: () =>
              save.mutateAsync({ id: cohort.id, classId: schoolClass.id, text: textOf(cohort), version: null }),
          }
        : null,
      close,
    )
  return (
    <section className="grid gap-3 border-t border-line pt-3">
      <div className="flex flex-wrap items-end gap-3">
        {cohort.students > 0 && (
          <Choice label="Its people to" value={into} placeholder="choose a cohort" onChange={setInto}>
            {schoolClass.cohorts
              .filter((one) => one.id !== cohort.id)
              .map((one) => (
                <Option key={one.id} value={one.id}>
                  {one.name}
                </Option>
              ))}
          </Choice>
        )}
        <button type="button" className="button" disabled={remove.isPending} onClick={takeOut}>
          {cohort.students > 0 ? 'Move them there' : 'Take the cohort out'}
        </button>
      </div>
      {remove.isError && <Refusal error={remove.error} />}
    </section>
  )
}
