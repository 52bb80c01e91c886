import type { Schema } from '../api/client'
import type { FormText, Position } from './data'
import { FindingNote } from './FindingNote'

interface FormFindingProps {
  finding: Schema['Finding']
  text: FormText
  editable: boolean
  edit: (part: Partial<Position>, what: string) => void
  change: (what: string, wanted: FormText) => void
}

/** A finding at a position: its mends change the position, its reason is kept with the form. */
export function FormFinding({ finding, text, editable, edit, change }: FormFindingProps) {
  const { rule, positionId, count } = finding
  const sameAs = (one: Schema['Accepted']) => one.rule === rule && one.positionId === positionId && one.count === count
  return (
    <FindingNote
      severity={finding.severity}
      where={count === null ? null : count === 0 ? 'on the way in' : `at count ${count}`}
      message={finding.message}
      kept={finding.acceptedBecause}
      editable={editable}
      mends={finding.mends.map(({ label, turn, facing, side, wayIn, wayInBody }) => ({
        label,
        take: () =>
          edit(
            {
              ...(turn !== null && { turn }),
              ...(facing !== null && { facing }),
              ...(side !== null && { side }),
              ...(wayIn !== null && { wayIn }),
              ...(wayInBody !== null && { wayInBody }),
            },
            'a mend',
          ),
      }))}
      keep={(reason) =>
        change('keeping it as our way', { ...text, accepted: [...text.accepted, { rule, positionId, count, reason }] })
      }
      checkAgain={() => change('keeping our way', { ...text, accepted: text.accepted.filter((one) => !sameAs(one)) })}
    />
  )
}
