import type { Schema } from '../api/client'
import { visibleLine } from '../ui/colour'
import type { Arrangement } from './arranging'

const LANE = 5

interface SmallArrangementProps {
  arrangement: Arrangement
  cohorts: readonly Pick<Schema['LessonCohortSheet'], 'cohortId' | 'colour'>[]
  /** Whose blocks stand out; everybody's where nobody is named. */
  teacher?: string
  label: string
  className?: string
  height?: number
}

/** A lesson at a glance: a lane a cohort, full where it is led, a line where it practises by itself, a band where all are together. */
export function SmallArrangement({ arrangement, cohorts, teacher, label, className, height }: SmallArrangementProps) {
  const lanes = arrangement.cohorts
  return (
    <svg
      viewBox={`0 0 ${arrangement.minutes} ${lanes.length * LANE + 1}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={label}
      className={className}
      height={height}
    >
      {arrangement.blocks.map((block, at) => {
        const width = block.end - block.start
        if (block.cohortId === null)
          return <rect key={at} x={block.start} width={width} height={lanes.length * LANE + 1} className="fill-line" />
        const lane = lanes.findIndex((one) => one.id === block.cohortId)
        const colour = cohorts.find((one) => one.cohortId === block.cohortId)?.colour ?? '#46515C'
        const stands = teacher === undefined || block.ledBy === teacher
        if (block.kind === 'ownPractice')
          return (
            <line
              key={at}
              x1={block.start}
              x2={block.end}
              y1={lane * LANE + 3}
              y2={lane * LANE + 3}
              stroke={visibleLine(colour)}
              strokeWidth="0.5"
            />
          )
        const [top, tall] = block.kind === 'visit' ? [2.2, 1.6] : [1, 4]
        return (
          <rect
            key={at}
            x={block.start}
            y={lane * LANE + top}
            width={width - 0.3}
            height={tall}
            fill={colour}
            fillOpacity={stands ? 1 : 0.25}
            stroke={stands ? visibleLine(colour) : 'none'}
            strokeWidth="0.3"
          />
        )
      })}
    </svg>
  )
}
