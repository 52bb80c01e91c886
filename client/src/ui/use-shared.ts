import { replaceEqualDeep } from '@tanstack/react-query'
import { useState } from 'react'

/** A value whose parts are the very same as before wherever they read the same, so that whoever remembers by them is right to. */
export function useShared<T>(value: T): T {
  const [shared, setShared] = useState(value)
  const next = replaceEqualDeep(shared, value)
  if (next !== shared) setShared(next)
  return next
}
