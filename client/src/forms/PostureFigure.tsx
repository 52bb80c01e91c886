import { memo, useMemo, useState } from 'react'
import { views, type Counted, type Engine, type HandSide, type View } from '../engine/engine'
import { Checkbox } from '../ui/Checkbox'
import { Figure } from '../ui/Figure'
import { ToggleGroup } from '../ui/ToggleGroup'
import { HandHandles, HandPanel } from './HandsOnFigure'

/** Degrees a figure turns for each pixel it is dragged. */
const TURN = 0.6

interface PostureFigureProps {
  engine: Engine
  of: Counted
  /** From 1; 0 is where it starts. */
  count: number
  /** Of the way through the count. */
  part: number
  /** The moment by another name than its count. */
  name?: string
  /** What is done in this count, in words. */
  says: string
  /** Whoever may write moves the hands: the body notation of the count, and what becomes of it. */
  hands?: { text: string; change: (text: string) => void }
}

/** The body, large: from its five sides, turned by dragging, or as a mirror shows it to whoever faces the class. */
export function PostureFigure({ engine, of, count, part, name, says, hands }: PostureFigureProps) {
  const [view, setView] = useState<View>('front')
  const [turned, setTurned] = useState(0)
  const [mirrored, setMirrored] = useState(false)
  const [hand, setHand] = useState<HandSide>(1)
  const seen = useMemo(() => ({ view, turned, mirrored, sash: '', night: false }), [view, turned, mirrored])
  const picture = useMemo(() => engine.figure(of, count, part, seen), [engine, of, count, part, seen])
  const moved = hands && { engine, of, count, seen, chosen: hand, choose: setHand, ...hands }
  return (
    <div className="grid gap-2 bg-paper p-3">
      <div
        className="cursor-ew-resize touch-pan-y"
        onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
        onPointerMove={(event) =>
          event.buttons === 1 && setTurned((before) => before - event.movementX * TURN * (mirrored ? -1 : 1))
        }
      >
        <Figure
          {...picture}
          className="mx-auto h-80 w-full"
          label={`${name ?? (count === 0 ? 'Where it starts' : `Count ${count}`)}, seen from ${view === 'above' || view === 'behind' ? view : `the ${view}`}: ${says || 'nothing written'}`}
        >
          {moved && <HandHandles {...moved} />}
        </Figure>
      </div>
      <SeenFrom view={turned === 0 ? view : ''} mirrored={mirrored} {...{ setView, setTurned, setMirrored }} />
      {moved && <HandPanel {...moved} />}
    </div>
  )
}

const sides = views.map((value) => ({ value, name: value[0]!.toUpperCase() + value.slice(1) }))

/** Which side it is seen from. What is written does not change it: a key costs nothing here. */
const SeenFrom = memo(function SeenFrom({
  view,
  mirrored,
  setView,
  setTurned,
  setMirrored,
}: {
  /** None of them while it is turned by hand. */
  view: View | ''
  mirrored: boolean
  setView: (view: View) => void
  setTurned: (degrees: number) => void
  setMirrored: (mirrored: boolean) => void
}) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <ToggleGroup<View | ''>
        label="Seen from"
        value={view}
        options={sides}
        onChange={(chosen) => {
          if (chosen) setView(chosen)
          setTurned(0)
        }}
      />
      <Checkbox checked={mirrored} onChange={setMirrored}>
        in a mirror
      </Checkbox>
    </div>
  )
})

/** How a small figure is shown: as it faces, whoever looks at it. */
export const FROM_THE_FRONT = { view: 'front', turned: 0, mirrored: false, sash: '', night: false } as const

/** The end of every count, small, in a row: where it starts first. */
export function FigureStrip({
  engine,
  of,
  chosen,
  choose,
}: {
  engine: Engine
  of: Counted
  chosen: number
  choose: (count: number) => void
}) {
  const pictures = useMemo(
    () => Array.from({ length: of.feet.length + 1 }, (_, count) => engine.figure(of, count, 1, FROM_THE_FRONT)),
    [engine, of],
  )
  return (
    <ol aria-label="Every count" className="flex flex-wrap gap-1 bg-paper px-2 pb-2">
      {pictures.map((picture, count) => (
        <li key={count}>
          <button
            type="button"
            className={`grid justify-items-center rounded px-1 pt-1 ${chosen === count ? 'bg-pine-tint' : 'hover:bg-plaster'}`}
            aria-pressed={chosen === count}
            onClick={() => choose(count)}
          >
            <Figure {...picture} className="h-16" label={count === 0 ? 'where it starts' : `count ${count}`} />
            <span className="text-small text-soft">{count === 0 ? 'start' : count}</span>
          </button>
        </li>
      ))}
    </ol>
  )
}
