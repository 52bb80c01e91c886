import { QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createMemoryRouter, Link } from 'react-router'
import { afterEach } from 'vitest'
import { leaving, LeavingQuestion } from '../shared/leaving'
import { makeQueries } from '../shared/queries'
import { Routed } from '../shared/Routed'
import { SignedIn, signedAs, type Signed } from '../shared/session'
import { UndoRoom } from '../shared/undo'
import { sessionOf } from './heron-quay'

// A question that is still open belongs to the test that asked it.
afterEach(leaving.stay)

interface Where {
  /** The address it is at. */
  at?: string
  /** Who is signed in; nobody where a test leaves it out. */
  as?: Signed['person']
}

/** Draws something as it stands in the application: with its queries, its addresses, its undo, and the question before leaving. */
export function draw(element: ReactNode, { at = '/here', as }: Where = {}) {
  const queries = makeQueries()
  queries.setDefaultOptions({ queries: { networkMode: 'always', retry: false } })
  const router = createMemoryRouter(
    [
      {
        path: '*',
        element: (
          <SignedIn value={as ? signedAs(sessionOf(as), as) : null}>
            <UndoRoom>{element}</UndoRoom>
            <LeavingQuestion />
            <Link to="/elsewhere">Elsewhere</Link>
          </SignedIn>
        ),
      },
    ],
    { initialEntries: [at] },
  )
  const drawn = render(
    <QueryClientProvider client={queries}>
      <Routed router={router} />
    </QueryClientProvider>,
  )
  return { ...drawn, queries, router }
}
