import { useQuery } from '@tanstack/react-query'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { Collapsible } from '../ui/Collapsible'
import { effortQuery } from './data'
import { decimal } from '../ui/writing'

/** What teaching a posture takes each cohort, with the sum; worked out when somebody opens it. */
export const PostureEffort = ({ id, side }: { id: string; side: Schema['Side'] }) => (
  <Collapsible name="What it takes each cohort">
    <Sums id={id} side={side} />
  </Collapsible>
)

function Sums({ id, side }: { id: string; side: Schema['Side'] }) {
  const effort = useQuery(effortQuery(id, side))
  if (!effort.data) return <Opening of={[effort]} what="Adding it up" />
  if (effort.data.length === 0) return <p className="mt-2 text-soft">No term is running, so no cohort is taught.</p>
  return (
    <table className="mt-2 w-full border-collapse">
      <thead>
        <tr className="border-b border-line text-left">
          <th className="py-1 pr-4 font-semibold">Cohort</th>
          <th className="py-1 pr-4 text-right font-semibold">New</th>
          <th className="py-1 pr-4 text-right font-semibold">Review</th>
          <th className="py-1 font-semibold">The sum, in minutes, without the link into it</th>
        </tr>
      </thead>
      <tbody>
        {effort.data.map((row) => (
          <tr key={row.cohortId} className="border-b border-fine align-top">
            <th scope="row" className="py-1 pr-4 text-left font-normal">
              {row.cohort}
            </th>
            <td className="py-1 pr-4 text-right">{row.needs && decimal(row.needs.new)}</td>
            <td className="py-1 pr-4 text-right">{row.needs && decimal(row.needs.review)}</td>
            <td className="py-1 text-soft">{row.needs?.sum ?? `No version for ${row.mode} is written yet.`}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
