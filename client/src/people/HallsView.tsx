import { Link } from 'react-router'
import { useSignedIn } from '../shared/session'
import { leave } from '../shared/leaving'
import { useOpened } from '../shared/opened'
import { Empty } from '../ui/states'
import { clockTime, roleWords, weekdayWords } from '../ui/words'
import { HallPanel } from './HallPanel'
import { HallPlan } from './HallPlan'
import type { School } from './data'
import { number } from '../ui/writing'

type Hall = School['halls'][number]

/** The halls drawn to one scale, and the staff. */
export function HallsView({ school }: { school: School }) {
  const { isHead } = useSignedIn()
  const { opened: chosen, open, close } = useOpened<string>()
  const widest = Math.max(...school.halls.map((hall) => hall.width), 1)
  const choose = (next: string) => leave(() => open(next))
  const hall = school.halls.find((one) => one.id === chosen)
  return (
    <div className={`grid flex-1 border-t border-line ${chosen ? 'lg:grid-cols-[minmax(0,1fr)_400px]' : ''}`}>
      <div className="grid content-start gap-8 px-5 py-4">
        <section>
          <div className="flex items-baseline justify-between gap-3">
            <h2 className="text-lg">Halls</h2>
            {isHead && (
              <button type="button" className="button" onClick={() => choose('new hall')}>
                Add a hall
              </button>
            )}
          </div>
          <ul className="mt-3 flex flex-wrap items-end gap-8">
            {school.halls.map((one) => (
              <li key={one.id}>
                <HallPlan hall={one} width={(one.width / widest) * 260} />
                <p className="mt-1">
                  <span className="font-serif text-base font-bold">{one.name}</span>{' '}
                  {isHead && (
                    <button
                      type="button"
                      className="quiet-link ml-2"
                      aria-label={`Change ${one.name}`}
                      onClick={() => choose(one.id)}
                    >
                      Change
                    </button>
                  )}
                  <br />
                  {number(one.width)} m wide, {number(one.depth)} m deep
                  {one.allowed !== null && `, ${one.allowed} people allowed`}
                  <br />
                  <span className="text-soft">
                    {one.chairs} firm chairs{one.rail > 0 ? `, ${number(one.rail)} m of rail` : ', no rail'}
                    {one.mirror && ', a mirror'}
                    <br />
                    {hoursOf(one)}
                  </span>
                </p>
              </li>
            ))}
          </ul>
          {school.halls.length === 0 && (
            <Empty next={isHead && [{ name: 'Add the first hall', act: () => choose('new hall') }]}>
              No hall yet. Width and depth are enough to begin with.
            </Empty>
          )}
          <p className="mt-4 max-w-prose text-soft">
            All drawn to one scale, front wall above, rail in green, mirror in blue. How many people a hall may hold,
            its doorways and escape routes are for your local code to say.
          </p>
        </section>
        <section>
          <div className="flex items-baseline justify-between gap-3">
            <h2 className="text-lg">Staff</h2>
            {isHead && (
              <Link to="/school?view=staff" className="button">
                Invite somebody who teaches
              </Link>
            )}
          </div>
          <ul className="mt-2 flex flex-wrap gap-x-10 gap-y-3">
            {school.staff
              .filter(({ closed }) => !closed)
              .map((member) => (
                <li key={member.id}>
                  <b>{member.name}</b>
                  <br />
                  <span className="text-soft">
                    {roleWords[member.role]}
                    {' · '}
                    {school.classes
                      .filter((schoolClass) => schoolClass.staffIds.includes(member.id))
                      .map((schoolClass) => schoolClass.name)
                      .join('; ') || 'no class'}
                  </span>
                </li>
              ))}
          </ul>
        </section>
      </div>
      {(hall || chosen === 'new hall') && <HallPanel key={hall?.id ?? 'new'} hall={hall} close={close} />}
    </div>
  )
}

/** "open every day 08:00 to 22:00" where that is all there is to say. */
function hoursOf(hall: Hall) {
  if (hall.hours.length === 0) return 'no hours written down'
  const same = hall.hours.every((open) => open.from === hall.hours[0]!.from && open.to === hall.hours[0]!.to)
  const from = (open: Hall['hours'][number]) => `${clockTime(open.from)} to ${clockTime(open.to)}`
  if (same && hall.hours.length === 7) return `open every day ${from(hall.hours[0]!)}`
  return same
    ? `open ${hall.hours.map((open) => weekdayWords[open.weekday].slice(0, 3)).join(', ')} ${from(hall.hours[0]!)}`
    : hall.hours.map((open) => `${weekdayWords[open.weekday].slice(0, 3)} ${from(open)}`).join(', ')
}
