import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Opening } from '../shared/Opening'
import { versionsQuery } from './data'
import { Choice } from '../ui/Field'
import { Option } from '../ui/Select'
import { Panel } from '../ui/Panel'
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
  const versions = useQuery(versionsQuery(path))
  const current = versions.data?.[0]?.number
  const [chosen, setChosen] = useState<number>()
  const beside = chosen ?? current
  return (
    <Panel title="Announced plans" facts="Each is kept as it was." close={close}>
      {!versions.data && <Opening of={[versions]} what="Looking" />}
      {versions.data && versions.data.length > 2 && (
        <Choice label="Beside" value={String(beside)} onChange={(number) => setChosen(Number(number))}>
          {versions.data.map(({ number }) => (
            <Option key={number} value={String(number)}>
              plan {number}
              {number === current && ', in force'}
            </Option>
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
