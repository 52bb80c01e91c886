import type { Schema } from '../api/client'
import { SmallFigure } from '../shared/SmallFigure'
import { counted } from '../ui/words'

export const kindWords: Record<Schema['HomeKind'], string> = {
  newest: 'New',
  correction: 'To correct',
  flow: 'Once through',
}

/** In what mode, and what they do otherwise: "supported, with toe down". */
const howDone = ({ mode, words }: Schema['HomePracticeDone']) => [mode, words].filter(Boolean).join(', ')

/** How often, how long and how, where that is not standing: "6 times slowly, 3 min, no-step". */
export const howMuch = ({ kind, times, minutes, postures }: Schema['HomePracticeThing']) =>
  [
    kind === 'flow' ? counted(postures.length, 'posture') : `${times} times slowly`,
    `${minutes} min`,
    ...new Set(postures.map(howDone).filter((how) => how !== 'standing')),
  ].join(', ')

/** One thing to practise, small. */
export function HomeThing({ thing, sash }: { thing: Schema['HomePracticeThing']; sash: string }) {
  const [first] = thing.kind === 'flow' ? thing.postures : thing.postures.slice(-1)
  return (
    <span className="flex gap-2">
      {first && (
        <SmallFigure
          postureId={first.postureId}
          side={first.side}
          mode={first.mode}
          sash={sash}
          className="h-14 w-10 shrink-0"
        />
      )}
      <span className="min-w-0">
        <span className="block text-small text-soft">{kindWords[thing.kind]}</span>
        <span className="block font-serif text-base font-bold">{thing.name}</span>
        <span className="block text-soft">{howMuch(thing)}</span>
        {thing.seen && <span className="block">{thing.seen}</span>}
      </span>
    </span>
  )
}
