import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { answer, api, type Schema } from '../api/client'
import { Problem } from '../api/problem'
import { useSignedIn } from '../app/session'
import { Choice, Field } from '../ui/Field'
import { Rows } from '../ui/Rows'
import { Failure, Refusal, Waiting } from '../ui/states'
import { demandWords } from '../ui/words'
import { useRefreshPeople, type Student } from './queries'

/** What somebody must not be asked for. Opening this is written into the log. */
export function LimitsForm({ student }: { student: Student }) {
  const limits = useQuery({
    queryKey: ['limits', student.id],
    queryFn: () => answer(api.GET('/api/students/{id}/limits', { params: { path: { id: student.id } } })),
    staleTime: Infinity,
  })
  if (limits.isError) return <Failure error={limits.error} />
  if (limits.isPending) return <Waiting what="Opening the limits" />
  return <Editor key={limits.data.version} student={student} kept={limits.data} />
}

function Editor({ student, kept }: { student: Student; kept: Schema['LimitResponse'] }) {
  const { today } = useSignedIn()
  const refresh = useRefreshPeople()
  const queries = useQueryClient()
  const [limits, setLimits] = useState(kept.limits)
  const [note, setNote] = useState(kept.note)
  const save = useMutation({
    mutationFn: () =>
      answer(
        api.PUT('/api/students/{id}/limits', {
          params: { path: { id: student.id } },
          body: { limits, note, version: kept.version },
        }),
      ),
    onSuccess: async (saved) => {
      queries.setQueryData(['raised', student.id], saved.raised)
      await refresh()
    },
  })
  const raised = queries.getQueryData<number>(['raised', student.id])
  const problem = save.error instanceof Problem ? save.error : undefined
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <p className="text-soft">
        In the words of demands, never a diagnosis. Only you and those who teach {student.givenName} read this; plans
        and sheets show the mode and the caution. Reading and changing is written down.
      </p>
      <Rows
        label={`${student.givenName} must not be asked for`}
        items={limits}
        add="Add a limit"
        make={() => ({ demand: 'oneLegBalance' as const, side: 'symmetric' as const, since: today, note: '' })}
        onChange={setLimits}
      >
        {(limit, edit, at) => (
          <>
            <div className="grid grid-cols-2 gap-2">
              <Choice
                label="Demand"
                value={limit.demand}
                onChange={(demand) => edit({ demand: demand as Schema['Demand'] })}
                error={problem?.at(`limits[${at}].demand`)}
              >
                {Object.entries(demandWords).map(([value, word]) => (
                  <option key={value} value={value}>
                    {word}
                  </option>
                ))}
              </Choice>
              <Choice label="Side" value={limit.side} onChange={(side) => edit({ side: side as Schema['Side'] })}>
                <option value="symmetric">both sides</option>
                <option value="left">left</option>
                <option value="right">right</option>
              </Choice>
            </div>
            <div className="grid grid-cols-[150px_1fr] gap-2">
              <Field
                label="Since"
                type="date"
                value={limit.since ?? ''}
                onChange={(since) => edit({ since: since || null })}
                error={problem?.at(`limits[${at}].since`)}
              />
              <Field
                label="What helps"
                value={limit.note}
                onChange={(text) => edit({ note: text })}
                error={problem?.at(`limits[${at}].note`)}
              />
            </div>
          </>
        )}
      </Rows>
      <Field label="Note" value={note} onChange={setNote} error={problem?.at('note')} />
      {save.isError && (
        <Refusal
          error={save.error}
          shown={[
            'note',
            ...limits.flatMap((_, at) => ['demand', 'since', 'note'].map((part) => `limits[${at}].${part}`)),
          ]}
          reload={() => void queries.invalidateQueries({ queryKey: ['limits', student.id] })}
        />
      )}
      <button type="submit" className="button button-primary" disabled={save.isPending}>
        Save the limits
      </button>
      {raised !== undefined && (
        <p role="status" className={`border-l-4 pl-3 ${raised > 0 ? 'border-lacquer' : 'border-pine'}`}>
          {raised > 0 ? (
            <>
              {raised === 1 ? '1 posture of the coming lessons is' : `${raised} postures of the coming lessons are`} now
              unsafe for {student.givenName}.{' '}
              <Link className="quiet-link" to="/people?view=safety">
                Settle how it is done
              </Link>
            </>
          ) : (
            `Nothing in the coming lessons asks ${student.givenName} for it.`
          )}
        </p>
      )}
      <p className="text-[13.5px] text-soft">
        After illness, surgery or a fall, {student.givenName}’s own clinician comes before any plan.
      </p>
    </form>
  )
}
