import { queryOptions, useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { answer, api } from '../api/client'

export const conventionsQuery = () =>
  queryOptions({ queryKey: ['conventions'], queryFn: () => answer(api.GET('/api/conventions')), staleTime: 60_000 })

/** The numbers everything is reckoned with; core's, and nobody else's. */
export const rulesQuery = () =>
  queryOptions({ queryKey: ['rules'], queryFn: () => answer(api.GET('/api/rules')), staleTime: Infinity })

/** The eight directions as the school says them, and how it turns a foot. */
export function useWays() {
  const { data } = useQuery(conventionsQuery())
  // The same until the school changes them: whatever is drawn from them is not drawn anew for a key.
  return useMemo(
    () => ({
      say: (degrees: number) => (data && degrees % 45 === 0 ? data.directions[degrees / 45]! : `${degrees}°`),
      directions: data?.directions ?? [],
      ways: data?.ways,
      /** What the checks of a posture go by. */
      checked: {
        onBall: data?.ways.pivotOn === 'ball',
        weighted: data?.ways.weightedPivots ?? false,
        handsSettle: data?.ways.handsSettleAfter ?? false,
      },
      pivots: { onBall: data?.ways.pivotOn === 'ball', weighted: data?.ways.weightedPivots ?? false },
    }),
    [data],
  )
}
