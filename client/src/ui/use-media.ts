import { useSyncExternalStore } from 'react'

/** Whether a media query holds, followed while it is asked for. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query)
      list.addEventListener('change', changed)
      return () => list.removeEventListener('change', changed)
    },
    () => window.matchMedia(query).matches,
  )
}

/** Room for a panel beside the picture. */
export const useIsWide = () => useMedia('(min-width: 1024px)')
