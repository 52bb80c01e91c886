import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { Choice, Field } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Refusal } from '../ui/states'
import { useRefreshPeople, useTerm, type School } from './queries'
import { RunName } from './RunName'

/** Segments for every cohort at once, looked at before they are given. */
export function TemplatesPanel({ school, close }: { school: School; close: () => void }) {
  const refresh = useRefreshPeople()
  const term = useTerm()
  const [template, setTemplate] = useState<Schema['AssignmentTemplate']>('ladder')
  const [target, setTarget] = useState<string>()
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set())
  const wanted = target ?? term?.end ?? ''
  const propose = useMutation({
    mutationFn: () =>
      answer(
        api.POST('/api/terms/{termId}/assignments/proposals', {
          params: { path: { termId: term!.id } },
          body: { template, target: wanted },
        }),
      ),
  })
  const give = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/terms/{termId}/assignments', {
          params: { path: { termId: term!.id } },
          body: { cohorts: chosen.map(({ cohortId, segments, version }) => ({ cohortId, segments, version })) },
        }),
      ),
    onSuccess: () => {
      void refresh()
      close()
    },
  })
  const cohorts = school.classes.flatMap((meeting) => meeting.cohorts)
  const name = (id: string) => cohorts.find((cohort) => cohort.id === id)?.name ?? ''
  const chosen = (propose.data ?? []).filter(
    (proposal) => proposal.segments.length > 0 && !without.has(proposal.cohortId),
  )
  const problem = propose.error instanceof Problem ? propose.error : undefined
  return (
    <Panel title="Assign to all at once" facts={term?.name} close={close}>
      <Choice
        label="Take the segments from"
        value={template}
        onChange={(value) => {
          setTemplate(value as typeof template)
          propose.reset()
        }}
      >
        <option value="ladder">what the ladder says each sash studies</option>
        <option value="lastTerm">last term, the same again</option>
        <option value="nextSection">last term, one section further</option>
      </Choice>
      <Field label="All of it met by" type="date" value={wanted} onChange={setTarget} error={problem?.at('target')} />
      <button type="button" className="button" disabled={!term || propose.isPending} onClick={() => propose.mutate()}>
        Show what each cohort would get
      </button>
      {propose.isError && <Refusal error={propose.error} shown={['target']} />}
      {propose.data && (
        <ul className="grid gap-2">
          {propose.data.map((proposal) => (
            <li key={proposal.cohortId}>
              <label className="flex items-start gap-2">
                <input
                  type="checkbox"
                  className="mt-1"
                  disabled={proposal.segments.length === 0}
                  checked={chosen.includes(proposal)}
                  onChange={(event) =>
                    setWithout(
                      event.target.checked
                        ? new Set([...without].filter((id) => id !== proposal.cohortId))
                        : new Set([...without, proposal.cohortId]),
                    )
                  }
                />
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
              </label>
            </li>
          ))}
        </ul>
      )}
      {give.isError && <Refusal error={give.error} reload={() => void refresh()} />}
      {propose.data && (
        <button
          type="button"
          className="button button-primary"
          disabled={chosen.length === 0 || give.isPending}
          onClick={() => give.mutate()}
        >
          Give {chosen.length} {chosen.length === 1 ? 'cohort' : 'cohorts'} these segments
        </button>
      )}
    </Panel>
  )
}
