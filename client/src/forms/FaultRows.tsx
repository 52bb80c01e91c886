import type { Schema } from '../api/client'
import { Choice, Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Lines, Rows } from '../ui/Rows'
import { Option } from '../ui/Select'
import { weightWords } from '../ui/words'

const OF_THIS_POSTURE = 'none'

/** Faults with their causes and mends; used for postures, links and principles alike. */
export function FaultRows({
  label,
  faults,
  onChange,
  at,
  principles = [],
}: {
  label: string
  faults: Schema['Fault'][]
  onChange: (faults: Schema['Fault'][]) => void
  at: (field: string) => string | undefined
  /** Those a fault of a posture can break. */
  principles?: Schema['LinkPrincipleItem'][]
}) {
  return (
    <Rows
      label={label}
      items={faults}
      add="Add a fault"
      make={() => ({
        id: newId(),
        seen: '',
        weight: 'shape' as const,
        causes: [{ why: '', mend: '' }],
        otherWays: [],
        principleId: null,
      })}
      onChange={onChange}
    >
      {(fault, edit, index) => (
        <>
          <div className="grid grid-cols-[1fr_140px] gap-3">
            <Field
              label="What is seen"
              value={fault.seen}
              onChange={(seen) => edit({ seen })}
              error={at(`faults[${index}].seen`)}
            />
            <Choice label="It weighs" value={fault.weight} onChange={(weight) => edit({ weight: weight })}>
              {Object.entries(weightWords).map(([value, name]) => (
                <Option key={value} value={value}>
                  {name}
                </Option>
              ))}
            </Choice>
          </div>
          {principles.length > 0 && (
            <Choice
              label="It breaks the principle"
              value={fault.principleId ?? OF_THIS_POSTURE}
              onChange={(id) => edit({ principleId: id === OF_THIS_POSTURE ? null : id })}
            >
              <Option value={OF_THIS_POSTURE}>none: it is of this posture alone</Option>
              {principles.map(({ id, text }) => (
                <Option key={id} value={id}>
                  {text.name}
                </Option>
              ))}
            </Choice>
          )}
          <Rows
            label="Perhaps because"
            items={fault.causes}
            add="Add a cause"
            make={() => ({ why: '', mend: '' })}
            onChange={(causes) => edit({ causes })}
          >
            {(cause, editCause) => (
              <div className="grid grid-cols-2 gap-3">
                <Field label="Why" value={cause.why} onChange={(why) => editCause({ why })} />
                <Field label="Its mend" value={cause.mend} onChange={(mend) => editCause({ mend })} />
              </div>
            )}
          </Rows>
          <Lines label="Other ways to teach it" value={fault.otherWays} onChange={(otherWays) => edit({ otherWays })} />
        </>
      )}
    </Rows>
  )
}
