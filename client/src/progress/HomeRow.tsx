import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { lastDays } from '../ui/dates'
import { Ribbon } from '../ui/Ribbon'
import { dayMonth } from '../ui/words'
import { HomeThing } from './HomeThing'
import type { usePractised } from './use-practised'

type Practiser = Schema['HomePracticePractiser']

/** Days what was practised is counted over. */
const COUNTED_DAYS = 14

/** What one student practises at home, and whether they have it in their hands. */
export function HomeRow({
  one,
  isChosen,
  minutesOn,
  choose,
}: {
  one: Practiser
  isChosen: boolean
  minutesOn: ReturnType<typeof usePractised>['minutesOn']
  choose: () => void
}) {
  const { today } = useSignedIn()
  const days = lastDays(today, COUNTED_DAYS).filter((day) => minutesOn(one, day) > 0).length
  return (
    <li className={`border-b border-line ${isChosen ? 'bg-pine-tint' : ''}`}>
      <button
        type="button"
        aria-pressed={isChosen}
        onClick={choose}
        className="grid w-full gap-x-5 gap-y-2 px-5 py-3 text-left lg:grid-cols-[190px_minmax(0,1fr)]"
      >
        <span>
          <span className="flex items-center gap-2 font-bold">
            <Ribbon colour={one.sashColour} half={one.half} size={22} />
            {one.name}
          </span>
          <span className="block text-soft">
            {one.cohort}
            {one.mode !== 'standing' && `, ${one.mode}`}
          </span>
          <span className={`block ${one.isNew ? 'font-semibold text-pine' : 'text-soft'}`}>{handedOut(one)}</span>
          {days > 0 && (
            <span className="block text-soft">
              practised {days} of {COUNTED_DAYS} days
            </span>
          )}
        </span>
        {one.sheet ? (
          <span className="grid gap-2">
            <span className="grid gap-3 md:grid-cols-3">
              {one.sheet.things.map((thing) => (
                <HomeThing key={thing.kind} thing={thing} sash={one.sashColour} />
              ))}
            </span>
            <span>
              <b>To look at:</b> {one.sheet.focus}
            </span>
          </span>
        ) : (
          <span className="text-soft">Nothing to practise yet: nothing has been shown that is right for them.</span>
        )}
      </button>
    </li>
  )
}

function handedOut({ sheet, given, isNew }: Practiser) {
  if (!sheet) return ''
  if (!given) return 'has none yet'
  return isNew ? `changed since ${dayMonth(given)}` : `has it since ${dayMonth(given)}`
}
