import type { Schema } from '../api/client'
import { Sole } from './Sole'
import { stageWords } from './words'

const stages: Schema['Stage'][] = ['notMet', 'shown', 'follows', 'alone', 'flowing', 'settled']

/** How to read the soles. */
export function SoleKey() {
  return (
    <section>
      <h3 className="text-base">How to read the soles</h3>
      <ul className="mt-2 grid grid-cols-2 gap-x-4 gap-y-1.5">
        {stages.map((stage) => (
          <li key={stage} className="flex items-center gap-2.5">
            <Sole stage={stage} side="left" /> {stageWords[stage]}
          </li>
        ))}
        <li className="flex items-center gap-2.5">
          <Sole stage="alone" side="left" correction="keyPoint" /> key point open
        </li>
        <li className="flex items-center gap-2.5">
          <Sole stage="alone" side="left" correction="shape" /> shape open
        </li>
        <li className="flex items-center gap-2.5">
          <Sole stage="alone" side="left" correction="finesse" /> finesse open
        </li>
        <li className="flex items-center gap-2.5">
          <Sole stage="flowing" side="left" fading /> fading: untouched for weeks
        </li>
        <li className="flex items-center gap-2.5">
          <Sole stage="alone" side="left" takenOver /> taken over: not seen here
        </li>
      </ul>
    </section>
  )
}
