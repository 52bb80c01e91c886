import { useRef, useState } from 'react'
import type { Schema } from '../api/client'
import { readable, visibleLine } from '../ui/colour'
import { useGrid } from '../ui/grid'
import { Ribbon } from '../ui/Ribbon'
import { blockWords, shortPosture } from '../ui/words'
import { clockAt, idOf, type ArrangedBlock, type Arrangement } from './arranging'

/** Pixels of a lane: the thread runs above its blocks. */
const LANE = 78
const ABOVE = 18
const BLOCK = 50
const STEP = 15

/** Threads of teachers, each its own ink: never a cohort's colour. */
const inks = ['#20262A', '#2D6389', '#7A3F7D', '#8A5A0B', '#1D5B4E', '#5E655F'] as const
export const inkOf = (staff: string[], name: string) => inks[Math.max(0, staff.indexOf(name)) % inks.length]

interface ArrangementPictureProps {
  arrangement: Arrangement
  cohorts: Schema['LessonCohortSheet'][]
  /** Everybody who teaches the class, there or not: each keeps their ink. */
  staff: string[]
  /** When the lesson begins, "18:30". */
  start: string
  chosen: string | undefined
  choose: (id: string) => void
  /** Whoever may arrange drags a block to another minute. */
  move?: (block: ArrangedBlock, start: number) => void
  /** Keys on a block, before the grid has them. */
  onKey?: (event: React.KeyboardEvent, block: ArrangedBlock) => boolean
}

/** Every cohort's lane true to its minutes, a thread for each teacher above whatever they lead. */
export function ArrangementPicture({
  arrangement,
  cohorts,
  staff,
  start,
  chosen,
  choose,
  move,
  onKey,
}: ArrangementPictureProps) {
  const grid = useGrid<HTMLDivElement>()
  const { minutes, blocks, teachers } = arrangement
  const lanes = arrangement.cohorts.map((lane) => ({ lane, cohort: cohorts.find((one) => one.cohortId === lane.id) }))
  const left = (minute: number) => `${(minute / minutes) * 100}%`
  const whole = blocks.filter((block) => block.cohortId === null)
  return (
    <div className="overflow-x-auto border-y border-line bg-paper">
      <div className="grid min-w-[980px] grid-cols-[172px_minmax(0,1fr)] max-md:grid-cols-[104px_minmax(0,1fr)]">
        <div className="sticky left-0 z-20 border-b border-line bg-paper" />
        <div className="relative h-7 border-b border-line text-small text-soft" aria-hidden>
          {Array.from({ length: Math.floor(minutes / STEP) + 1 }, (_, at) => at * STEP)
            .filter((minute) => minute < minutes)
            .map((minute) => (
              <span key={minute} className="absolute top-1 whitespace-nowrap pl-1" style={{ left: left(minute) }}>
                {minute} min · {clockAt(start, minute)}
              </span>
            ))}
        </div>
      </div>
      <div
        {...grid}
        role="grid"
        aria-label="The lesson, a row a cohort"
        className="relative min-w-[980px]"
        onKeyDown={(event) => {
          const id = (event.target as HTMLElement).dataset.block
          const block = id === undefined ? undefined : blocks.find((one) => idOf(one) === id)
          if (!(block && onKey?.(event, block))) grid.onKeyDown(event)
        }}
      >
        {lanes.map(({ lane, cohort }, row) => (
          <div
            key={lane.id}
            role="row"
            className="grid grid-cols-[172px_minmax(0,1fr)] border-b border-line last:border-0 max-md:grid-cols-[104px_minmax(0,1fr)]"
            style={{ height: LANE }}
          >
            <h2
              role="rowheader"
              className="sticky left-0 z-20 flex items-center gap-2 border-r border-line bg-paper px-4 text-lead leading-tight max-md:flex-col max-md:items-start max-md:justify-center max-md:px-2"
            >
              {cohort && <Ribbon colour={cohort.colour} half={cohort.half} size={26} />}
              {lane.name}
            </h2>
            <div role="presentation" className="relative">
              {blocks
                .filter((block) => block.cohortId === lane.id && block.kind !== 'visit')
                .map((block, at) => (
                  <Block
                    key={idOf(block)}
                    block={block}
                    row={row}
                    column={at + 1}
                    colour={cohort?.colour ?? '#46515C'}
                    minutes={minutes}
                    visits={blocks.filter(
                      (visit) =>
                        visit.kind === 'visit' &&
                        visit.cohortId === lane.id &&
                        visit.start >= block.start &&
                        visit.end <= block.end,
                    )}
                    nameOf={(id) => teachers.find((one) => one.id === id)?.name ?? ''}
                    chosen={idOf(block) === chosen}
                    choose={choose}
                    move={move}
                  />
                ))}
            </div>
          </div>
        ))}
        <div
          role="row"
          aria-label="Everybody"
          className="pointer-events-none absolute inset-y-0 right-0 left-[172px] max-md:left-[104px]"
        >
          {whole.map((block) => (
            <button
              key={idOf(block)}
              type="button"
              role="gridcell"
              data-grid={`0,${block.start === 0 ? 0 : 1000 + block.start}`}
              data-block={idOf(block)}
              tabIndex={-1}
              aria-selected={idOf(block) === chosen}
              aria-label={`${blockWords[block.kind]}: ${block.what}, everybody, minute ${block.start} to ${block.end}`}
              className={`pointer-events-auto absolute inset-y-2 overflow-hidden rounded bg-[#e6dfce] p-1.5 text-left text-small leading-tight ${idOf(block) === chosen ? 'ring-2 ring-river' : ''}`}
              style={{ left: left(block.start), width: `calc(${left(block.end - block.start)} - 3px)` }}
              onClick={() => choose(idOf(block))}
            >
              <b className="block text-lead">{blockWords[block.kind]}</b>
              <span className="text-soft">{block.what}</span>
            </button>
          ))}
          <Threads arrangement={arrangement} staff={staff} />
        </div>
      </div>
    </div>
  )
}

function Block({
  block,
  row,
  column,
  colour,
  minutes,
  visits,
  nameOf,
  chosen,
  choose,
  move,
}: {
  block: ArrangedBlock
  row: number
  column: number
  colour: string
  minutes: number
  visits: ArrangedBlock[]
  nameOf: (id: string) => string
  chosen: boolean
  choose: (id: string) => void
  move?: (block: ArrangedBlock, start: number) => void
}) {
  const [dragged, setDragged] = useState<number>()
  const from = useRef<{ x: number; width: number }>(undefined)
  const own = block.kind === 'ownPractice'
  const wide = block.end - block.start
  const shift = dragged ?? 0
  const says = [
    blockWords[block.kind],
    block.what && `: ${block.what}`,
    `, minute ${block.start + shift} to ${block.end + shift}`,
    block.ledBy ? `, ${nameOf(block.ledBy)} leads` : '',
    visits.length > 0
      ? `, ${visits.map((visit) => `${nameOf(visit.ledBy!)} comes by in minute ${visit.start}`).join(', ')}`
      : '',
    block.fixed ? ', fixed' : '',
  ].join('')
  return (
    <button
      type="button"
      role="gridcell"
      data-grid={`${row},${column}`}
      data-block={idOf(block)}
      tabIndex={-1}
      aria-selected={chosen}
      aria-label={says}
      title={says}
      className={`absolute overflow-hidden rounded px-1 py-0.5 text-left text-small leading-tight ${chosen ? 'z-10 ring-2 ring-river' : ''} ${own ? 'border border-dashed text-soft' : ''} ${move && block.task ? 'cursor-grab touch-none' : ''}`}
      style={{
        top: ABOVE + (own ? 6 : 0),
        height: BLOCK - (own ? 6 : 0),
        left: `calc(${((block.start + shift) / minutes) * 100}% + 1px)`,
        width: `calc(${(wide / minutes) * 100}% - 2px)`,
        ...(own ? { borderColor: visibleLine(colour) } : readable(colour)),
      }}
      onClick={() => choose(idOf(block))}
      onPointerDown={(event) => {
        if (!move || !block.task) return
        event.currentTarget.setPointerCapture(event.pointerId)
        from.current = { x: event.clientX, width: event.currentTarget.parentElement!.clientWidth }
      }}
      onPointerMove={(event) => {
        if (from.current)
          setDragged(Math.round(((event.clientX - from.current.x) / from.current.width) * minutes) || undefined)
      }}
      onPointerUp={() => {
        from.current = undefined
        setDragged(undefined)
        if (dragged) move?.(block, block.start + dragged)
      }}
      onPointerCancel={() => {
        from.current = undefined
        setDragged(undefined)
      }}
    >
      {wide > 2 && (
        <span className={`${own ? 'line-clamp-2' : 'line-clamp-3 font-bold'}`}>
          {own
            ? wide > 5
              ? block.what
              : 'own'
            : block.kind === 'rest'
              ? blockWords.rest
              : shortPosture(block.what) || blockWords[block.kind]}
        </span>
      )}
      {block.fixed && (
        <span aria-hidden className="absolute top-0.5 right-0.5 h-2 w-2 rounded-full border border-white bg-ink" />
      )}
      {visits.map((visit) => (
        <span
          key={visit.start}
          aria-hidden
          className="absolute bottom-0 h-2"
          style={{
            left: `${((visit.start - block.start) / wide) * 100}%`,
            width: `${((visit.end - visit.start) / wide) * 100}%`,
            background: readable(colour).background,
          }}
        />
      ))}
    </button>
  )
}

/** One line a teacher: bold above what they lead, and thin on the way from one cohort to the next. */
function Threads({
  arrangement: { minutes, blocks, cohorts, teachers },
  staff,
}: {
  arrangement: Arrangement
  staff: string[]
}) {
  const row = (id: string) => cohorts.findIndex((one) => one.id === id)
  const height = cohorts.length * LANE
  return (
    <>
      <svg
        aria-hidden
        viewBox={`0 0 ${minutes} ${height}`}
        preserveAspectRatio="none"
        className="absolute inset-0 h-full w-full"
      >
        {teachers.map((teacher, at) => {
          const stays = led(blocks, teacher.id).map(({ block }) => ({
            from: block.start + 0.3,
            to: block.end - 0.3,
            y: row(block.cohortId!) * LANE + ABOVE - 8 + at * 2.5,
          }))
          return (
            <g key={teacher.id} fill="none" stroke={inkOf(staff, teacher.name)} strokeLinejoin="round">
              <polyline
                strokeWidth="1.25"
                strokeOpacity="0.45"
                vectorEffect="non-scaling-stroke"
                points={stays.map(({ from, to, y }) => `${from},${y} ${to},${y}`).join(' ')}
              />
              <path
                strokeWidth="2.75"
                vectorEffect="non-scaling-stroke"
                d={stays
                  .map(({ from, to, y }, at) => `${stays[at - 1]?.y === y ? 'L' : 'M'}${from} ${y}H${to}`)
                  .join('')}
              />
            </g>
          )
        })}
      </svg>
      {teachers.map((teacher, at) =>
        led(blocks, teacher.id)
          .filter(({ arrives }) => arrives)
          .map(({ block }) => (
            <span
              key={`${teacher.id} ${block.start}`}
              aria-hidden
              className="absolute grid h-[18px] w-[18px] -translate-y-1/2 place-items-center rounded-full text-[11px] leading-none font-bold text-white"
              style={{
                left: `${((block.start + 0.3) / minutes) * 100}%`,
                top: row(block.cohortId!) * LANE + ABOVE - 8 + at * 2.5,
                background: inkOf(staff, teacher.name),
              }}
            >
              {teacher.name[0]}
            </span>
          )),
      )}
    </>
  )
}

/** What somebody leads, one block after the other; those led together as one. */
function led(blocks: ArrangedBlock[], teacher: string): { block: ArrangedBlock; arrives: boolean }[] {
  const own = blocks
    .filter((block) => block.ledBy === teacher && block.cohortId !== null)
    .toSorted((a, b) => a.start - b.start)
  return own
    .filter((block, at) => own[at - 1]?.start !== block.start)
    .map((block, at, all) => ({ block, arrives: all[at - 1]?.cohortId !== block.cohortId }))
}
