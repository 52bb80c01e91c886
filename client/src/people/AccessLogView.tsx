import { useQuery } from '@tanstack/react-query'
import { Opening } from '../shared/Opening'
import { accessLogQuery } from './data'
import { moment } from '../ui/words'

/** Who read or changed limits, when and on which page: the newest first. What the limits are is not repeated here. */
export function AccessLogView() {
  const log = useQuery(accessLogQuery())
  if (!log.data) return <Opening of={[log]} what="Opening the log" />
  return (
    <div className="flex-1 border-t border-line px-5 py-4">
      <p className="mb-3 max-w-2xl text-soft">
        Every reading and every change of a student’s limits. Nothing is taken out of this log.
      </p>
      <table className="w-full border-collapse bg-paper">
        <thead>
          <tr className="border-b border-line text-left text-soft">
            {['When', 'Who', 'Whose limits', 'What', 'Where'].map((head) => (
              <th key={head} scope="col" className="px-3 py-2 font-semibold">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {log.data.map((entry, at) => (
            <tr key={at} className="border-b border-fine">
              <td className="px-3 py-1.5 whitespace-nowrap text-soft">{moment(entry.at)}</td>
              <td className="px-3 py-1.5">{entry.by}</td>
              <th scope="row" className="px-3 py-1.5 text-left font-semibold">
                {entry.student}
              </th>
              <td className="px-3 py-1.5">{entry.kind === 'read' ? 'read' : <b>changed</b>}</td>
              <td className="px-3 py-1.5 text-soft">{entry.where}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {log.data.length === 0 && <p className="p-4 text-soft">Nobody has read or changed a limit yet.</p>}
    </div>
  )
}
