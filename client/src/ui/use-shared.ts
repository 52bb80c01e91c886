import { replaceEqualDeep } from '@tanstack/react-query'
import { useMemo, useState } from 'react'

/** Hands on one value after another, each with the very same parts as the one before wherever they read the same. */
export function sharing<T>(): (value: T) => T {
  let shared: T | undefined
  return (value) => (shared = replaceEqualDeep(shared, value))
}

/** A value whose parts are the very same as before wherever they read the same, so that whoever remembers by them is right to. */
export function useShared<T>(value: T): T {
  const [share] = useState(sharing<T>)
  return useMemo(() => share(value), [share, value])
}
