import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { Schema } from '../../api/client'
import { useEngine } from '../../engine/engine'
import { countedOf, hasBody } from '../../shared/counted'
import { postureQuery } from '../../shared/material'
import { useWays } from '../../shared/ways'
import { Figure } from '../../ui/Figure'

interface CountFigureProps {
  postureId: string
  side: Schema['Side']
  /** How the cohort does it. */
  mode: string
  /** From 1. */
  count: number
  sash: string
  /** As whoever faces the class does it. */
  mirrored: boolean
  label: string
}

/** The body at a count, on the dark of the hall; from behind as the class sees whoever leads, or facing it. */
export function CountFigure({ postureId, side, mode, count, sash, mirrored, label }: CountFigureProps) {
  const engine = useEngine().data
  const { pivots } = useWays()
  const reads = useQuery(postureQuery(postureId, side)).data?.reads
  const counted = useMemo(() => {
    if (!reads) return null
    const version = mode === 'standing' ? undefined : reads.versions.find((one) => one.mode === mode)
    const of = version ?? reads
    return hasBody(of.counts) && of.counts.length >= count ? countedOf(reads, version, pivots.onBall) : null
  }, [reads, mode, count, pivots.onBall])
  if (!engine || !counted) return null
  return (
    // As large as there is room for beside the counts; never cut.
    <div className="relative min-h-36 w-64 shrink-0 max-md:w-36">
      <Figure
        {...engine.figure(counted, count, 1, {
          view: mirrored ? 'front' : 'behind',
          turned: 0,
          mirrored,
          sash,
          night: true,
        })}
        label={label}
        className="absolute inset-0 h-full w-full"
      />
    </div>
  )
}
