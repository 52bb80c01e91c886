import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import type { Schema } from '../../api/client'
import { principlesQuery } from '../../shared/material'
import { Field } from '../../ui/Field'
import { seenWords, stageWords } from '../../ui/words'
import { AgainstPrinciples } from '../AgainstPrinciples'
import type { RegisterItem, RegisterStudent } from '../data'
import { callOf, notedBecause } from '../watch-words'
import { WaysDone, type TryWay } from '../WaysDone'

export type Mark = Schema['RegisterMark']

interface HallMarksProps {
  student: RegisterStudent
  item: RegisterItem
  cell: RegisterStudent['cells'][number]
  /** The principle the lesson is about above all. */
  focus: string | null
  mark: (sign: Mark['sign'], rest: Partial<Mark>, says: string) => void
  /** Of a correction against a principle, the principle. */
  tryWay: (principleId: string | null, ...tried: Parameters<TryWay>) => void
  withdraw: (id: string) => void
}

/** So many known faults are read at a glance; likely ones first. */
const FAULTS = 3

/** What one student does now, a tap a mark: the stage, a fault, a principle that is broken, own words; then what was done about what is open. */
export function HallMarks({ student, item, cell, focus, mark, tryWay, withdraw }: HallMarksProps) {
  const [more, setMore] = useState<'faults' | 'principles' | 'words'>()
  const [words, setWords] = useState('')
  const heading = useId()
  const principles = useQuery(principlesQuery()).data ?? []
  const faults = more === 'faults' ? item.faults : item.faults.slice(0, FAULTS)
  const broken = principles.filter(({ text }) => more === 'principles' || text.name === focus)
  return (
    <div className="grid grid-cols-2 gap-2 px-3 pb-3">
      {(['follows', 'alone', 'flowing'] as const).map((stage) => (
        <button
          key={stage}
          type="button"
          className="button min-h-13 text-lead"
          onClick={() => mark('stage', { stage }, stageWords[stage])}
        >
          {stageWords[stage]}
        </button>
      ))}
      <button type="button" className="button min-h-13 text-lead" onClick={() => mark('fine', {}, 'seen and fine')}>
        fine
      </button>
      {faults.map((fault) => (
        <button
          key={fault.id}
          type="button"
          className="button col-span-2 min-h-13 border-lacquer text-left text-lacquer"
          onClick={() => {
            const [rest, sign] = callOf(item, fault)
            mark(sign, rest, fault.seen)
          }}
        >
          {fault.seen}
          {notedBecause(item, fault) && ' (only noted)'}
        </button>
      ))}
      {broken.length > 0 && (
        <div role="group" aria-labelledby={`${heading}-broken`} className="col-span-2 grid grid-cols-2 gap-2">
          <h3 id={`${heading}-broken`} className="col-span-2">
            Broken in every posture
          </h3>
          {broken.map(({ id, text: { name } }) => (
            <button
              key={id}
              type="button"
              className="button min-h-13 border-lacquer text-lacquer"
              onClick={() => mark('fault', { principleId: id, words: name, weight: 'shape' }, name)}
            >
              {name}
            </button>
          ))}
        </div>
      )}
      {more === 'words' && (
        <form
          className="col-span-2 flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (words.trim()) mark('fault', { words, weight: 'shape' }, words)
          }}
        >
          <Field label="In your own words" value={words} onChange={setWords} />
          <button type="submit" className="button min-h-11" disabled={!words.trim()}>
            Keep
          </button>
        </form>
      )}
      {(
        [
          ['faults', 'another fault', item.faults.length > FAULTS],
          ['principles', 'a principle', principles.length > broken.length],
          ['words', 'own words', true],
        ] as const
      ).map(
        ([which, name, hasMore]) =>
          hasMore &&
          more !== which && (
            <button
              key={which}
              type="button"
              className="button min-h-13 border-lacquer text-lacquer"
              onClick={() => setMore(which)}
            >
              {name}
            </button>
          ),
      )}
      {cell.today.map((one) => (
        <p key={one.id} className="col-span-2 flex justify-between gap-2">
          {seenWords(one)}
          <button type="button" className="quiet-link" onClick={() => withdraw(one.id)}>
            Withdraw
          </button>
        </p>
      ))}
      <div className="col-span-2 grid gap-3 empty:hidden [&_.button]:min-h-11">
        {cell.open.map((correction) => (
          <WaysDone key={correction.words} correction={correction} tryWay={(...tried) => tryWay(null, ...tried)} />
        ))}
        <AgainstPrinciples
          student={student}
          mark={({ principleId, correction: { words: said } }, sign) => mark(sign, { principleId, words: said }, said)}
          tryWay={tryWay}
          withdraw={withdraw}
        />
      </div>
    </div>
  )
}
