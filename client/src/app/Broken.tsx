import { useRouteError } from 'react-router'
import { isAway } from '../shared/queries'

/** Where a page did not come, or cannot be drawn: that is said, and the way out of it, instead of an empty window. */
export function Broken() {
  const error = useRouteError()
  return (
    <main className="grid min-h-screen place-items-center p-6">
      <div role="alert" className="grid max-w-lg gap-3 border-l-4 border-lacquer pl-4">
        <h1 className="text-2xl">This page cannot be shown</h1>
        <p>
          {isAway(error) ? 'It did not come.' : 'Something in Zeitplan went wrong while drawing it.'} What is saved is
          saved; what you were writing on it is kept in this window.
        </p>
        <p className="text-soft">{error instanceof Error ? error.message : String(error)}</p>
        <p className="flex flex-wrap gap-3">
          <button type="button" className="button button-primary" onClick={() => window.location.reload()}>
            Open it again
          </button>
          <a className="button" href="/">
            To Today
          </a>
        </p>
      </div>
    </main>
  )
}
