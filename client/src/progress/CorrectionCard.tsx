import type { ReactNode } from 'react'
import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { daysBetween } from '../ui/dates'
import { DropdownMenu } from '../ui/DropdownMenu'
import { dayMonth, wayWords, weightWords } from '../ui/words'

type Correction = Schema['CorrectionViewsCorrectionResponse']

const ways = Object.keys(wayWords) as Schema['Way'][]

interface CorrectionCardProps {
  correction: Correction
  /** What it is about, where that is not said around it. */
  about?: string
  /** What it is, what was tried and what is next stand beside one another where there is room. */
  wide?: boolean
  /** Said or done below what it is. */
  below?: ReactNode
  /** Says what was done about it in the last lesson; without, there is none to say it of. */
  tried?: (way: Schema['Way'], cause?: string) => void
}

/** One correction: how long, what was tried and whether it helped, and what could be tried next. */
export function CorrectionCard({ correction, about, wide = false, below, tried }: CorrectionCardProps) {
  const { today } = useSignedIn()
  const isOpen = correction.state !== 'cleared'
  return (
    <div
      className={`grid content-start gap-x-6 gap-y-1 border-l-4 pl-3 ${wide ? 'lg:grid-cols-[minmax(0,5fr)_minmax(0,4fr)_minmax(0,6fr)]' : ''} ${correction.weight === 'keyPoint' && isOpen ? 'border-lacquer' : 'border-line'}`}
    >
      <div>
        {about && <p className="font-serif text-base font-bold">{about}</p>}
        <p>{correction.words}</p>
        <p>
          <b className={correction.stuck ? 'text-lacquer' : ''}>
            {weightWords[correction.weight]}, {correction.state}
            {correction.stuck && ', stuck'}
          </b>{' '}
          <span className="text-soft">
            since {dayMonth(correction.since)}, seen{' '}
            {correction.timesSeen === 1 ? 'once' : `${correction.timesSeen} times`}
            {runThroughs(correction)}
          </span>
        </p>
        {below}
      </div>
      <div>
        {correction.tried.length > 0 && (
          <ul aria-label="Tried">
            {correction.tried.map((way) => (
              <li key={way.way + way.date + way.cause}>
                {wayWords[way.way]}, {dayMonth(way.date)}{' '}
                <span className={way.helped ? 'text-pine' : 'text-soft'}>{whatCameOfIt(way, today)}</span>
              </li>
            ))}
          </ul>
        )}
        {isOpen && tried && (
          <WayMenu
            name="What I did about it"
            label={`What I did about it: ${correction.words}`}
            act={(way) => tried(way)}
          />
        )}
      </div>
      {isOpen && (
        <div className="grid content-start gap-1">
          {correction.next.map((step, at) => (
            <NextStep key={at} step={step} tried={tried} />
          ))}
          {correction.stuck && correction.otherWays.length > 0 && (
            <p>
              <span className="text-soft">Another way to teach it:</span> {correction.otherWays.join('; ')}.
            </p>
          )}
        </div>
      )}
    </div>
  )
}

/** A tap for what was done, and one for which way. */
function WayMenu({ name, label, act }: { name: string; label: string; act: (way: Schema['Way']) => void }) {
  return (
    <DropdownMenu
      className="quiet-link inline-flex! items-center gap-1 whitespace-nowrap"
      name={name}
      label={label}
      items={ways.map((way) => ({ name: wayWords[way], act: () => act(way) }))}
    />
  )
}

/** What is seen in run-throughs alone is right by itself: then the links want teaching. */
function runThroughs({ timesSeen, inRunThroughs }: Correction): string {
  if (inRunThroughs === 0) return ''
  return inRunThroughs === timesSeen ? ', only inside a run-through' : `, ${inRunThroughs} inside a run-through`
}

/** A way has three weeks to help. */
const DAYS_TO_HELP = 21

export function whatCameOfIt({ helped, date }: Correction['tried'][number], today: string): string {
  if (helped !== null) return helped ? 'helped' : 'did not help'
  return daysBetween(date, today) > DAYS_TO_HELP ? 'nobody looked in three weeks' : 'not seen again yet'
}

function NextStep({
  step,
  tried,
}: {
  step: Schema['CorrectionViewsNextResponse']
  tried: CorrectionCardProps['tried']
}) {
  const { cause, way } = step
  if (cause)
    return (
      <p>
        <span className="text-soft">Perhaps {cause.why}. Try:</span> {cause.mend}.
        {tried && (
          <>
            {' '}
            <WayMenu name="I did" label={`I did, for: ${cause.why}`} act={(one) => tried(one, cause.why)} />
          </>
        )}
      </p>
    )
  if (!way) return null
  return (
    <p>
      <span className="text-soft">Not tried yet:</span> {wayWords[way]}
      {step.others !== null && (
        <b className="text-pine">
          , eased {step.helped} of {step.others} within three weeks
        </b>
      )}
      .
    </p>
  )
}
