import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { principlesQuery } from '../shared/material'
import { useSignedIn } from '../shared/session'
import { Checkbox } from '../ui/Checkbox'
import { Choice, Field } from '../ui/Field'
import { newId } from '../ui/new-id'
import { Option } from '../ui/Select'
import { Refusal } from '../ui/states'
import { weightWords } from '../ui/words'
import { keepFault } from './data'
import { callOf, notedBecause } from './watch-words'

interface CorrectionChoiceProps {
  item: Schema['RegisterItem']
  open: (rest: Partial<Schema['RegisterMark']>, sign: Schema['RegisterMark']['sign']) => void
}

/** Before a choice of principles: it is seen in this posture alone. */
const ONLY_HERE = 'here'

/** A fault the posture is known for, or one in own words: of this posture, which a head can keep for everybody, or against a principle, which is one correction wherever it is seen. */
export function CorrectionChoice({ item, open }: CorrectionChoiceProps) {
  const { isHead } = useSignedIn()
  const [words, setWords] = useState('')
  const [weight, setWeight] = useState<Schema['Weight']>('shape')
  const [forAll, setForAll] = useState(false)
  const keep = useMutation(keepFault)
  const principles = useQuery(principlesQuery()).data ?? []
  const [holds, setHolds] = useState(ONLY_HERE)
  const principle = principles.find(({ id }) => id === holds)
  const mayKeep = isHead && item.kind !== 'link' && !principle
  return (
    <section aria-label="Open a correction" className="grid gap-2 rounded-lg border border-line bg-paper p-3">
      <h3>What did you see?</h3>
      {item.faults.map((fault, at) => (
        <button
          key={fault.id}
          type="button"
          autoFocus={at === 0}
          className="button justify-start text-left"
          onClick={() => open(...callOf(item, fault))}
        >
          <span>
            {fault.seen}{' '}
            <span className="font-normal text-soft">
              ({weightWords[fault.weight]}
              {notedBecause(item, fault) && `, ${notedBecause(item, fault)}: noted, not called`})
            </span>
          </span>
        </button>
      ))}
      <form
        className="grid gap-2 border-t border-line pt-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (principle)
            return open({ principleId: principle.id, words: words.trim() || principle.text.name, weight }, 'fault')
          if (!forAll || !mayKeep) return open({ words, weight }, 'fault')
          const id = newId()
          keep.mutate(
            { postureId: item.postureId, id, side: item.side, seen: words.trim(), weight },
            { onSuccess: () => open({ faultId: id, words: words.trim(), weight }, 'fault') },
          )
        }}
      >
        <Field label="In your own words" value={words} onChange={setWords} />
        {principles.length > 0 && (
          <Choice label="It is so" value={holds} onChange={setHolds}>
            <Option value={ONLY_HERE}>in this posture</Option>
            {principles.map(({ id, text }) => (
              <Option key={id} value={id}>
                in every posture: {text.name}
              </Option>
            ))}
          </Choice>
        )}
        <Choice label="It is about" value={weight} onChange={setWeight}>
          {Object.entries(weightWords).map(([value, word]) => (
            <Option key={value} value={value}>
              {word}
            </Option>
          ))}
        </Choice>
        {mayKeep && (
          <Checkbox checked={forAll} onChange={setForAll} hint="Causes and mends are written with the posture.">
            Keep it for everybody, as a known fault
          </Checkbox>
        )}
        {isHead && item.kind === 'link' && !principle && (
          <p className="text-soft">What a link is known for is written with the form.</p>
        )}
        {keep.isError && <Refusal error={keep.error} />}
        <button type="submit" className="button" disabled={(!words.trim() && !principle) || keep.isPending}>
          Open the correction
        </button>
      </form>
    </section>
  )
}
