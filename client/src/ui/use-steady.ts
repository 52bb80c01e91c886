import { useInsertionEffect, useMemo, useRef } from 'react'

/** The same functions through every drawing, each doing what the newest of its name does. Not to be called while drawing. */
// oxlint-disable-next-line typescript/no-explicit-any -- whatever the functions take is theirs
export function useSteady<T extends Record<string, (...given: any[]) => void>>(newest: T): T {
  const latest = useRef(newest)
  useInsertionEffect(() => {
    latest.current = newest
  })
  const names = Object.keys(newest).join(' ')
  return useMemo(
    () =>
      Object.fromEntries(
        names.split(' ').map((name) => [name, (...given: unknown[]) => latest.current[name]!(...given)]),
      ) as T,
    [names],
  )
}
