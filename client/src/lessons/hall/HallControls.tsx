import type { ReactNode } from 'react'
import type { Schema } from '../../api/client'
import { useSignedIn } from '../../shared/session'
import { useWays } from '../../shared/ways'
import { waiting as queue, type Waiting } from '../../shared/waiting'
import { useKeys } from '../../ui/keys'
import { counted } from '../../ui/words'
import { clockAt, type LessonEdit } from '../arranging'
import { useBreathBell, useChangeSignal, useWanted } from './device'
import { blockAfter, blockAt } from './hall'
import { longer, lost, over, swapped } from './happening'

interface HallControlsProps {
  sheet: Schema['LessonSheet']
  arrangement: Schema['ArrangementResponse']
  cohortId: string | undefined
  minute: number
  isHeld: boolean
  paused: { from: number; who: string } | undefined
  /** Seconds since the lesson began, however it stands. */
  passing: number
  happen: (edits: LessonEdit[], says: string) => void
  waiting: readonly Waiting[]
  /** Shows how it went. */
  end: () => void
  /** What stands at the end of its row. */
  children: ReactNode
}

const MORE = 2
const LOST = [5, 10] as const

/** As long as nothing else is known of the school's breath. */
const COUNTS_PER_BREATH = 2
const SECONDS_PER_COUNT = 4

/** What can be said while the lesson goes on; the rest is arranged anew each time, and what gives way is said. */
export function HallControls({
  sheet,
  arrangement,
  cohortId,
  minute,
  isHeld,
  paused,
  passing,
  happen,
  waiting,
  end,
  children,
}: HallControlsProps) {
  const { person } = useSignedIn()
  const name = person.name.split(' ')[0]!
  const pause = () => happen([{ kind: 'pause', from: minute, who: name }], 'A pause')
  const goOn = () => {
    if (!paused) return
    const until = Math.min(arrangement.minutes, Math.max(paused.from, Math.floor(passing / 60)))
    happen(lost(arrangement, paused.from, until, `Paused by ${paused.who}`), 'The end of the pause')
  }
  useKeys((event) => {
    if (event.key !== 'p' || !isHeld || passing < 0) return false
    if (paused) goOn()
    else pause()
    return true
  })
  const isOver = isHeld && passing >= arrangement.minutes * 60
  const block = cohortId === undefined ? undefined : blockAt(arrangement, cohortId, minute)
  const after = block && cohortId !== undefined ? blockAfter(arrangement, cohortId, block) : undefined
  const [sound, setSound] = useWanted('sound')
  const [bell, setBell] = useWanted('breath bell')
  const breathes = block !== undefined && ['rest', 'settle', 'ownPractice'].includes(block.kind)
  useChangeSignal(block ? `${block.kind} ${block.what} ${block.start}` : '', sound)
  useBreathBell((useWays().ways?.countsPerBreath ?? COUNTS_PER_BREATH) * SECONDS_PER_COUNT, bell && breathes)
  const gone = arrangement.edits.some((edit) => edit.kind === 'since') ? arrangement.shortfalls : []
  const late = waiting.filter((entry) => entry.refused === undefined)
  const refused = waiting.filter((entry) => entry.refused !== undefined)
  return (
    <div className="mt-4 grid gap-2">
      {gone.length > 0 && (
        <p role="status" className="border-l-4 border-ochre-mark pl-3">
          <b>Gave way:</b>{' '}
          {gone
            .slice(0, 2)
            .map((one) => one.says)
            .join(' ')}
          {gone.length > 2 && ` And ${gone.length - 2} more.`}
        </p>
      )}
      {late.length > 0 && (
        <p role="status" className="text-dew">
          {counted(late.length, 'change')} kept here; arranged properly when the network is back.
        </p>
      )}
      {refused.map((entry) => (
        <p key={entry.id} role="alert" className="flex flex-wrap gap-3 border-l-4 border-lacquer pl-3">
          {entry.says} was not taken. {entry.refused}
          <button type="button" className="night-link" onClick={() => void queue.forget(entry.id)}>
            I have read it
          </button>
        </p>
      ))}
      <div className="flex flex-wrap gap-2 max-md:flex-nowrap max-md:overflow-x-auto">
        {isOver && (
          <button type="button" className="night-primary" onClick={end}>
            How it went
          </button>
        )}
        {isHeld &&
          !isOver &&
          passing >= 0 &&
          (paused ? (
            <button type="button" className="night-primary" onClick={goOn}>
              Go on
            </button>
          ) : (
            <>
              <button type="button" className="night-button shrink-0" onClick={pause}>
                Pause
              </button>
              {block?.task && block.start < minute && (
                <button
                  type="button"
                  className="night-button shrink-0"
                  onClick={() => happen(over(arrangement, block, minute), `${block.what} is done`)}
                >
                  This is done
                </button>
              )}
              {block?.task && (
                <button
                  type="button"
                  className="night-button shrink-0"
                  onClick={() => happen(longer(arrangement, block, minute, MORE), `${block.what}: ${MORE} min more`)}
                >
                  {MORE} min more
                </button>
              )}
              {block?.task && after?.task && (
                <button
                  type="button"
                  className="night-button shrink-0"
                  onClick={() => happen(swapped(arrangement, block, after, minute), `${after.what} comes first`)}
                >
                  First {after.what}
                </button>
              )}
              {LOST.filter((minutes) => minutes <= minute).map((minutes) => (
                <button
                  key={minutes}
                  type="button"
                  className="night-button shrink-0"
                  onClick={() =>
                    happen(
                      lost(arrangement, minute - minutes, minute, `${minutes} minutes lost`),
                      `${minutes} minutes lost`,
                    )
                  }
                >
                  {minutes} min were lost
                </button>
              ))}
              {minute > 0 && minute <= 30 && block?.kind === 'warmUp' && (
                <button
                  type="button"
                  className="night-button shrink-0"
                  onClick={() => happen(lost(arrangement, 0, minute, 'Began late'), 'Began late')}
                >
                  We begin now, at {clockAt(sheet.start, minute)}
                </button>
              )}
            </>
          ))}
        <Toggle on={sound} set={setSound} says="Sound" />
        {breathes && <Toggle on={bell} set={setBell} says="Breath bell" />}
        {children}
      </div>
    </div>
  )
}

const Toggle = ({ on, set, says }: { on: boolean; set: (on: boolean) => void; says: string }) => (
  <button type="button" aria-pressed={on} className="night-button shrink-0" onClick={() => set(!on)}>
    {says}: {on ? 'on' : 'off'}
  </button>
)
