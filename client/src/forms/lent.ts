import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { postureQuery } from '../shared/material'
import type { Count, PostureText } from './data'

/** A draft with what the posture it is built from lends its counts: what is walked, drawn and checked. */
export function useLent(draft: PostureText): PostureText {
  const { builtFrom, counts } = draft
  const basis = useQuery(postureQuery(builtFrom?.postureId)).data
  const otherSide = basis?.side === 'left' ? 'right' : 'left'
  const other = useQuery(
    postureQuery(builtFrom?.mirrored && basis && basis.side !== 'symmetric' ? basis.id : undefined, otherSide),
  ).data
  const from = (builtFrom?.mirrored ? (other ?? basis) : basis)?.reads.counts
  return useMemo(
    () => (builtFrom && from ? { ...draft, counts: counts.map((count) => lend(count, from[count.as - 1])) } : draft),
    [draft, builtFrom, counts, from],
  )
}

const lend = (own: Count, lent: Count | undefined): Count =>
  lent
    ? {
        ...own,
        feet: own.feet || lent.feet,
        body: own.body || lent.body,
        waist: own.waist || lent.waist,
        hands: own.hands || lent.hands,
        gaze: own.gaze || lent.gaze,
        breath: own.breath || lent.breath,
      }
    : own
