import type { Schema } from '../api/client'
import { DropdownMenu } from '../ui/DropdownMenu'
import { Kbd } from '../ui/Kbd'
import { Panel } from '../ui/Panel'
import { Sole } from '../ui/Sole'
import { SoleKey } from '../ui/SoleKey'
import { counted, modeNames, runThroughWords, seenWords, stageWords, weightWords } from '../ui/words'
import { AgainstPrinciples } from './AgainstPrinciples'
import { CorrectionChoice } from './CorrectionChoice'
import { HowFar } from './HowFar'
import type { Sweep } from './use-sweep'
import { WaysDone, type TryWay } from './WaysDone'

interface MarkPanelProps {
  student?: Schema['RegisterStudentRow']
  item?: Schema['RegisterItem']
  cell?: Schema['RegisterCell']
  /** The mode it is done in tonight. */
  mode: string
  setMode: (mode: string) => void
  /** It is seen inside a run-through, and not by itself. */
  inRunThrough: boolean
  setInRunThrough: (inRunThrough: boolean) => void
  sweep: Sweep
  correcting: boolean
  setCorrecting: (correcting: boolean) => void
  mark: (sign: Schema['RegisterMark']['sign'], rest?: Partial<Schema['RegisterMark']>) => void
  /** Of a correction against a principle, the principle. */
  tryWay: (principleId: string | null, ...tried: Parameters<TryWay>) => void
  withdraw: (id: string) => void
  close: () => void
}

/** What one student can do now in one posture, and what needs correcting. */
export function MarkPanel({
  student,
  item,
  cell,
  mode,
  setMode,
  inRunThrough,
  setInRunThrough,
  sweep,
  correcting,
  setCorrecting,
  mark,
  tryWay,
  withdraw,
  close,
}: MarkPanelProps) {
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
      {cell.relearn && (
        <p className="border-l-4 border-ochre-mark pl-3">
          <b>Learned the old way.</b> It is done so now: {cell.relearn}.
        </p>
      )}
      {item.goodEnough && (
        <p className="text-soft">
          Good enough at this level: <b className="text-ink">{item.goodEnough}</b>
          {item.acceptedFaults.length > 0 && `; ${counted(item.acceptedFaults.length, 'known fault')} accepted`}
        </p>
      )}
      <p className="-mt-3 flex flex-wrap gap-x-4">
        <DropdownMenu
          className="quiet-link inline-flex! items-center gap-1"
          name={mode === student.mode ? `done ${mode}, as usual` : `done ${mode}`}
          label={`The mode ${student.name} did it in: ${mode}`}
          items={modeNames.map((name) => ({ name, act: () => setMode(name) }))}
        />
        <DropdownMenu
          className="quiet-link inline-flex! items-center gap-1"
          name={inRunThrough ? runThroughWords : 'by itself'}
          label={`How it is seen: ${inRunThrough ? runThroughWords : 'by itself'}`}
          items={[
            { name: 'by itself', act: () => setInRunThrough(false) },
            { name: runThroughWords, act: () => setInRunThrough(true) },
          ]}
        />
        <HowFar sweep={sweep} who={student.name} />
      </p>
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
          open={(rest, sign) => {
            mark(sign, rest)
            setCorrecting(false)
          }}
        />
      )}
      {cell.open.map((correction) => (
        <WaysDone key={correction.words} correction={correction} tryWay={(...tried) => tryWay(null, ...tried)} />
      ))}
      <AgainstPrinciples
        student={student}
        mark={({ principleId, correction: { words } }, sign) => mark(sign, { principleId, words })}
        tryWay={tryWay}
        withdraw={withdraw}
      />
      {cell.today.length > 0 && (
        <section>
          <h3>Seen in this lesson</h3>
          <ul className="grid gap-1">
            {cell.today.map((seen) => (
              <li key={seen.id} className="flex items-baseline justify-between gap-3">
                <span>{saying(seen, student.mode)}</span>
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

function saying(seen: Schema['RegisterSeen'], usual: string): string {
  const how = seen.mode && seen.mode !== usual ? `, ${seen.mode}` : ''
  return `${seenWords(seen)}${how}${seen.weight ? ` (${weightWords[seen.weight]})` : ''}`
}
