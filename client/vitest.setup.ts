import 'fake-indexeddb/auto'
import { cleanup, configure } from '@testing-library/react'
import { afterEach, beforeAll, vi } from 'vitest'

// Generous, for small and busy machines.
configure({ asyncUtilTimeout: 10_000 })

// What a browser has and jsdom has not, and the primitives ask for.
class Nothing {
  observe() {}
  unobserve() {}
  disconnect() {}
}
vi.stubGlobal('ResizeObserver', Nothing)
vi.stubGlobal('IntersectionObserver', Nothing)
Element.prototype.scrollIntoView = () => undefined
Element.prototype.hasPointerCapture = () => false
Element.prototype.setPointerCapture = () => undefined
Element.prototype.releasePointerCapture = () => undefined
window.matchMedia = (query: string) =>
  ({
    matches: query.includes('min-width'),
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }) as unknown as MediaQueryList
window.scrollTo = () => undefined

// What a package writes into the page's head is for eyes; asking jsdom how each element looks under it takes a fifth of the time.
beforeAll(() => document.head.querySelectorAll('style').forEach((style) => style.remove()))

afterEach(() => {
  cleanup()
  sessionStorage.clear()
  localStorage.clear()
})
