import type { ReactNode } from 'react'
import { Collapsible } from '../ui/Collapsible'
import { Sole } from '../ui/Sole'
import { counted, stageWords, weightWords } from '../ui/words'
import { aboutWhen, type Lack, type Next } from './next-sash'

/** More names at once are not read. */
const NAMED = 6

/** What somebody lacks for the next sash: time, what is to be corrected, what is to be seen. */
export function Lacks({ next, today }: { next: Next; today: string }) {
  const of = (kind: Lack['kind']) => next.missing.filter((lack) => lack.kind === kind)
  const by = (lacks: readonly Lack[]) => {
    const last =
      lacks.every(({ likely }) => likely) &&
      lacks
        .map(({ likely }) => likely!)
        .toSorted()
        .at(-1)
    return last ? <span className="text-soft">, likely by {aboutWhen(last, today)}</span> : null
  }
  const corrections = of('correction')
  return (
    <ul className="grid gap-1">
      {[...of('weeks'), ...of('lessons')].map((lack) => (
        <li key={lack.kind}>
          {lack.time!.count} of {lack.time!.asked} {lack.kind === 'weeks' ? 'weeks at the level' : 'lessons attended'}
          {lack.kind === 'weeks' ? <span className="text-soft">, {aboutWhen(lack.likely!, today)}</span> : by([lack])}
        </li>
      ))}
      {corrections.length > 0 && (
        <li>
          To be clean{by(corrections)}:
          <ul>
            {corrections.map((lack) => (
              <li key={lack.what + lack.toClear!.words} className="border-l-4 border-lacquer pl-2">
                <b>{lack.what}</b>: {lack.toClear!.words}{' '}
                <span className="text-soft">({weightWords[lack.toClear!.weight]})</span>
              </li>
            ))}
          </ul>
        </li>
      )}
      <ToSee lacks={of('posture')} named={NAMED} by={by} today={today} />
      <ToSee lacks={of('link')} named={0} by={by} today={today} />
      {next.notAsked.length > 0 && (
        <li className="text-soft">
          Not asked of them, for they leave it out or there is no version they can do: {next.notAsked.join('; ')}.
        </li>
      )}
    </ul>
  )
}

/** Postures or links that are still to be seen at the stage asked for. */
function ToSee({ lacks, named, by, today }: ToSeeProps) {
  if (lacks.length === 0) return null
  const stages = [...new Set(lacks.map(({ toSee }) => stageWords[toSee!.asked]))].join(' or ')
  const what = (
    <>
      {counted(lacks.length, lacks[0]!.kind)} to be seen {stages}
      {by(lacks)}
    </>
  )
  const rest = lacks.slice(named)
  return (
    <li>
      {named > 0 && (
        <>
          {what}:
          <Names lacks={lacks.slice(0, named)} today={today} />
        </>
      )}
      {rest.length > 0 && (
        <Collapsible name={<span className="font-normal">{named > 0 ? `and ${rest.length} more` : what}</span>}>
          <Names lacks={rest} today={today} />
        </Collapsible>
      )}
    </li>
  )
}

interface ToSeeProps {
  lacks: readonly Lack[]
  /** How many are named at once. */
  named: number
  by: (lacks: readonly Lack[]) => ReactNode
  today: string
}

const Names = ({ lacks, today }: { lacks: readonly Lack[]; today: string }) => (
  <ul className="flex flex-wrap gap-x-3">
    {lacks.map(({ what, toSee }) => (
      <li key={what} className="flex items-center gap-1">
        <Sole stage={toSee!.has} side={toSee!.side} takenOver={toSee!.takenOver} size={20} />
        {what}
        {toSee!.new && <span className="text-soft">new about {aboutWhen(toSee!.new, today)}</span>}
      </li>
    ))}
  </ul>
)
