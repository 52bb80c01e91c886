import { memo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { Engine, Pivots } from '../engine/engine'
import { inAir, contactWords, middleOf, soleTransform, standOf, turnBetween, type Foot } from '../ui/floor'
import { SOLE_PATH } from '../ui/sole-path'
import { Slider } from '../ui/Slider'

interface StepPictureProps {
  label: string
  engine: Engine
  pivots: Pivots
  /** The steps of the count that is shown, in notation. */
  steps: string
  before: readonly number[]
  after: readonly number[]
  editable: boolean
  onChange: (steps: string) => void
}

type Drag = { what: 'heel' | 'toes'; foot: 0 | 1 } | { what: 'hips' }

const feet = ['left', 'right'] as const

/** One count from above, edited by hand: drag a foot, turn it by its toes, turn the hips, slide the weight. Every edit rewrites the notation. A key in the hands costs nothing here. */
export const StepPicture = memo(function StepPicture({
  label,
  engine,
  pivots,
  steps,
  before,
  after,
  editable,
  onChange,
}: StepPictureProps) {
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<Drag | null>(null)
  const [from, to] = [standOf(before), standOf(after)]

  // The view keeps still while somebody drags.
  const wanted = middleOf(to)
  const [centre, setCentre] = useState(wanted)
  if (!drag && Math.hypot(wanted.right - centre.right, wanted.ahead - centre.ahead) > 0.8) setCentre(wanted)

  const begin = (what: Drag) => (event: PointerEvent) => {
    if (!editable) return
    event.currentTarget.setPointerCapture(event.pointerId)
    setDrag(what)
  }
  const place = (event: PointerEvent) => {
    const matrix = svg.current!.getScreenCTM()!.inverse()
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
    return { right: point.x, ahead: -point.y }
  }
  const bearing = (origin: { right: number; ahead: number }, point: { right: number; ahead: number }) =>
    (Math.atan2(point.right - origin.right, point.ahead - origin.ahead) * 180) / Math.PI
  const snap = (degrees: number, fine: boolean) => (fine ? Math.round(degrees) : Math.round(degrees / 5) * 5)
  const pull = (event: PointerEvent) => {
    if (!drag) return
    const point = place(event)
    const start = [...before]
    if (drag.what === 'heel') onChange(engine.moveFoot(steps, start, pivots, drag.foot, point.right, point.ahead))
    else if (drag.what === 'toes')
      onChange(
        engine.turnFoot(steps, start, pivots, drag.foot, snap(bearing(to[feet[drag.foot]], point), event.shiftKey)),
      )
    else onChange(engine.turnHips(steps, start, pivots, snap(bearing(middleOf(to), point), event.shiftKey)))
  }

  const nudge = (index: 0 | 1) => (event: KeyboardEvent) => {
    const foot = to[feet[index]]
    const shift = { ArrowLeft: [-0.1, 0], ArrowRight: [0.1, 0], ArrowUp: [0, 0.1], ArrowDown: [0, -0.1] }[event.key]
    const start = [...before]
    if (shift) onChange(engine.moveFoot(steps, start, pivots, index, foot.right + shift[0]!, foot.ahead + shift[1]!))
    else if (event.key === '[' || event.key === ']')
      onChange(engine.turnFoot(steps, start, pivots, index, foot.toes + (event.key === '[' ? -5 : 5)))
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  const middle = middleOf(to)
  const hipTip = {
    right: middle.right + Math.sin((to.hips * Math.PI) / 180) * 1.5,
    ahead: middle.ahead + Math.cos((to.hips * Math.PI) / 180) * 1.5,
  }
  return (
    <div className="grid gap-2">
      <svg
        ref={svg}
        role="group"
        aria-label={label}
        viewBox={`${centre.right - 4.2} ${-centre.ahead - 3.2} 8.4 6.4`}
        className="w-full touch-none rounded-md border border-line bg-floorboard"
        onPointerMove={pull}
        onPointerUp={() => setDrag(null)}
        onPointerCancel={() => setDrag(null)}
      >
        {Array.from({ length: 60 }, (_, at) => (
          <path
            key={at}
            d={`M${Math.round(centre.right) - 30 + at} ${-centre.ahead - 10}v20`}
            className="stroke-boardline"
            strokeWidth={0.03}
          />
        ))}
        {[from.left, from.right].map((foot, at) => (
          <path
            key={at}
            d={SOLE_PATH}
            transform={soleTransform(foot)}
            className="fill-none stroke-soft"
            strokeOpacity={0.5}
            strokeWidth={1.2}
            strokeDasharray="3 3"
          />
        ))}
        {([0, 1] as const).map((index) => {
          const foot = to[feet[index]]
          const tip = tipOf(foot, 1.05)
          return (
            <g key={index}>
              <g
                tabIndex={editable ? 0 : undefined}
                role={editable ? 'slider' : 'img'}
                aria-label={`${feet[index]} foot`}
                aria-valuenow={foot.load}
                aria-valuetext={`${feet[index]} foot, ${Math.round(foot.load)} % on it, ${contactWords[foot.contact]}, toes ${Math.round(turnBetween(to.hips, foot.toes))}° from the hips`}
                className={editable ? 'cursor-move' : ''}
                onPointerDown={begin({ what: 'heel', foot: index })}
                onKeyDown={editable ? nudge(index) : undefined}
              >
                <path
                  d={SOLE_PATH}
                  transform={soleTransform(foot)}
                  className="fill-white stroke-pine"
                  strokeWidth={2}
                  strokeDasharray={inAir(foot) ? '3 3' : foot.contact === 0 ? undefined : '9 3'}
                />
                <path
                  d={SOLE_PATH}
                  transform={soleTransform(foot)}
                  className="fill-pine"
                  fillOpacity={foot.load / 100}
                />
              </g>
              {editable && (
                <circle
                  cx={tip.right}
                  cy={-tip.ahead}
                  r={0.14}
                  className="cursor-grab fill-paper stroke-pine"
                  strokeWidth={0.05}
                  onPointerDown={begin({ what: 'toes', foot: index })}
                >
                  <title>Turn the {feet[index]} foot</title>
                </circle>
              )}
            </g>
          )
        })}
        <path
          d={`M${middle.right} ${-middle.ahead}L${hipTip.right} ${-hipTip.ahead}`}
          className="stroke-ink"
          strokeWidth={0.06}
        />
        <circle
          cx={hipTip.right}
          cy={-hipTip.ahead}
          r={0.16}
          className={`fill-ink stroke-paper ${editable ? 'cursor-grab' : ''}`}
          strokeWidth={0.04}
          onPointerDown={begin({ what: 'hips' })}
        >
          <title>Where the hips point</title>
        </circle>
      </svg>
      <div className="grid gap-1">
        <div className="grid grid-cols-[auto_1fr_auto] items-center gap-3">
          <span className="tabular-nums">{Math.round(to.left.load)} % left</span>
          <Slider
            label="Weight on the right foot"
            className="w-full"
            min={0}
            max={editable ? 100 : 0}
            step={5}
            says={`${Math.round(to.right.load)} % right`}
            value={Math.round(to.right.load)}
            onChange={(load) => onChange(engine.weighFoot(steps, [...before], pivots, 1, load))}
          />
          <span className="tabular-nums">{Math.round(to.right.load)} % right</span>
        </div>
        {editable && (
          <p className="text-small text-soft">
            Drag a foot, its toes or the end of the hips’ line. Arrows move the chosen foot, [ and ] turn it.
          </p>
        )}
      </div>
    </div>
  )
})

const tipOf = (foot: Foot, length: number) => ({
  right: foot.right + Math.sin((foot.toes * Math.PI) / 180) * length,
  ahead: foot.ahead + Math.cos((foot.toes * Math.PI) / 180) * length,
})
