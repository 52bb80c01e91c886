import { newId } from '../ui/new-id'
import type { FormText } from './data'

/** What a new form starts from: one section and nothing in it. */
export const emptyForm = (name: string): FormText => ({
  name,
  sections: [{ id: newId(), name: 'Section one' }],
  positions: [],
  parentId: null,
  segments: [],
  accepted: [],
})

/** "New form", or the first of "New form 2", "New form 3" that nothing is called. */
export const freeName = (name: string, taken: readonly string[]) =>
  [name, ...Array.from({ length: taken.length + 1 }, (_, at) => `${name} ${at + 2}`)].find(
    (one) => !taken.includes(one),
  )!
