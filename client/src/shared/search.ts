import { useSearchParams } from 'react-router'
import { useRouter } from './Routed'

/** View state in the address: what is there, and a way to change parts of it without a step in the history. Null takes a part away. What it shows is there at once:
 * whoever opens something else and goes on typing types into that, never into what was open before. */
export function useSearch() {
  const router = useRouter()
  const [search] = useSearchParams()
  const set = (changes: Record<string, string | null>) => {
    const { pathname, search: before } = router.state.location
    const after = new URLSearchParams(before)
    for (const [key, value] of Object.entries(changes)) {
      if (value === null) after.delete(key)
      else after.set(key, value)
    }
    void router.navigate({ pathname, search: `?${after}` }, { replace: true, flushSync: true })
  }
  return [search, set] as const
}
