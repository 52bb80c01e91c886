import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../api/client'
import { Choice } from '../ui/Field'
import { Panel } from '../ui/Panel'
import { Failure, Waiting } from '../ui/states'
import { longDate } from '../ui/words'

/** The plans that were announced for a class, the latest first; each can be looked at beside what is in force, or beside another. */
export function VersionsPanel({
  path,
  show,
  close,
}: {
  path: { termId: string; classId: string }
  show: (version: number, beside?: number) => void
  close: () => void
}) {
  const versions = useQuery({
    queryKey: ['plan-versions', path.termId, path.classId],
    queryFn: () => answer(api.GET('/api/terms/{termId}/classes/{classId}/plan/versions', { params: { path } })),
  })
  const current = versions.data?.[0]?.number
  const [chosen, setChosen] = useState<number>()
  const beside = chosen ?? current
  return (
    <Panel title="Announced plans" facts="Each is kept as it was." close={close}>
      {versions.isError && <Failure error={versions.error} />}
      {versions.isPending && <Waiting what="Looking" />}
      {versions.data && versions.data.length > 2 && (
        <Choice label="Beside" value={String(beside)} onChange={(number) => setChosen(Number(number))}>
          {versions.data.map(({ number }) => (
            <option key={number} value={number}>
              plan {number}
              {number === current && ', in force'}
            </option>
          ))}
        </Choice>
      )}
      <ol className="grid gap-2">
        {versions.data?.map((version) => (
          <li key={version.number} className="border-b border-fine pb-2">
            <button
              type="button"
              className="quiet-link"
              onClick={() => show(version.number, beside === current ? undefined : beside)}
              disabled={version.number === beside}
            >
              Plan {version.number}
            </button>
            {version.number === current && <b> in force</b>}
            <br />
            <span className="text-soft">
              {longDate(version.at.slice(0, 10))}, by {version.by}
              {version.number > 1 &&
                ` · ${version.moves === 0 ? 'nothing moved' : version.moves === 1 ? '1 thing moved' : `${version.moves} things moved`}`}
            </span>
          </li>
        ))}
      </ol>
    </Panel>
  )
}
