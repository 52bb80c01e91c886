import { createContext, use, type ComponentProps } from 'react'
import { flushSync } from 'react-dom'
import { RouterProvider } from 'react-router'

type Router = ComponentProps<typeof RouterProvider>['router']

const atOnce = (work: () => unknown) => {
  flushSync(work)
  return undefined
}

const TheRouter = createContext<Router | null>(null)

/** The router itself. What a page below `Routes` navigates with knows nothing of being seen at once; this does. */
export const useRouter = () => use(TheRouter)!

/** The pages of a router; a change of address that asks for it is seen before anything else happens. */
export const Routed = ({ router }: { router: Router }) => (
  <TheRouter value={router}>
    <RouterProvider router={router} flushSync={atOnce} />
  </TheRouter>
)
