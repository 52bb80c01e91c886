import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { Opening } from '../shared/Opening'
import { Slider } from '../ui/Slider'
import { useMedia } from '../ui/use-media'
import { people } from '../ui/words'
import { clockAt, type Arrangement } from './arranging'
import { floorQuery, type Lesson } from './data'

type Floor = Schema['FloorResponse']
type Stretch = Schema['FloorStretch']

/** How far apart people of one group stand; metres. */
const APART = 1.5
const NOBODYS = '00000000-0000-0000-0000-000000000000'

interface FloorViewProps {
  lesson: Lesson
  arrangement: Arrangement
  cohorts: Schema['LessonCohortSheet'][]
  /** When the lesson begins. */
  start: string
  inkOf: (teacher: string) => string
}

/** Who works where in the hall, stretch by stretch, and which way they travel. */
export function FloorView({ lesson, arrangement, cohorts, start, inkOf }: FloorViewProps) {
  const floor = useQuery(floorQuery(lesson, arrangement.version))
  const [chosen, setChosen] = useState<number>()
  if (!floor.data) return <Opening of={[floor]} what="Finding everybody a place" />
  const { stretches } = floor.data
  const found = stretches.findIndex((one) => chosen !== undefined && chosen >= one.start && chosen < one.end)
  // The first in which everybody does something of their own.
  const at = found < 0 ? Math.min(1, stretches.length - 1) : found
  const stretch = stretches[at]
  const go = (by: 1 | -1) => setChosen(stretches[at + by]?.start)
  if (!stretch) return <p className="px-5 py-4">Nobody is in the hall.</p>
  const supported = (id: string) => {
    const all = floor.data.supported.filter((one) => id === NOBODYS || one.cohortId === id)
    const [sit, hold] = [all.reduce((sum, one) => sum + one.sitting, 0), all.reduce((sum, one) => sum + one.holding, 0)]
    return [
      sit > 0 && `${sit} on ${sit === 1 ? 'a chair' : 'chairs'} beside them`,
      hold > 0 && `${hold} at the rail, a wall or a braced chair`,
    ]
      .filter(Boolean)
      .join(', ')
  }
  const nameOf = (id: string) => cohorts.find((one) => one.cohortId === id)?.name ?? 'Everybody'
  return (
    <div className="grid lg:grid-cols-[minmax(0,3fr)_minmax(300px,2fr)]">
      <div className="bg-paper px-5 py-4">
        <div className="mb-2 flex items-center gap-3">
          <button type="button" className="button" disabled={at === 0} onClick={() => go(-1)}>
            Before
          </button>
          <Slider
            label="When"
            value={at}
            min={0}
            max={stretches.length - 1}
            onChange={(to) => setChosen(stretches[to]!.start)}
            says={`${clockAt(start, stretch.start)} to ${clockAt(start, stretch.end)}`}
            className="flex-1"
          />
          <button type="button" className="button" disabled={at === stretches.length - 1} onClick={() => go(1)}>
            After
          </button>
        </div>
        <Plan floor={floor.data} stretch={stretch} arrangement={arrangement} cohorts={cohorts} inkOf={inkOf} />
      </div>
      <section aria-live="polite" className="grid content-start gap-4 px-5 py-4">
        <h2 className="text-lg">
          {clockAt(start, stretch.start)} to {clockAt(start, stretch.end)}
        </h2>
        {stretch.holds ? (
          <p>
            <b>The floor holds everybody.</b>{' '}
            <span className="text-soft">
              {people(arrangement.cohorts.reduce((sum, one) => sum + one.people, 0))}, nobody’s travel meets another’s.
            </span>
          </p>
        ) : (
          stretch.says.map((says) => (
            <p key={says} className="border-l-4 border-ochre-mark pl-3">
              {says}
            </p>
          ))
        )}
        {stretch.moved.length > 0 && (
          <p>
            <b>Now {stretch.moved.map(nameOf).join(' and ')}</b> {stretch.moved.length === 1 ? 'goes' : 'go'} to another
            place.
          </p>
        )}
        <ul className="grid gap-1">
          {stretch.zones.map((zone) => (
            <li key={zone.groupId} className="flex justify-between gap-3 border-b border-fine py-1">
              <span>
                <b>{nameOf(zone.groupId)}</b>
                {zone.shorter && <span className="block text-soft">has room for {zone.shorter}</span>}
                {supported(zone.groupId) && <span className="block text-soft">{supported(zone.groupId)}</span>}
              </span>
              <span className="shrink-0 text-right text-soft">
                {zone.abreast} abreast{zone.rows > 1 ? `, ${zone.rows} lines` : ''}
                {zone.waves > 1 ? `, in ${zone.waves} waves` : ''} · {zone.width.toFixed(1)} × {zone.depth.toFixed(1)} m
                {zone.turned !== 0 && ', turned to the right'}
              </span>
            </li>
          ))}
        </ul>
        <p className="text-soft">Doors and ways out are your local code’s business; keep them free.</p>
      </section>
    </div>
  )
}

function Plan({
  floor,
  stretch,
  arrangement,
  cohorts,
  inkOf,
}: {
  floor: Floor
  stretch: Stretch
  arrangement: Arrangement
  cohorts: Schema['LessonCohortSheet'][]
  inkOf: (teacher: string) => string
}) {
  const small = !useMedia('(min-width: 768px)')
  const letter = small ? 0.42 : 0.3
  const aside = floor.railWall === 'left' || floor.railWall === 'right'
  const wall = aside ? floor.depth : floor.width
  const [from, to] = [(wall - Math.min(floor.rail, wall)) / 2, (wall + Math.min(floor.rail, wall)) / 2]
  const off = { front: 0, back: floor.depth, left: 0, right: floor.width }[floor.railWall]
  return (
    <svg
      viewBox={`-0.3 -0.8 ${floor.width + 0.6} ${floor.depth + 1.1}`}
      className="max-h-[68vh] w-full"
      role="img"
      aria-label={`${floor.hall} from above, the front at the top: ${stretch.zones
        .map((zone) => cohorts.find((one) => one.cohortId === zone.groupId)?.name ?? 'everybody')
        .join(', ')}`}
    >
      <rect width={floor.width} height={floor.depth} className="fill-floorboard stroke-ink" strokeWidth="0.08" />
      {Array.from({ length: Math.floor(floor.width * 2) }, (_, at) => (
        <line
          key={at}
          x1={at / 2}
          x2={at / 2}
          y1="0"
          y2={floor.depth}
          className="stroke-boardline"
          strokeWidth="0.015"
        />
      ))}
      <text x={floor.width / 2} y="-0.32" textAnchor="middle" className="fill-soft" fontSize={letter}>
        front{floor.mirror ? ' · mirror' : ''}
      </text>
      {floor.mirror && (
        <line x1="1" x2={floor.width - 1} y1="-0.1" y2="-0.1" className="stroke-river" strokeWidth="0.12" />
      )}
      {floor.rail > 0 && (
        <line
          {...(aside ? { x1: off, x2: off, y1: from, y2: to } : { x1: from, x2: to, y1: off, y2: off })}
          className="stroke-ochre-mark"
          strokeWidth="0.18"
        />
      )}
      {stretch.zones.map((zone) => {
        const cohort = cohorts.find((one) => one.cohortId === zone.groupId)
        const colour = cohort?.colour ?? '#46515C'
        const lane = arrangement.cohorts.find((one) => one.id === zone.groupId)
        const block = arrangement.blocks.find(
          (one) =>
            one.kind !== 'visit' &&
            (zone.groupId === NOBODYS ? one.cohortId === null : one.cohortId === zone.groupId) &&
            one.start <= stretch.start &&
            one.end > stretch.start,
        )
        const teacher = arrangement.teachers.find((one) => one.id === block?.ledBy)
        const count = Math.ceil((lane?.people ?? zone.abreast * zone.rows) / zone.waves)
        const [apartX, apartY] =
          cohort?.mode === 'supported' ? [1, 1] : [APART, cohort?.mode === 'seated' ? 1.4 : APART]
        return (
          <g key={zone.groupId}>
            <rect
              x={zone.left}
              y={zone.front}
              width={zone.width}
              height={zone.depth}
              rx="0.1"
              fill={colour}
              fillOpacity="0.2"
              stroke={colour}
              strokeWidth="0.05"
            />
            {Array.from({ length: Math.min(count, zone.abreast * zone.rows) }, (_, at) => {
              const x = zone.left + zone.startLeft + (at % zone.abreast) * apartX
              const y = zone.front + zone.startFront + Math.floor(at / zone.abreast) * apartY
              return (
                <path
                  key={at}
                  transform={`translate(${x} ${y}) rotate(${zone.turned})`}
                  d="M0 -0.24L0.13 0.06A0.13 0.13 0 1 1 -0.13 0.06Z"
                  fill={colour}
                  className="stroke-ink"
                  strokeWidth="0.015"
                />
              )
            })}
            {teacher && (
              <g transform={`translate(${zone.left + zone.width - 0.4} ${zone.front + 0.4})`}>
                <circle r="0.26" fill={inkOf(teacher.name)} />
                <text textAnchor="middle" y="0.1" className="fill-white font-bold" fontSize="0.28">
                  {teacher.name[0]}
                </text>
              </g>
            )}
            <text
              x={zone.left + 0.12}
              y={zone.front + zone.depth - 0.14}
              className="fill-ink font-semibold"
              fontSize={letter}
            >
              {cohort?.name ?? 'Everybody'}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
