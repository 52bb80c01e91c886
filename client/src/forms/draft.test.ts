import { describe, expect, it } from 'vitest'
import { DraftStore } from './draft'

describe('a draft', () => {
  it('tells whoever listens, once for each change, and nobody who has left', () => {
    const drafts = new DraftStore()
    let told = 0
    const leave = drafts.subscribe(() => told++)
    const draft = { positionId: 'a', wayIn: 'L 100%' }
    drafts.set(draft)
    drafts.set(draft)
    expect([told, drafts.read()]).toEqual([1, draft])
    drafts.set(null)
    leave()
    drafts.set(draft)
    expect(told).toBe(2)
  })
})
