import { Kbd } from '../ui/Kbd'
import { rooms } from './rooms'

const works: [string[], string][] = [
  [['/'], 'find a posture, a student or a class'],
  [['←', '↑', '↓', '→'], 'move in a table or list'],
  [['Enter'], 'open'],
  [['Esc'], 'close the panel'],
  [['z'], 'undo'],
  [['Shift', '←', '→'], 'take a chip to another lesson; Enter puts it there (Term)'],
  [['p'], 'fix a chip where it is, or let it go (Term)'],
  [['m'], 'mirror the chosen position, or show the other side (Forms)'],
  [['Space'], 'play and pause (Forms)'],
  [[',', '.'], 'a count back, a count on (Forms)'],
  [['2', '3', '4'], 'follows, alone, flowing (while marking)'],
  [['s'], 'seen and fine (while marking)'],
  [['x'], 'correction (while marking)'],
]

/** What the keys do here. */
export function KeyHelp({ close }: { close: () => void }) {
  return (
    <section
      aria-label="Keys"
      className="absolute top-full right-5 z-40 mt-2 w-96 rounded-lg border border-line bg-paper p-5 shadow-lg"
    >
      <div className="flex items-baseline justify-between">
        <h2 className="text-lg">Keys</h2>
        <button type="button" className="quiet-link" onClick={close}>
          Close
        </button>
      </div>
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
    </section>
  )
}
