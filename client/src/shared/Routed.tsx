import type { ComponentProps } from 'react'
import { flushSync } from 'react-dom'
import { RouterProvider } from 'react-router'

const atOnce = (work: () => unknown) => {
  flushSync(work)
  return undefined
}

/** The pages of a router; a change of address that asks for it is seen before anything else happens. */
export const Routed = ({ router }: Pick<ComponentProps<typeof RouterProvider>, 'router'>) => (
  <RouterProvider router={router} flushSync={atOnce} />
)
