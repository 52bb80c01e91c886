import { Pause, Play } from 'lucide-react'
import { useEffect, useState } from 'react'
import { Slider } from '../ui/Slider'
import { longDate } from '../ui/words'

interface WeeksBarProps {
  /** The lessons that were held, in their order; after each of them the board was another one. */
  lessons: string[]
  /** The lesson after which it is shown; undefined for now. */
  on: string | undefined
  show: (on: string | undefined) => void
  /** What is to be shown is not there yet. */
  waiting: boolean
}

/** Milliseconds from lesson to lesson: long enough to see which soles have filled. */
const PACE = 900

/** The board as it was after each lesson of the term, one after another or chosen. */
export function WeeksBar({ lessons, on, show, waiting }: WeeksBarProps) {
  const [playing, setPlaying] = useState(false)
  const at = on === undefined ? lessons.length : lessons.indexOf(on)
  useEffect(() => {
    if (!playing || waiting) return
    const next = setTimeout(() => {
      show(lessons[at + 1])
      if (at + 1 >= lessons.length) setPlaying(false)
    }, PACE)
    return () => clearTimeout(next)
  }, [playing, waiting, at, lessons, show])
  if (lessons.length === 0) return null
  const play = () => {
    if (at >= lessons.length) show(lessons[0])
    setPlaying(true)
  }
  const says = on === undefined ? 'now' : `after ${longDate(on)}`
  return (
    <section
      aria-label="Through the term"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line bg-paper px-5 py-1.5"
    >
      <button type="button" className="button px-2.5" onClick={playing ? () => setPlaying(false) : play}>
        {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
        {playing ? 'Stop' : 'Play the term'}
      </button>
      <Slider
        label="As it was after a lesson"
        value={at}
        min={0}
        max={lessons.length}
        says={says}
        onChange={(to) => {
          setPlaying(false)
          show(lessons[to])
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
