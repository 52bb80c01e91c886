import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useDraft } from '../shared/draft'
import { ChoiceField, DateInput, DraftProblem, DraftRows, SaveBar, TextField } from '../shared/fields'
import { Opening } from '../shared/Opening'
import { limitsQuery } from '../shared/people'
import { useSignedIn } from '../shared/session'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { demandWords } from '../ui/words'
import { safetyQuery, saveLimits, type Student } from './data'

const shown = (field: string) => field === 'note' || /^limits\[\d+\]\.(demand|since|note)$/.test(field)

/** What somebody must not be asked for. Opening this is written into the log. */
export function LimitsForm({ student }: { student: Student }) {
  const limits = useQuery(limitsQuery(student.id))
  if (!limits.data) return <Opening of={[limits]} what="Opening the limits" />
  return <Editor student={student} kept={limits.data} />
}

function Editor({ student, kept }: { student: Student; kept: Schema['LimitResponse'] }) {
  const { today } = useSignedIn()
  const draft = useDraft({
    about: ['limits', student.id],
    what: `the limits of ${student.name}`,
    text: { limits: kept.limits, note: kept.note },
    version: kept.version,
    survivesReload: false,
  })
  const save = useMutation(saveLimits)
  const [saved, setSaved] = useState(false)
  const safety = useQuery({ ...safetyQuery(student.id), enabled: saved })
  // What was known before the save must not reassure anybody.
  const raised = safety.isFetching ? undefined : safety.data?.filter((item) => item.open).length
  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={draft.submit(
        (text, version) => save.mutateAsync({ id: student.id, ...text, version: version! }),
        () => setSaved(true),
      )}
    >
      <p className="text-soft">
        In the words of demands, never a diagnosis. Only you and those who teach {student.givenName} read this; plans
        and sheets show the mode and the caution. Reading and changing is written down.
      </p>
      <DraftRows
        draft={draft}
        name="limits"
        label={`${student.givenName} must not be asked for`}
        add="Add a limit"
        make={() => ({ demand: 'oneLegBalance' as const, side: 'symmetric' as const, since: today, note: '' })}
      >
        {(_, at) => (
          <>
            <div className="grid grid-cols-2 gap-2">
              <ChoiceField draft={draft} name={`limits.${at}.demand`} label="Demand">
                {Object.entries(demandWords).map(([value, word]) => (
                  <Option key={value} value={value}>
                    {word}
                  </Option>
                ))}
              </ChoiceField>
              <ChoiceField draft={draft} name={`limits.${at}.side`} label="Side">
                <Option value="symmetric">both sides</Option>
                <Option value="left">left</Option>
                <Option value="right">right</Option>
              </ChoiceField>
            </div>
            <DateInput draft={draft} name={`limits.${at}.since`} label="Since" mayBeEmpty />
            <TextField draft={draft} name={`limits.${at}.note`} label="What helps" />
          </>
        )}
      </DraftRows>
      <TextField draft={draft} name="note" label="Note" />
      <DraftProblem draft={draft} shown={shown} />
      <SaveBar draft={draft} save="Save the limits" />
      {saved && safety.isError && <Refusal error={safety.error} />}
      {saved && raised !== undefined && (
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
      <p className="text-small text-soft">
        After illness, surgery or a fall, {student.givenName}’s own clinician comes before any plan.
      </p>
    </form>
  )
}
