import { memo, useEffect, useId, useImperativeHandle, useRef, useState, type ReactNode, type Ref } from 'react'
import { inAir, middleOf, soleTransform, standBetween, standOf, type Foot, type Stand } from './floor'
import { SOLE_PATH } from './sole-path'
import { decimal } from './writing'

export type FloorView = 'above' | 'behind' | 'facing'

/** A rectangle on the floor in metres: to the right of the start and ahead of it. */
export interface FloorArea {
  left: number
  back: number
  right: number
  front: number
}

export interface FloorPrint {
  key: string
  label: string | null
  frame: readonly number[]
  chosen: boolean
  /** 0 is just left behind, 1 nearly forgotten. */
  age: number
}

export interface FloorHandle {
  /** Shows a moment between two frames without drawing anything else anew. */
  show: (from: readonly number[], to: readonly number[], part: number) => void
}

interface FloorStageProps {
  label: string
  view: FloorView
  /** What must be seen, metres. */
  area: FloorArea
  /** The rectangle needed, drawn in ochre; metres. */
  needs?: FloorArea
  footMetres: number
  prints: readonly FloorPrint[]
  path: readonly (readonly number[])[]
  frame: readonly number[]
  front: string
  handle?: Ref<FloorHandle>
  choose?: (key: string) => void
  children?: ReactNode
}

/** Metres of height drawn as this many metres of floor when the floor is seen slantwise. */
const TILT = 0.42
const HEIGHT = 0.86

/** Real soles on floorboards, true to scale: from above, or slantwise with a figure, from behind or facing. One foot-length of the drawing is a foot-length. */
export function FloorStage({
  label,
  view,
  area,
  needs,
  footMetres,
  prints,
  path,
  frame,
  front,
  handle,
  choose,
  children,
}: FloorStageProps) {
  const box = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 640, height: 480 })
  useEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(
      ([entry]) => entry && setSize({ width: entry.contentRect.width, height: entry.contentRect.height }),
    )
    watch.observe(element)
    return () => watch.disconnect()
  }, [])

  const moving = useRef<SVGGElement>(null)
  const figure = useRef<SVGGElement>(null)
  const turned = view === 'facing' ? -1 : 1
  const [squash, tall] = view === 'above' ? [1, 0] : [TILT, HEIGHT]
  const [wide, deep] = [area.right - area.left, area.front - area.back]
  const headroom = view === 'above' ? 0 : 1.9 * HEIGHT
  const scale = Math.max(20, Math.min((size.width - 64) / wide, (size.height - 84) / (deep * squash + headroom), 260))
  const [centreX, centreY] = [(area.left + area.right) / 2, (area.front + area.back) / 2]
  const [originX, originY] = [
    size.width / 2 - turned * centreX * scale,
    size.height / 2 + 10 + turned * centreY * squash * scale + (headroom * scale) / 2,
  ]

  // Inside this, lengths are foot-lengths, x to the right and y towards the back.
  const floor = `translate(${originX} ${originY}) scale(${turned * scale * footMetres} ${turned * scale * footMetres * squash})`
  const screen = (right: number, ahead: number, up = 0) =>
    [
      originX + turned * right * footMetres * scale,
      originY - turned * ahead * footMetres * squash * scale - up * tall * scale,
    ] as const

  const draw = (stand: Stand) => {
    const soles = moving.current
    if (soles) {
      drawSole(soles.children[0] as SVGGElement, stand.left)
      drawSole(soles.children[1] as SVGGElement, stand.right)
      const pelvis = soles.children[2] as SVGGElement
      const middle = middleOf(stand)
      pelvis.setAttribute('transform', `translate(${middle.right} ${-middle.ahead}) rotate(${stand.hips})`)
      ;(pelvis.children[1] as SVGElement).setAttribute('transform', `rotate(${stand.chest})`)
    }
    if (figure.current && view !== 'above') drawFigure(figure.current, stand, footMetres, screen)
  }

  useImperativeHandle(handle, () => ({
    show: (from, to, part) => draw(standBetween(standOf(from), standOf(to), part)),
  }))
  useEffect(() => draw(standOf(frame)))

  return (
    <div ref={box} className="relative min-h-0 flex-1 overflow-hidden bg-floorboard">
      <Ground
        area={area}
        needs={needs}
        path={path}
        floor={floor}
        metre={scale}
        footMetres={footMetres}
        width={size.width}
        height={size.height}
      />
      <svg
        role="img"
        aria-label={label}
        width={size.width}
        height={size.height}
        className="absolute inset-0 block will-change-transform"
      >
        <g transform={floor}>
          {prints.map((print) => {
            const stand = standOf(print.frame)
            return (
              <g
                key={print.key}
                opacity={print.chosen ? 1 : 0.75 - 0.55 * print.age}
                className={choose ? 'cursor-pointer' : ''}
                onClick={() => choose?.(print.key)}
              >
                <PrintSole foot={stand.left} chosen={print.chosen} />
                <PrintSole foot={stand.right} chosen={print.chosen} />
              </g>
            )
          })}
          <g ref={moving}>
            <MovingSole />
            <MovingSole />
            <g opacity={view === 'above' ? 1 : 0}>
              <path
                d="M-0.45 0H0.45M0 0V-1.15M-0.16 -0.95L0 -1.2L0.16 -0.95"
                className="fill-none stroke-ink"
                strokeWidth={0.07}
                strokeLinecap="round"
                strokeLinejoin="round"
              />
              <g>
                <path
                  d="M-0.6 0.02A0.62 0.3 0 0 1 0.6 0.02"
                  className="fill-none stroke-ink"
                  strokeOpacity={0.45}
                  strokeWidth={0.06}
                  strokeLinecap="round"
                />
              </g>
            </g>
          </g>
        </g>
        {view !== 'above' && (
          <g
            ref={figure}
            className="fill-none stroke-ink"
            strokeWidth={0.03 * scale}
            strokeLinecap="round"
            strokeLinejoin="round"
          >
            <path />
            <path />
            <path />
            <path />
            <circle className="fill-paper" />
          </g>
        )}
        {prints.map((print) => {
          if (!print.label || (!print.chosen && print.age > 0.5)) return null
          const middle = middleOf(standOf(print.frame))
          const [x, y] = screen(middle.right, middle.ahead)
          return (
            <text
              key={print.key}
              x={x}
              y={y + 4}
              textAnchor="middle"
              className="pointer-events-none fill-ink font-serif text-lead font-bold"
              opacity={1 - 0.5 * print.age}
            >
              {print.label}
            </text>
          )
        })}
        <FrontWall view={view} width={size.width} height={size.height} front={front} />
        {needs && (
          <text
            x={screen(needs.left / footMetres, 0)[0]}
            y={size.height - 12}
            className="fill-ochre text-small font-semibold"
            textAnchor={turned < 0 ? 'end' : 'start'}
          >
            floor it needs: {decimal(needs.right - needs.left)} m × {decimal(needs.front - needs.back)} m with arms
          </text>
        )}
        {children && <g transform={floor}>{children}</g>}
      </svg>
    </div>
  )
}

interface GroundProps {
  area: FloorArea
  needs: FloorArea | undefined
  path: readonly (readonly number[])[]
  floor: string
  /** A metre on the screen, pixels. */
  metre: number
  footMetres: number
  width: number
  height: number
}

/** What lies still while somebody walks: the boards, the room needed, the way of the hips. A layer of its own, so that it is painted once and not at every frame. */
const Ground = memo(function Ground({ area, needs, path, floor, metre, footMetres, width, height }: GroundProps) {
  const boards = useId()
  const pixels = (count: number) => count / (metre * footMetres)
  const inFeet = (metres: FloorArea) => ({
    x: metres.left / footMetres,
    y: -metres.front / footMetres,
    width: (metres.right - metres.left) / footMetres,
    height: (metres.front - metres.back) / footMetres,
  })
  const edge = inFeet(area)
  return (
    <svg aria-hidden width={width} height={height} className="absolute inset-0 block">
      <defs>
        <pattern id={boards} width={1} height={40} patternUnits="userSpaceOnUse">
          <path d="M0 0V40" className="stroke-boardline" strokeWidth={0.05} />
        </pattern>
      </defs>
      <g transform={floor}>
        <rect
          x={edge.x - 60}
          y={edge.y - 60}
          width={edge.width + 120}
          height={edge.height + 120}
          fill={`url(#${boards})`}
        />
        {needs && (
          <rect
            {...inFeet(needs)}
            className="fill-none stroke-ochre-mark"
            strokeWidth={pixels(2)}
            strokeDasharray={`${pixels(6)} ${pixels(5)}`}
          />
        )}
        <polyline
          points={path.map((place) => `${(place[0]! + place[5]!) / 2},${-(place[1]! + place[6]!) / 2}`).join(' ')}
          className="fill-none stroke-pine"
          strokeOpacity={0.45}
          strokeWidth={pixels(1.4)}
          strokeDasharray={`${pixels(2)} ${pixels(4)}`}
        />
      </g>
    </svg>
  )
})

function FrontWall({ view, width, height, front }: { view: FloorView; width: number; height: number; front: string }) {
  const y = view === 'facing' ? height - 34 : 26
  return (
    <g>
      <path d={`M${width * 0.3} ${y}H${width * 0.7}`} className="stroke-ink" strokeWidth={3} />
      <text x={width / 2} y={y - 8} textAnchor="middle" className="fill-soft text-small">
        {front}
      </text>
    </g>
  )
}

/** Where somebody stood: outlined, weight as fill. */
function PrintSole({ foot, chosen }: { foot: Foot; chosen: boolean }) {
  return (
    <path
      d={SOLE_PATH}
      transform={soleTransform(foot)}
      className="fill-pine stroke-pine"
      fillOpacity={(foot.load / 100) * (chosen ? 0.55 : 0.32)}
      strokeWidth={1.6}
      strokeDasharray={inAir(foot) ? '3 3' : undefined}
    />
  )
}

/** Where somebody stands now; moved without React. */
function MovingSole() {
  return (
    <g>
      <path d={SOLE_PATH} className="fill-white stroke-pine" strokeWidth={2} />
      <path d={SOLE_PATH} className="fill-pine" />
    </g>
  )
}

function drawSole(group: SVGGElement, foot: Foot) {
  group.setAttribute('transform', soleTransform(foot))
  const [outline, ink] = group.children as unknown as [SVGPathElement, SVGPathElement]
  outline.setAttribute('stroke-dasharray', inAir(foot) ? '3 3' : foot.contact === 0 ? '' : '9 3')
  outline.setAttribute('fill-opacity', inAir(foot) ? '0.5' : '0.95')
  ink.setAttribute('fill-opacity', (foot.load / 100).toFixed(2))
}

/** A figure in lines: two legs with knees over the toes, pelvis, spine and shoulders, head. Arms are left to the hands' layer. */
function drawFigure(
  group: SVGGElement,
  stand: Stand,
  footMetres: number,
  screen: (right: number, ahead: number, up?: number) => readonly [number, number],
) {
  const rad = (degrees: number) => (degrees * Math.PI) / 180
  const share = stand.left.load / 100
  const centre = {
    right: stand.left.right * share + stand.right.right * (1 - share),
    ahead: stand.left.ahead * share + stand.right.ahead * (1 - share),
  }
  const middle = middleOf(stand)
  const pelvis = { right: centre.right * 0.7 + middle.right * 0.3, ahead: centre.ahead * 0.7 + middle.ahead * 0.3 }
  const hipHeight = stand.low ? 0.55 : 0.82
  const across = (turn: number, metres: number) => ({
    right: pelvis.right + (Math.cos(rad(turn)) * metres) / footMetres,
    ahead: pelvis.ahead - (Math.sin(rad(turn)) * metres) / footMetres,
  })
  const point = (at: { right: number; ahead: number }, up: number) =>
    screen(at.right, at.ahead, up)
      .map((value) => value.toFixed(1))
      .join(' ')
  const leg = (foot: Foot, side: number) => {
    const lifted = inAir(foot) ? 0.38 : 0.07
    const hip = across(stand.hips, side * 0.12)
    const knee = {
      right: (hip.right + foot.right) / 2 + (Math.sin(rad(foot.toes)) * 0.16) / footMetres,
      ahead: (hip.ahead + foot.ahead) / 2 + (Math.cos(rad(foot.toes)) * 0.16) / footMetres,
    }
    return `M${point(hip, hipHeight)}L${point(knee, hipHeight * 0.52 + lifted * 0.6)}L${point(foot, lifted)}`
  }
  const shoulders = stand.hips + stand.chest
  const top = hipHeight + 0.52
  const [legL, legR, trunk, bar, head] = group.children as unknown as [
    SVGPathElement,
    SVGPathElement,
    SVGPathElement,
    SVGPathElement,
    SVGCircleElement,
  ]
  legL.setAttribute('d', leg(stand.left, -1))
  legR.setAttribute('d', leg(stand.right, 1))
  // The leg that carries is the strong one.
  const [, ground] = screen(0, 0)
  const [, metre] = screen(0, 0, 1)
  legL.setAttribute('stroke-width', ((ground - metre) * (0.02 + 0.05 * share)).toFixed(1))
  legR.setAttribute('stroke-width', ((ground - metre) * (0.07 - 0.05 * share)).toFixed(1))
  trunk.setAttribute(
    'd',
    `M${point(across(stand.hips, -0.12), hipHeight)}L${point(across(stand.hips, 0.12), hipHeight)}M${point(pelvis, hipHeight)}L${point(pelvis, top + 0.06)}`,
  )
  const nose = {
    right: pelvis.right + (Math.sin(rad(shoulders)) * 0.22) / footMetres,
    ahead: pelvis.ahead + (Math.cos(rad(shoulders)) * 0.22) / footMetres,
  }
  bar.setAttribute(
    'd',
    `M${point(across(shoulders, -0.2), top)}L${point(across(shoulders, 0.2), top)}M${point(pelvis, top)}L${point(nose, top)}`,
  )
  const [x, y] = screen(pelvis.right, pelvis.ahead, top + 0.22)
  const [, below] = screen(pelvis.right, pelvis.ahead, top + 0.1)
  head.setAttribute('cx', x.toFixed(1))
  head.setAttribute('cy', y.toFixed(1))
  head.setAttribute('r', (below - y).toFixed(1))
}
