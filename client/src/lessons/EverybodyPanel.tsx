import { useState } from 'react'
import type { Schema } from '../api/client'
import { Checkbox } from '../ui/Checkbox'
import { useKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Panel } from '../ui/Panel'
import { counted, stageWords } from '../ui/words'
import type { RegisterItem, RegisterStudent } from './data'
import { HowFar } from './HowFar'
import type { Sweep } from './use-sweep'

interface EverybodyPanelProps {
  item: RegisterItem
  students: readonly RegisterStudent[]
  sweep: Sweep
  mark: (
    who: readonly RegisterStudent[],
    sign: Schema['RegisterMark']['sign'],
    rest?: Partial<Schema['RegisterMark']>,
  ) => void
  close: () => void
}

const stages = ['follows', 'alone', 'flowing'] as const

/** One thing for a whole cohort at once: all follow, except… Whoever is away is not among them. */
export function EverybodyPanel({ item, students, sweep, mark, close }: EverybodyPanelProps) {
  const [except, setExcept] = useState<readonly string[]>([])
  const here = students.filter((one) => one.present !== false)
  const who = here.filter((one) => !except.includes(one.studentId))
  const all = (sign: Schema['RegisterMark']['sign'], rest?: Partial<Schema['RegisterMark']>) => {
    if (who.length > 0) mark(who, sign, rest)
  }
  useKeys((event) => {
    const stage = stages[Number(event.key) - 2]
    if (stage) all('stage', { stage })
    else if (event.key === 's') all('fine')
    else return false
    return true
  })
  return (
    <Panel title={item.name} facts="Everybody who is here, except" close={close} atHand>
      <ul className="grid gap-1">
        {here.map((one) => (
          <li key={one.studentId}>
            <Checkbox
              checked={!except.includes(one.studentId)}
              onChange={(among) =>
                setExcept(among ? except.filter((id) => id !== one.studentId) : [...except, one.studentId])
              }
            >
              {one.name}{' '}
              <span className="text-soft">
                {stageWords[one.cells.find((cell) => isOf(cell, item))?.stage ?? 'notMet']}
              </span>
            </Checkbox>
          </li>
        ))}
        {here.length === 0 && <li className="text-soft">Nobody of this cohort is here.</li>}
      </ul>
      <p className="flex flex-wrap gap-x-4 empty:hidden">
        <HowFar sweep={sweep} who="they" />
      </p>
      <p>Of {counted(who.length, 'person', 'people')}:</p>
      <div className="-mt-2 grid grid-cols-2 gap-2">
        {stages.map((stage, at) => (
          <button
            key={stage}
            type="button"
            className="button min-h-12"
            disabled={who.length === 0}
            onClick={() => all('stage', { stage })}
          >
            {stageWords[stage]} <Kbd>{at + 2}</Kbd>
          </button>
        ))}
        <button type="button" className="button min-h-12" disabled={who.length === 0} onClick={() => all('fine')}>
          seen and fine <Kbd>s</Kbd>
        </button>
      </div>
    </Panel>
  )
}

const isOf = (cell: RegisterStudent['cells'][number], item: RegisterItem) =>
  cell.postureId === item.postureId && cell.side === item.side && cell.from?.postureId === item.from?.postureId
