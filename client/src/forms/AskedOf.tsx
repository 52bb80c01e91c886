import { useState } from 'react'
import type { Schema } from '../api/client'
import type { Asks } from '../engine/engine'
import { Option, Select } from '../ui/Select'
import { demandWords } from '../ui/words'

interface AskedOfProps {
  label: string
  asks: Asks
  /** What a head has added, and taken off with a reason. */
  added: Schema['Demand'][]
  takenOff: Schema['NotAsked'][]
  onChange: (added: Schema['Demand'][], takenOff: Schema['NotAsked'][]) => void
}

/** What is asked of a body: as it follows from the notation, with what a head adds, and what a head takes off and why. */
export function AskedOf({ label, asks, added, takenOff, onChange }: AskedOfProps) {
  const derived = asks.asks.filter((one) => !takenOff.some((off) => off.demand === one.demand))
  const off = takenOff.filter((one) => asks.asks.some((ask) => ask.demand === one.demand))
  const extra = added.filter((demand) => !asks.asks.some((one) => one.demand === demand))
  const left = (Object.keys(demandWords) as Schema['Demand'][]).filter(
    (demand) => !extra.includes(demand) && !asks.asks.some((one) => one.demand === demand),
  )
  return (
    <section aria-label={label} className="grid gap-1.5">
      <h3 className="text-base">{label}</h3>
      {!asks.known && (
        <p role="note" className="border-l-4 border-ochre-mark pl-3">
          Not known: not every count says in notation what the body does. Until then nobody with limits is given it.
        </p>
      )}
      <ul className="grid gap-1">
        {derived.map(({ demand, count, because }) => (
          <li key={demand}>
            <b>{demandWords[demand]}</b>{' '}
            <span className="text-soft">
              {because}, {count === 0 ? 'as it starts' : `count ${count}`}
            </span>{' '}
            <TakeOff demand={demand} take={(reason) => onChange(added, [...takenOff, { demand, reason }])} />
          </li>
        ))}
        {extra.map((demand) => (
          <li key={demand}>
            <b>{demandWords[demand]}</b> <span className="text-soft">added by hand</span>{' '}
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                onChange(
                  added.filter((one) => one !== demand),
                  takenOff,
                )
              }
            >
              Take it out
            </button>
          </li>
        ))}
        {off.map(({ demand, reason }) => (
          <li key={demand} className="text-soft">
            <s>{demandWords[demand]}</s> not asked: “{reason}”{' '}
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                onChange(
                  added,
                  takenOff.filter((one) => one.demand !== demand),
                )
              }
            >
              Ask it again
            </button>
          </li>
        ))}
      </ul>
      {derived.length + extra.length === 0 && asks.known && <p className="text-soft">Nothing of what limits name.</p>}
      <Select
        label="Add what it asks besides"
        className="max-w-sm"
        value=""
        onChange={(demand) => onChange([...extra, demand as Schema['Demand']], takenOff)}
      >
        <Option value="">Add what it asks besides</Option>
        {left.map((demand) => (
          <Option key={demand} value={demand}>
            {demandWords[demand]}
          </Option>
        ))}
      </Select>
    </section>
  )
}

/** Taking a demand off needs a reason, which is kept. */
function TakeOff({ demand, take }: { demand: Schema['Demand']; take: (reason: string) => void }) {
  const [reason, setReason] = useState<string>()
  if (reason === undefined)
    return (
      <button
        type="button"
        className="quiet-link"
        aria-label={`It does not ask for ${demandWords[demand]}`}
        onClick={() => setReason('')}
      >
        It does not
      </button>
    )
  return (
    <form
      className="mt-1 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (reason.trim()) take(reason.trim())
      }}
    >
      <input
        autoFocus
        className="field flex-1"
        aria-label={`Why it does not ask for ${demandWords[demand]}`}
        placeholder="Why not, for whoever reads this later"
        maxLength={400}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <button type="submit" className="button" disabled={!reason.trim()}>
        Take it off
      </button>
    </form>
  )
}
