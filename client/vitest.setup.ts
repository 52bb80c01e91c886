import 'fake-indexeddb/auto'
import { cleanup, configure } from '@testing-library/react'
import { afterEach, beforeAll } from 'vitest'

// Generous, for small and busy machines.
configure({ asyncUtilTimeout: 10_000 })

// A wide window: what shows in a narrow one is a journey's matter.
window.matchMedia = (query: string) =>
  ({
    matches: query.includes('min-width'),
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }) as unknown as MediaQueryList

// Nothing is laid out here, and so nothing is out of sight.
Element.prototype.scrollIntoView = () => undefined

// What a package writes into the page's head is for eyes; asking how each element looks under it takes a third of the time.
beforeAll(() => document.head.querySelectorAll('style').forEach((style) => style.remove()))

afterEach(() => {
  cleanup()
  sessionStorage.clear()
  localStorage.clear()
})
