import { useState } from 'react'
import { singleKeys } from '../ui/keys'
import { Kbd } from '../ui/Kbd'
import { Switch } from '../ui/Switch'
import { rooms } from './rooms'

const works: [string[], string][] = [
  [['/'], 'find a posture, a student or a class'],
  [['←', '↑', '↓', '→'], 'move in a table or list'],
  [['Home', 'End'], 'to the ends of its row'],
  [['Enter'], 'open'],
  [['Esc'], 'close the panel'],
  [['z'], 'undo'],
  [['Shift', '←', '→'], 'take a posture to another lesson; Enter puts it there (Term)'],
  [['p'], 'keep a posture on its date, or let it move (Term)'],
  [['m'], 'mirror the chosen position, or show the other side (Forms)'],
  [['Space'], 'play and pause (Forms)'],
  [[',', '.'], 'a count back, a count on (Forms)'],
  [['2', '3', '4'], 'follows, alone, flowing (while marking)'],
  [['s'], 'seen and fine (while marking)'],
  [['x'], 'correction (while marking)'],
  [['e'], 'everybody in this at once (while marking)'],
  [['p', 'a', 't'], 'plan the rest, announce, teach again (looking back)'],
  [['m', 'w', 'd'], 'make up, keep minutes for watching, done (looking back)'],
]

/** What the keys do here, and the switch for those that are single letters. */
export function KeyHelp() {
  const [on, setOn] = useState(singleKeys.areOn())
  return (
    <div className="p-2">
      <h2 className="text-lg">Keys</h2>
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
        {rooms.map((room) => (
          <div key={room.key} className="contents">
            <dt>
              <Kbd>g</Kbd> <Kbd>{room.key}</Kbd>
            </dt>
            <dd>{room.name}</dd>
          </div>
        ))}
        {works.map(([keys, what]) => (
          <div key={what} className="contents">
            <dt className="whitespace-nowrap">
              {keys.map((key) => (
                <Kbd key={key}>{key}</Kbd>
              ))}
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-4 border-t border-line pt-3">
        <Switch
          on={on}
          onChange={(now) => {
            singleKeys.set(now)
            setOn(now)
          }}
          hint="Off for whoever speaks to their computer: then no letter does anything by itself. Remembered on this device."
        >
          Single letters do something
        </Switch>
      </div>
    </div>
  )
}
