import type { Schema } from '../api/client'
import { useSignedIn } from '../shared/session'
import { lastDays } from '../ui/dates'
import { Panel } from '../ui/Panel'
import { dayMonth, longDate } from '../ui/words'
import type { usePractised } from './use-practised'

/** Four weeks fit on the tear-off. */
const DAYS = 28

interface PracticeLogProps extends Pick<ReturnType<typeof usePractised>, 'minutesOn' | 'say'> {
  who: Schema['HomePracticePractiser']
  print: () => void
  close: () => void
}

/** What one student practises and in what, and the days they brought back on the tear-off. */
export function PracticeLog({ who, minutesOn, say, print, close }: PracticeLogProps) {
  const { today } = useSignedIn()
  const { sheet } = who
  const usual = sheet?.minutes ?? 10
  return (
    <Panel title={who.name} facts={`${who.cohort}, ${who.mode}`} close={close}>
      {sheet && (
        <section>
          <p>
            <b>{sheet.minutes} minutes a day.</b> To look at: {sheet.focus}.
          </p>
          {sheet.occasion && (
            <p className="mt-2">
              <b>{sheet.occasion.when}:</b> {sheet.occasion.how}
            </p>
          )}
          <button type="button" className="button mt-3" onClick={print}>
            Print this sheet
          </button>
        </section>
      )}
      <section>
        <h3>Practised</h3>
        <p className="text-soft">
          The days of their tear-off: a tap writes down {usual} minutes, another takes it back. It is no stage.
        </p>
        <ul className="mt-2 grid grid-cols-7 gap-1">
          {lastDays(today, DAYS).map((day) => {
            const minutes = minutesOn(who, day)
            return (
              <li key={day}>
                <button
                  type="button"
                  aria-pressed={minutes > 0}
                  aria-label={`${longDate(day)}: ${minutes > 0 ? `${minutes} minutes` : 'nothing'}`}
                  onClick={() => say(who, day, minutes > 0 ? 0 : usual)}
                  className={`min-h-11 w-full rounded-md border text-small ${minutes > 0 ? 'border-pine bg-pine font-bold text-white' : 'border-edge bg-white text-soft'}`}
                >
                  {Number(day.slice(8))}
                </button>
              </li>
            )
          })}
        </ul>
        <p className="mt-1 text-small text-soft">
          {dayMonth(lastDays(today, DAYS)[0]!)} to {dayMonth(today)}
        </p>
      </section>
      {sheet && (
        <section>
          <h3>On their sheet, too</h3>
          <ul className="list-disc pl-5 text-soft">
            {sheet.cautions.map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
          </ul>
        </section>
      )}
    </Panel>
  )
}
