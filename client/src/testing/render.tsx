import { QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createMemoryRouter, Link, RouterProvider } from 'react-router'
import { LeavingQuestion } from '../shared/leaving'
import { makeQueries } from '../shared/queries'
import { UndoRoom } from '../shared/undo'

/** Draws something as it stands in the application: with its queries, its addresses, its undo, and the question before leaving. */
export function draw(element: ReactNode) {
  const queries = makeQueries()
  queries.setDefaultOptions({ queries: { retry: false } })
  const router = createMemoryRouter(
    [
      {
        path: '*',
        element: (
          <>
            <UndoRoom>{element}</UndoRoom>
            <LeavingQuestion />
            <Link to="/elsewhere">Elsewhere</Link>
          </>
        ),
      },
    ],
    { initialEntries: ['/here'] },
  )
  const drawn = render(
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  )
  return { ...drawn, queries, router }
}
