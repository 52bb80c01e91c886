import type { Schema } from '../api/client'
import { WaysDone, type TryWay } from './WaysDone'

interface AgainstPrinciplesProps {
  student: Schema['RegisterStudentRow']
  mark: (against: Schema['RegisterAgainstPrinciple'], sign: 'better' | 'fine') => void
  tryWay: (principleId: string, ...tried: Parameters<TryWay>) => void
  withdraw: (id: string) => void
}

const signWords: Record<string, string> = { better: 'better', fine: 'kept', fault: 'broken' }

/** What somebody breaks in every posture: how it is tonight, and what was done about it. */
export function AgainstPrinciples({ student, mark, tryWay, withdraw }: AgainstPrinciplesProps) {
  if (student.against.length === 0) return null
  return (
    <section aria-label="In every posture" className="grid gap-3">
      <h3>In every posture</h3>
      {student.against.map((against) => (
        <div key={against.principleId} className="grid gap-1.5">
          <p className="flex flex-wrap items-center gap-2">
            <b>{against.principle}</b>
            <button type="button" className="button" onClick={() => mark(against, 'better')}>
              better
            </button>
            <button type="button" className="button" onClick={() => mark(against, 'fine')}>
              kept
            </button>
          </p>
          {against.today.map((seen) => (
            <p key={seen.id} className="flex items-baseline justify-between gap-3">
              <span>Tonight: {signWords[seen.sign ?? ''] ?? seen.words}</span>
              <button type="button" className="quiet-link" onClick={() => withdraw(seen.id)}>
                Withdraw
              </button>
            </p>
          ))}
          <WaysDone correction={against.correction} tryWay={(...tried) => tryWay(against.principleId, ...tried)} />
        </div>
      ))}
    </section>
  )
}
