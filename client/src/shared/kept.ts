import { openDB, type DBSchema } from 'idb'
import { clock } from './clock'
import { SESSION } from './kept-name'

/** What the server answered, for when it does not: whoever was signed in, and when. */
interface Kept extends DBSchema {
  answers: { key: string; value: { data: unknown; at: number; shape: string } }
}

/** What answers look like to this page; written in when it is built. */
declare const ANSWER_SHAPE: string

const NAME = 'zeitplan-kept'
const STORE = 'answers'

/** Two weeks of lessons, and no longer: what somebody needs in the hall, not a copy of the school. */
const LONGEST = 15 * 24 * 3600 * 1000

const open = () => openDB<Kept>(NAME, 1, { upgrade: (database) => void database.createObjectStore(STORE) })

/** A browser that keeps nothing shows what it has while the page is open. */
export async function keep(key: string, data: unknown) {
  try {
    const database = await open()
    await database.put(STORE, { data, at: Date.now(), shape: ANSWER_SHAPE }, key)
    database.close()
  } catch {
    // As in a private window: nothing is promised there.
  }
}

/** What was answered last, undefined where nothing is kept; what is too old, or was kept by a page that reads answers otherwise, is gone with the asking. */
export async function recall(key: string): Promise<unknown> {
  try {
    const database = await open()
    const kept = await database.get(STORE, key)
    const isOld = kept !== undefined && (Date.now() - kept.at > LONGEST || kept.shape !== ANSWER_SHAPE)
    if (isOld) await database.delete(STORE, key)
    database.close()
    return isOld ? undefined : ofToday(key, kept?.data)
  } catch {
    return undefined
  }
}

/** Whoever was signed in yesterday is asked what day it is today. */
const ofToday = (key: string, data: unknown) =>
  key === SESSION && data ? { ...data, today: new Date(clock.wall()).toISOString().slice(0, 10) } : data

/** Nobody who comes after finds what somebody else has read. */
export async function forget() {
  try {
    const database = await open()
    await database.clear(STORE)
    database.close()
  } catch {
    // Nothing was kept.
  }
}
