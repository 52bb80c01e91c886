import { Pause, Play } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { DropdownMenu } from '../ui/DropdownMenu'
import { Slider } from '../ui/Slider'
import { longDate } from '../ui/words'

interface WeeksBarProps {
  /** Oldest first, each with the lessons of it that were held, in their order; after each of them the board was another one. */
  terms: readonly { id: string; name: string; lessons: readonly string[] }[]
  /** The lesson after which it is shown; undefined for now. */
  on: string | undefined
  show: (on: string | undefined) => void
  /** What is to be shown is not there yet. */
  waiting: boolean
}

/** Milliseconds from lesson to lesson: long enough to see which soles have filled. */
const PACE = 900

/** The board as it was after each lesson of a term, one after another or chosen; the newest term leads up to now. */
export function WeeksBar({ terms, on, show, waiting }: WeeksBarProps) {
  const [playing, setPlaying] = useState(false)
  const newest = terms.at(-1)
  const term = on === undefined ? newest : terms.find(({ lessons }) => lessons.includes(on))
  const stops = useMemo(() => (term ? [...term.lessons, ...(term === newest ? [undefined] : [])] : []), [term, newest])
  const at = stops.indexOf(on)
  const isAtEnd = at >= stops.length - 1
  useEffect(() => {
    if (!playing || waiting) return
    const next = setTimeout(() => {
      show(stops[at + 1])
      if (at + 2 >= stops.length) setPlaying(false)
    }, PACE)
    return () => clearTimeout(next)
  }, [playing, waiting, at, stops, show])
  if (!term) return null
  const play = () => {
    if (isAtEnd) show(stops[0])
    setPlaying(stops.length > 1)
  }
  const says = on === undefined ? 'now' : `after ${longDate(on)}`
  return (
    <section
      aria-label="Through the term"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line bg-paper px-5 py-1.5"
    >
      {terms.length > 1 && (
        <DropdownMenu
          className="quiet-link inline-flex! items-center gap-1"
          name={term.name}
          label={`Through which term: ${term.name}`}
          items={terms.toReversed().map((one) => ({
            name: one.name,
            act: () => {
              setPlaying(false)
              show(one === newest ? undefined : one.lessons[0])
            },
          }))}
        />
      )}
      <button type="button" className="button px-2.5" onClick={playing ? () => setPlaying(false) : play}>
        {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
        {playing ? 'Stop' : 'Play the term'}
      </button>
      <Slider
        label="As it was after a lesson"
        value={at}
        min={0}
        max={stops.length - 1}
        says={says}
        onChange={(to) => {
          setPlaying(false)
          show(stops[to])
        }}
        className="w-64 max-w-full"
      />
      <p aria-live={playing ? 'off' : 'polite'} className={on === undefined ? 'text-soft' : 'font-semibold'}>
        {on === undefined ? 'As it is now' : waiting ? `Reading how it was ${says}…` : `As it was ${says}`}
      </p>
      {on !== undefined && !playing && (
        <button type="button" className="quiet-link" onClick={() => show(undefined)}>
          Back to now
        </button>
      )}
    </section>
  )
}
