import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { Problem } from '../api/problem'
import { Choice, DateField } from '../ui/Field'
import { Option } from '../ui/Select'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { giveAssignments, proposeAssignments, useTerm, type School } from './data'
import { RunName } from './RunName'
import { Checkbox } from '../ui/Checkbox'

/** Segments for every cohort at once, looked at before they are given. */
export function TemplatesPanel({ school, close }: { school: School; close: () => void }) {
  const term = useTerm()
  const [template, setTemplate] = useState<Schema['AssignmentTemplate']>('ladder')
  const [target, setTarget] = useState<string>()
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set())
  const wanted = target ?? term?.end ?? ''
  const propose = useMutation(proposeAssignments)
  const give = useMutation(giveAssignments)
  const cohorts = school.classes.flatMap((schoolClass) => schoolClass.cohorts)
  const name = (id: string) => cohorts.find((cohort) => cohort.id === id)?.name ?? ''
  const chosen = (propose.data ?? []).filter(
    (proposal) => proposal.segments.length > 0 && !without.has(proposal.cohortId),
  )
  const problem = propose.error instanceof Problem ? propose.error : undefined
  return (
    <Panel title="Assign to all at once" facts={term?.name} close={close} forWriting>
      <Choice
        label="Take the segments from"
        value={template}
        onChange={(value) => {
          setTemplate(value)
          propose.reset()
        }}
      >
        <Option value="ladder">what the ladder says each sash studies</Option>
        <Option value="lastTerm">last term, the same again</Option>
        <Option value="nextSection">last term, one section further</Option>
      </Choice>
      <DateField label="All of it met by" value={wanted} onChange={setTarget} error={problem?.at('target')} />
      <button
        type="button"
        className="button"
        disabled={!term || propose.isPending}
        onClick={() => propose.mutate({ termId: term!.id, template, target: wanted })}
      >
        Show what each cohort would get
      </button>
      {propose.isError && <Refusal error={propose.error} shown={['target']} />}
      {propose.data && (
        <ul className="grid gap-2">
          {propose.data.map((proposal) => (
            <li key={proposal.cohortId}>
              <Checkbox
                disabled={proposal.segments.length === 0}
                checked={chosen.includes(proposal)}
                onChange={(checked) =>
                  setWithout(
                    checked
                      ? new Set([...without].filter((id) => id !== proposal.cohortId))
                      : new Set([...without, proposal.cohortId]),
                  )
                }
              >
                <span>
                  <b className="font-serif">{name(proposal.cohortId)}</b>
                  <span className="block text-soft">
                    {proposal.segments.map((segment) => (
                      <span key={segment.id} className="block">
                        <RunName {...segment} />
                      </span>
                    ))}
                    {proposal.because}
                    {proposal.segments.length > 0 && proposal.version !== null && ' Replaces what it has.'}
                  </span>
                </span>
              </Checkbox>
            </li>
          ))}
        </ul>
      )}
      {give.isError && <Refusal error={give.error} />}
      {propose.data && (
        <button
          type="button"
          className="button button-primary"
          disabled={chosen.length === 0 || give.isPending}
          onClick={() =>
            give.mutate(
              {
                termId: term!.id,
                cohorts: chosen.map(({ cohortId, segments, version }) => ({ cohortId, segments, version })),
              },
              { onSuccess: close },
            )
          }
        >
          Give {chosen.length} {chosen.length === 1 ? 'cohort' : 'cohorts'} these segments
        </button>
      )}
    </Panel>
  )
}
