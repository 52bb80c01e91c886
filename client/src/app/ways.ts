import { useQuery } from '@tanstack/react-query'
import { answer, api } from '../api/client'

export const useConventions = () =>
  useQuery({ queryKey: ['conventions'], queryFn: () => answer(api.GET('/api/conventions')), staleTime: 60_000 })

/** The eight directions as the school says them, and how it turns a foot. */
export function useWays() {
  const { data } = useConventions()
  return {
    say: (degrees: number) => (data && degrees % 45 === 0 ? data.directions[degrees / 45]! : `${degrees}°`),
    directions: data?.directions ?? [],
    ways: data?.ways,
    pivots: { onBall: data?.ways.pivotOn === 'ball', weighted: data?.ways.weightedPivots ?? false },
  }
}
