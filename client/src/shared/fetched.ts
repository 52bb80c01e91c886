import { lazy, type ComponentType } from 'react'
import { readProblem } from '../api/problem'
import { askedAgainAfter, MOST_RETRIES } from './connection'

/**
 * A part of the page that comes when it is needed. A connection that breaks off while it comes costs a moment and not the
 * page: it is asked for again.
 * @throws Problem where it did not come at all; as it is, what went wrong in the part itself.
 */
export async function fetched<T>(load: () => Promise<T>): Promise<T> {
  for (let failures = 0; ; failures++) {
    try {
      return await load()
    } catch (error) {
      // A file that did not come is a TypeError in every browser.
      if (failures === MOST_RETRIES) throw error instanceof TypeError ? readProblem(0, undefined) : error
      await new Promise((later) => setTimeout(later, askedAgainAfter(failures)))
    }
  }
}

/** A component whose code comes when it is first drawn. */
// oxlint-disable-next-line typescript/no-explicit-any -- as React's own lazy: whatever properties the component has, it keeps
export const later = <T extends ComponentType<any>>(load: () => Promise<T>) =>
  lazy(async () => ({ default: await fetched(load) }))
