import type { ReactNode } from 'react'

/** One thing a menu does; a list of them with a name opens beside it. */
export interface MenuItem {
  name: ReactNode
  act?: () => void
  items?: readonly MenuItem[]
  disabled?: boolean
}
