import type { ReactNode } from 'react'

export interface WeaveColumn {
  id: string
  /** What its head says, and how it is read aloud. */
  head: ReactNode
  says: string
  /** Why nothing happens in this column. */
  closed?: string
  current?: boolean
  past?: boolean
}

export interface WeaveChip {
  id: string
  column: number
  name: string
  /** What pointing at it shows. */
  card: ReactNode
  /** Drawn lightly: it goes with what stands beside it. */
  quiet?: boolean
  /** Fixed by hand: a nail head. */
  pinned?: boolean
  /** Columns in which the thread has a knot, in order. */
  knots: number[]
  /** For screen readers: everything the picture says about this chip. */
  says: string
  done: boolean
}

export interface WeaveRow {
  id: string
  head: ReactNode
  colour: string
  chips: WeaveChip[]
  /** Where chips were before, and where they went. */
  ghosts: { column: number; name: string; went: string }[]
  /** Outlined boxes: run-throughs and tests. */
  boxes: { column: number; name: string }[]
}

/** A chip on its way to another column, and what each column would cost. */
export interface WeaveMove {
  chip: string
  /** The column the keys have brought it to. */
  at?: number
  costs?: Record<string, { verdict: 'here' | 'fits' | 'pushes' | 'over' | 'never'; says: string }>
}
