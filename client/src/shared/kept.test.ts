import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Problem } from '../api/problem'
import { clock, secondsInto } from './clock'
import { forget, keep, recall } from './kept'
import { orKept } from './queries'

const away = () => Promise.reject(new Problem(0, 'The server does not answer.', {}, []))
const later = () => new Promise((done) => setTimeout(done, 20))

beforeEach(async () => {
  await forget()
  vi.useRealTimers()
})

describe('what is on the device', () => {
  it('is not read by a page to which it would look otherwise', async () => {
    await keep('lesson', { minutes: 90 })
    const database = await openDB('zeitplan-kept', 1)
    const kept = (await database.get('answers', 'lesson')) as object
    await database.put('answers', { ...kept, shape: 'of an earlier version' }, 'lesson')
    expect(await recall('lesson')).toBeUndefined()
    expect(await database.get('answers', 'lesson')).toBeUndefined()
    database.close()
  })

  it('answers where the server does not, with what came last', async () => {
    await orKept('lesson', () => Promise.resolve({ minutes: 90 }))
    await later()
    expect(await orKept('lesson', away)).toEqual({ minutes: 90 })
    await expect(orKept('another', away)).rejects.toThrow('does not answer')
  })

  it('never stands in for a refusal, nor for what is shown already', async () => {
    await keep('lesson', { minutes: 90 })
    await expect(orKept('lesson', () => Promise.reject(new Problem(403, 'Not yours.', {}, [])))).rejects.toThrow('Not')
    await expect(orKept('lesson', away, false)).rejects.toThrow('does not answer')
  })

  it('is gone with whoever signs out, and by itself after two weeks', async () => {
    await keep('lesson', { minutes: 90 })
    vi.useFakeTimers({ toFake: ['Date'] })
    vi.setSystemTime(Date.now() + 16 * 24 * 3600 * 1000)
    expect(await recall('lesson')).toBeUndefined()
    vi.useRealTimers()
    await keep('lesson', { minutes: 90 })
    await forget()
    expect(await recall('lesson')).toBeUndefined()
  })
})

it('goes by the school’s clocks, however wrong the device is', () => {
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.setSystemTime(new Date('2026-11-24T17:20:00Z'))
  clock.set({ at: '2026-11-24T17:40:00Z', wall: '2026-11-24T18:40:00' })
  expect(secondsInto('2026-11-24', '18:30:00')).toBe(600)
  expect(clock.now().toISOString()).toBe('2026-11-24T17:40:00.000Z')
  vi.useRealTimers()
})
