import type { Schema } from '../../api/client'
import { Ribbon } from '../../ui/Ribbon'
import { blockWords } from '../../ui/words'
import { clockAt } from '../arranging'
import { blockAfter, blockAt, timeLeft, visitIn } from './hall'

interface HallWallProps {
  arrangement: Schema['ArrangementResponse']
  lanes: Schema['LessonCohortSheet'][]
  start: string
  seconds: number
  choose: (cohortId: string) => void
}

/** All cohorts at once, for a screen on the wall: what each does now, with whom, for how long, and what comes then. */
export function HallWall({ arrangement, lanes, start, seconds, choose }: HallWallProps) {
  const minute = Math.min(arrangement.minutes - 1, Math.floor(seconds / 60))
  const nameOf = (id: string | null | undefined) =>
    arrangement.teachers.find((one) => one.id === id)?.name.split(' ')[0]
  return (
    <ul className="mt-4 grid min-h-0 flex-1 content-start overflow-y-auto">
      {lanes.map((lane) => {
        const block = blockAt(arrangement, lane.cohortId, minute)
        if (!block) return null
        const after = blockAfter(arrangement, lane.cohortId, block)
        const visit = visitIn(arrangement, block, minute)
        const who = nameOf(block.ledBy) ?? (visit && visit.start <= minute ? nameOf(visit.ledBy) : undefined)
        return (
          <li key={lane.cohortId} className="border-b border-night-line">
            <button
              type="button"
              className="grid w-full grid-cols-[2.6rem_11rem_minmax(0,1fr)_6rem] items-center gap-3 py-3 text-left max-md:grid-cols-[2rem_minmax(0,1fr)_4.6rem]"
              onClick={() => choose(lane.cohortId)}
            >
              <Ribbon colour={lane.colour} half={lane.half} size={34} />
              <span className="text-[1.5rem] font-bold">{lane.name}</span>
              <span className="min-w-0 max-md:col-span-2 max-md:col-start-2 max-md:row-start-2">
                <span className="block text-[1.6rem] leading-tight">{block.what || blockWords[block.kind]}</span>
                <span className="block text-night-soft">
                  {blockWords[block.kind].toLowerCase()}
                  {who ? ` · ${who}` : visit ? ` · ${nameOf(visit.ledBy)} at ${clockAt(start, visit.start)}` : ''}
                  {after && ` · then ${blockWords[after.kind].toLowerCase()}${after.what ? `: ${after.what}` : ''}`}
                </span>
              </span>
              <span className="text-right text-[1.7rem] font-bold text-dew">{timeLeft(block.end * 60 - seconds)}</span>
            </button>
          </li>
        )
      })}
    </ul>
  )
}
