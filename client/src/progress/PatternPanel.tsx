import { Link } from 'react-router'
import { useSignedIn } from '../shared/session'
import { Panel } from '../ui/Panel'
import { counted, dayMonth, fieldDate, wayWords, weightWords } from '../ui/words'
import { whatCameOfIt } from './CorrectionCard'
import { saidOf, times, type Pattern } from './patterns'

/** One fault: who had it when, and what was tried; in the order it happened. */
export function PatternPanel({ pattern, close }: { pattern: Pattern; close: () => void }) {
  const { today } = useSignedIn()
  return (
    <Panel title={pattern.name} facts={`${pattern.words}; ${weightWords[pattern.weight]}`} close={close}>
      <section>
        <p>
          Open for {counted(pattern.weeks, 'week')} in all, called {times(pattern.called)},{' '}
          {pattern.tried === 0 ? 'and nothing else tried' : `something else tried ${times(pattern.tried)}`}. Open now in{' '}
          {counted(pattern.openNow, 'person', 'people')}.
        </p>
        {saidOf(pattern).map((said) => (
          <p key={said}>
            <b>{said[0]!.toUpperCase() + said.slice(1)}.</b>
          </p>
        ))}
        {pattern.waves.length > 0 && (
          <p className="text-soft">First seen {pattern.waves.map((wave) => fieldDate(wave)).join('; ')}.</p>
        )}
        <Link to={`/forms/postures/${pattern.postureId}`} className="quiet-link">
          Open the posture
        </Link>
      </section>
      <section>
        <h3>Who, and when</h3>
        <ul className="grid gap-2">
          {pattern.cases.map((one) => (
            <li key={one.studentId + one.side} className="border-l-4 border-line pl-3">
              {one.classId ? (
                <Link
                  to={`/progress/${one.classId}?student=${one.studentId}&posture=${pattern.postureId}&side=${one.side}`}
                  className="font-bold"
                >
                  {one.name}
                </Link>
              ) : (
                <b>{one.name}</b>
              )}
              <span className="text-soft">
                {one.cohort && `, ${one.cohort}`}
                {one.side !== 'symmetric' && `, ${one.side}`}
              </span>
              {one.episodes.map((episode) => (
                <p key={episode.opened}>
                  {fieldDate(episode.opened)} {episode.cleared ? `to ${fieldDate(episode.cleared)}` : 'and still'}, seen{' '}
                  {times(episode.seen)}
                </p>
              ))}
              {one.tried.map((way) => (
                <p key={way.way + way.date + way.cause} className="text-soft">
                  {wayWords[way.way]}, {dayMonth(way.date)}: {whatCameOfIt(way, today)}
                </p>
              ))}
            </li>
          ))}
        </ul>
      </section>
    </Panel>
  )
}
