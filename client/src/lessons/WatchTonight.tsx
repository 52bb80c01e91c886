import { newId } from '../ui/new-id'
import { clockAt, type Arrangement } from './arranging'
import type { Arranging } from './ArrangingByHand'
import { looksWords, watchWords, type Look } from './watch-words'

interface WatchTonightProps {
  arrangement: Arrangement
  /** When the lesson begins. */
  start: string
  arranging: Arranging
}

/** Who looks at whom in which block, and who finds no look though nobody saw them last time either. */
export function WatchTonight({ arrangement, start, arranging }: WatchTonightProps) {
  const { looks, unseen, teachers } = arrangement
  const blocks = looks
    .filter((look, at) => looks.findIndex((one) => isOfBlock(one, look)) === at)
    .map((first) => ({ first, its: looks.filter((look) => isOfBlock(look, first)) }))
  return (
    <section>
      <h2 className="text-lg">Whom to watch</h2>
      {unseen.length > 0 && <WithoutALook arrangement={arrangement} arranging={arranging} />}
      <ul className="mt-1">
        {blocks.map(({ first, its }) => (
          <li
            key={`${first.start} ${first.teacherId} ${first.cohortId}`}
            className="grid grid-cols-[3.5rem_1fr] gap-2 border-b border-fine py-1"
          >
            <span className="text-soft">
              {clockAt(start, first.start!)}
              <span className="block">
                {teachers.find((teacher) => teacher.id === first.teacherId)?.name.split(' ')[0]}
              </span>
            </span>
            <span>
              {its.map((look) => (
                <span key={look.studentId} className="block">
                  <b>{look.student}</b> in {look.posture}, <span className="text-soft">{watchWords(look)}</span>
                </span>
              ))}
            </span>
          </li>
        ))}
        {looks.length === 0 && <li className="text-soft">Nobody can be watched as it is arranged.</li>}
      </ul>
    </section>
  )
}

const isOfBlock = (look: Look, other: Look) =>
  look.start === other.start && look.teacherId === other.teacherId && look.cohortId === other.cohortId

/** One press makes room for them, cohort by cohort. */
function WithoutALook({ arrangement, arranging }: Omit<WatchTonightProps, 'start'>) {
  return (
    <div className="mt-1 border-l-4 border-lacquer pl-3">
      <p>
        <b>Nobody looks tonight at {arrangement.unseen.map((look) => look.student).join(', ')}:</b>{' '}
        {arrangement.missingMinutes} min more of watching would.
      </p>
      {arranging.may &&
        arrangement.cohorts.map((cohort) => {
          const due = arrangement.unseen.filter((look) => look.cohortId === cohort.id).slice(0, IN_A_BLOCK)
          return (
            due.length > 0 && (
              <button
                key={cohort.id}
                type="button"
                className="button mt-1 mr-2"
                disabled={arranging.busy}
                title={looksWords(due)}
                onClick={() => arranging.edit(toWatch(cohort.id, due))}
              >
                Watch {cohort.name} for {minutesFor(due)} min
              </button>
            )
          )
        })}
    </div>
  )
}

/** So many one teacher truly sees in a block. */
export const IN_A_BLOCK = 3

export const minutesFor = (due: Look[]) => Math.max(2, due.length)

/** A block in which those who find no look are looked at. */
export const toWatch = (cohortId: string, due: Look[]) => ({
  kind: 'add' as const,
  task: {
    key: newId(),
    kind: 'watch' as const,
    cohortIds: [cohortId],
    minutes: minutesFor(due),
    what: due.map((look) => look.student).join(', '),
    because: 'Nobody saw them last time.',
    material: [],
  },
})
