import { memo, useRef, useState } from 'react'
import type { Counted, Engine, HandSide, Seen } from '../engine/engine'
import { ToggleGroup } from '../ui/ToggleGroup'
import { useSteady } from '../ui/use-steady'

const hands = ['Left hand', 'Right hand'] as const
const ways = ['up', 'down', 'front', 'back', 'in', 'out'] as const
const shapes = ['palm', 'fist', 'hook', 'loose'] as const
const elbows = ['down', 'out', 'up'] as const
const named = (words: readonly string[]) =>
  words.map((value) => ({ value, name: value[0]!.toUpperCase() + value.slice(1) }))

interface HandsProps {
  engine: Engine
  of: Counted
  count: number
  seen: Seen
  chosen: HandSide
  choose: (hand: HandSide) => void
  /** The body notation of the count as it is now, and as it is to be. */
  text: string
  change: (text: string) => void
}

/** Handles on both hands of a figure: dragged, or moved by the arrow keys, they go from one place in words to the next. Drawn within its picture. */
export function HandHandles({ engine, of, count, seen, chosen, choose, change }: HandsProps) {
  const group = useRef<SVGGElement>(null)
  const [held, setHeld] = useState<HandSide>()
  const at = engine.handsAt(of, count, seen)
  const point = (event: React.PointerEvent) => {
    const matrix = group.current?.getScreenCTM()?.inverse()
    return matrix && new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  }
  // From the side a hand goes ahead and back, from everywhere else in and out.
  const sideways = seen.view === 'left' || seen.view === 'right'
  const nudge = (hand: HandSide, key: string): Parameters<Engine['nudgeHand']>[3] | null => {
    if (key === 'ArrowUp') return seen.view === 'above' ? { ahead: 1 } : { up: 1 }
    if (key === 'ArrowDown') return seen.view === 'above' ? { ahead: -1 } : { up: -1 }
    if (key !== 'ArrowLeft' && key !== 'ArrowRight') return null
    const toTheRight = (key === 'ArrowRight') !== seen.mirrored
    if (sideways) return { ahead: toTheRight === (seen.view === 'right') ? 1 : -1 }
    // On the picture a figure that faces the viewer has its right hand on the left.
    const ownRight = toTheRight === (seen.view !== 'front')
    return { outwards: ownRight === (hand === 1) ? 1 : -1 }
  }
  return (
    <g ref={group}>
      {at.map(({ x, y }, index) => {
        const hand = index as HandSide
        return (
          <circle
            key={hand}
            cx={x}
            cy={y}
            r={9}
            role="slider"
            aria-label={`${hands[hand]}, in the picture`}
            aria-valuenow={hand}
            aria-valuetext={engine.body.read(of.bodies[count - 1] ?? of.start).says || 'where it was'}
            tabIndex={0}
            className={`cursor-grab touch-none fill-transparent outline-none ${chosen === hand ? 'stroke-pine stroke-[2.5]' : 'stroke-soft stroke-[1.2]'} focus-visible:stroke-[4]`}
            onFocus={() => choose(hand)}
            onPointerDown={(event) => {
              event.stopPropagation()
              event.currentTarget.setPointerCapture(event.pointerId)
              choose(hand)
              setHeld(hand)
            }}
            onPointerMove={(event) => {
              event.stopPropagation()
              const to = held === hand && event.buttons === 1 && point(event)
              if (to) change(engine.moveHand(of, count, seen, hand, to))
            }}
            onPointerUp={() => setHeld(undefined)}
            onKeyDown={(event) => {
              const by = nudge(hand, event.key)
              if (!by) return
              event.preventDefault()
              event.stopPropagation()
              change(engine.nudgeHand(of, count, hand, by))
            }}
          />
        )
      })}
    </g>
  )
}

/** How the chosen hand faces, its shape, its elbow, and what it holds: one press each; the notation follows. */
export function HandPanel({ engine, of, count, chosen, choose, text, change }: HandsProps) {
  const is = engine.handSaid(of, count, chosen)
  const say = (detail: string) => change(engine.sayOfHand(text, chosen, detail))
  const { palm, fingers, shape, elbow, holds } = useSteady({
    palm: (way: string) => say(`palm ${way}`),
    fingers: (way: string) => say(`fingers ${way}`),
    shape: say,
    elbow: (way: string) => say(`elbow ${way}`),
    holds: (what: string) => say(what === 'nothing' ? 'free' : `hold ${what}`),
  })
  return (
    <div className="grid gap-2">
      <WhichHand chosen={chosen} choose={choose} />
      <Row label="Palm faces" words={ways} is={is.palm} say={palm} />
      <Row label="Fingers point" words={ways} is={is.fingers} say={fingers} />
      <Row label="Shape" words={shapes} is={is.shape} say={shape} />
      <Row label="Elbow" words={elbows} is={is.elbow} say={elbow} />
      {of.mode !== 'standing' && (
        <Row label="Holds" words={of.mode === 'seated' ? ofAChair : ofARail} is={is.holds} say={holds} />
      )}
    </div>
  )
}

const ofAChair = ['chair', 'nothing'] as const
const ofARail = ['rail', 'nothing'] as const
const bothHands = hands.map((name, hand) => ({ value: String(hand), name }))

const WhichHand = memo(function WhichHand({ chosen, choose }: Pick<HandsProps, 'chosen' | 'choose'>) {
  return (
    <ToggleGroup
      label="Hand"
      value={String(chosen)}
      options={bothHands}
      onChange={(hand) => choose(Number(hand) as HandSide)}
    />
  )
})

/** Drawn anew only when what is so changes: most keys change nothing here. */
const Row = memo(function Row({
  label,
  words,
  is,
  say,
}: {
  label: string
  words: readonly string[]
  /** Which of them it is now; none of them for a corner between two. */
  is: string
  say: (word: string) => void
}) {
  return (
    <div role="group" aria-label={label} className="grid grid-cols-[92px_1fr] items-baseline gap-2">
      <span className="text-soft">{label}</span>
      <span className="flex flex-wrap gap-1">
        {named(words).map(({ value, name }) => (
          <button
            key={value}
            type="button"
            aria-pressed={is === value}
            className={`button px-2 py-0.5 ${is === value ? 'bg-pine-tint text-pine' : ''}`}
            onClick={() => say(value)}
          >
            {name}
          </button>
        ))}
      </span>
    </div>
  )
})
