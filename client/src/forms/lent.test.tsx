import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { renderHook } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { postureQuery } from '../shared/material'
import { press } from '../testing/heron-quay'
import type { PostureText } from './data'
import { useLent } from './lent'

/** A draft with two counts, of which only the second says something of its own. */
const draft = {
  ...press.text,
  builtFrom: { postureId: press.id, mirrored: false },
  counts: [
    { ...press.text.counts[0]!, feet: '', body: '', as: 1 },
    { ...press.text.counts[0]!, feet: '', body: 'chest left 10', as: 2 },
  ],
} as PostureText

function lent(of: PostureText) {
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } })
  const reads = (side: string) => ({
    ...press,
    side,
    reads: {
      ...press.reads,
      counts: [1, 2].map((count) => ({ ...press.text.counts[0]!, feet: `${side} ${count}`, body: `gaze ${side}` })),
    },
  })
  client.setQueryData(postureQuery(press.id).queryKey, reads('right') as never)
  client.setQueryData(postureQuery(press.id, 'left').queryKey, reads('left') as never)
  return renderHook(() => useLent(of), {
    wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
  }).result.current.counts.map(({ feet, body }) => [feet, body])
}

describe('what a posture lends to one that is built from it', () => {
  it('fills what a count leaves empty, and nothing else', () =>
    expect(lent(draft)).toEqual([
      ['right 1', 'gaze right'],
      ['right 2', 'chest left 10'],
    ]))

  it('is taken from its other side where the draft says so', () =>
    expect(lent({ ...draft, builtFrom: { postureId: press.id, mirrored: true } })).toEqual([
      ['left 1', 'gaze left'],
      ['left 2', 'chest left 10'],
    ]))

  it('is nothing for a count that names none, nor for a draft of its own', () => {
    expect(lent({ ...draft, counts: [{ ...draft.counts[0]!, as: 9 }] })).toEqual([['', '']])
    expect(lent({ ...draft, builtFrom: null })[0]).toEqual(['', ''])
  })
})
