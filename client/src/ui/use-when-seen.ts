import { useEffect, useRef, useState } from 'react'

/** Calls back when the element it is given is nearly in sight, and again after every change of `again` while it still is. */
export function useWhenSeen(seen: () => void, again: unknown) {
  const [element, setElement] = useState<HTMLElement | null>(null)
  const latest = useRef(seen)
  useEffect(() => {
    latest.current = seen
  })
  useEffect(() => {
    if (!element) return
    const watch = new IntersectionObserver(
      (entries) => entries.some((entry) => entry.isIntersecting) && latest.current(),
      { rootMargin: '100px' },
    )
    watch.observe(element)
    return () => watch.disconnect()
  }, [element, again])
  return setElement
}
