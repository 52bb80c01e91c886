import { useState } from 'react'
import type { Schema } from '../api/client'
import { Choice, Field } from '../ui/Field'
import { Option } from '../ui/Select'
import { Kbd } from '../ui/Kbd'
import { Panel } from '../ui/Panel'
import { Sole } from '../ui/Sole'
import { SoleKey } from '../ui/SoleKey'
import { counted, stageWords, weightWords } from '../ui/words'

interface MarkPanelProps {
  student?: Schema['RegisterStudentRow']
  item?: Schema['RegisterItem']
  cell?: Schema['RegisterCell']
  correcting: boolean
  setCorrecting: (correcting: boolean) => void
  mark: (sign: Schema['RegisterMark']['sign'], rest?: Partial<Schema['RegisterMark']>) => void
  withdraw: (id: string) => void
  close: () => void
}

/** What one student can do now in one posture, and what needs correcting. */
export function MarkPanel({ student, item, cell, correcting, setCorrecting, mark, withdraw, close }: MarkPanelProps) {
  if (!student || !item || !cell) {
    return (
      <Panel title="Choose a sole">
        <p>Choose a student’s sole under a posture, then say what you saw. The arrow keys go to the next student.</p>
        <div className="max-lg:hidden">
          <SoleKey />
        </div>
      </Panel>
    )
  }
  return (
    <Panel title={student.name} facts={item.name} close={close} atHand>
      <p className="flex items-center gap-3 font-serif text-lg max-md:-mt-3">
        <Sole {...cell} size={46} />
        {stageWords[cell.stage]}
        {cell.takenOver && ', taken over: no stage was seen here yet'}
        {cell.fading && ', fading'}
      </p>
      {item.goodEnough && (
        <p className="text-soft">
          Good enough at this level: <b className="text-ink">{item.goodEnough}</b>
          {item.acceptedFaults.length > 0 && `; ${counted(item.acceptedFaults.length, 'known fault')} accepted`}
        </p>
      )}
      <div className="grid grid-cols-2 gap-2 max-md:grid-cols-6">
        {(['follows', 'alone', 'flowing'] as const).map((stage, at) => (
          <button
            key={stage}
            type="button"
            className="button min-h-12 max-md:col-span-2"
            onClick={() => mark('stage', { stage })}
          >
            {stageWords[stage]} <Kbd>{at + 2}</Kbd>
          </button>
        ))}
        <button type="button" className="button min-h-12 max-md:col-span-3" onClick={() => mark('fine')}>
          seen and fine <Kbd>s</Kbd>
        </button>
        <button
          type="button"
          className="button col-span-2 min-h-12 border-lacquer max-md:col-span-3 text-lacquer"
          aria-expanded={correcting}
          onClick={() => setCorrecting(!correcting)}
        >
          correction <Kbd>x</Kbd>
        </button>
      </div>
      {correcting && (
        <CorrectionChoice
          key={student.studentId + item.postureId}
          item={item}
          open={(rest) => {
            mark('fault', rest)
            setCorrecting(false)
          }}
        />
      )}
      {cell.today.length > 0 && (
        <section>
          <h3>Seen in this lesson</h3>
          <ul className="grid gap-1">
            {cell.today.map((seen) => (
              <li key={seen.id} className="flex items-baseline justify-between gap-3">
                <span>{saying(seen)}</span>
                <button type="button" className="quiet-link" onClick={() => withdraw(seen.id)}>
                  Withdraw
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Panel>
  )
}

function saying(seen: Schema['RegisterSeen']): string {
  if (seen.sign === 'stage') return seen.stage ? stageWords[seen.stage] : ''
  if (seen.sign === 'fine') return 'seen and fine'
  return `${seen.sign === 'better' ? 'better: ' : ''}${seen.words}${seen.weight ? ` (${weightWords[seen.weight]})` : ''}`
}

/** A fault the posture is known for, or one in own words. */
function CorrectionChoice({
  item,
  open,
}: {
  item: Schema['RegisterItem']
  open: (rest: Partial<Schema['RegisterMark']>) => void
}) {
  const [words, setWords] = useState('')
  const [weight, setWeight] = useState<Schema['Weight']>('shape')
  return (
    <section aria-label="Open a correction" className="grid gap-2 rounded-lg border border-line bg-paper p-3">
      <h3>What did you see?</h3>
      {item.faults.map((fault, at) => (
        <button
          key={fault.id}
          type="button"
          autoFocus={at === 0}
          className="button justify-start text-left"
          onClick={() => open({ faultId: fault.id, words: fault.seen, weight: fault.weight })}
        >
          <span>
            {fault.seen}{' '}
            <span className="font-normal text-soft">
              ({weightWords[fault.weight]}
              {item.acceptedFaults.includes(fault.id) && ', still accepted at this level'})
            </span>
          </span>
        </button>
      ))}
      <form
        className="grid gap-2 border-t border-line pt-2"
        onSubmit={(event) => {
          event.preventDefault()
          open({ words, weight })
        }}
      >
        <Field label="In your own words" value={words} onChange={setWords} />
        <Choice label="It is about" value={weight} onChange={setWeight}>
          {Object.entries(weightWords).map(([value, word]) => (
            <Option key={value} value={value}>
              {word}
            </Option>
          ))}
        </Choice>
        <button type="submit" className="button" disabled={!words.trim()}>
          Open the correction
        </button>
      </form>
    </section>
  )
}
