import { describe, expect, it, vi } from 'vitest'
import { Problem } from '../api/problem'
import { WaitingQueue, type Waiting } from './waiting'

const away = new Problem(0, 'The server does not answer.', {}, [])
const entry = (id: string, by = 'jonas'): Waiting => ({
  id,
  kind: 'mark',
  variables: { mark: id },
  by,
  says: `mark ${id}`,
})

let names = 0
const open = (name = `test ${names++}`, landed?: () => void) => {
  const queue = new WaitingQueue(name, 5)
  const sent: string[] = []
  const answers: (Error | null)[] = []
  queue.through('mark', {
    send: (variables: { mark: string }) => {
      const answer = answers.shift() ?? null
      if (answer) return Promise.reject(answer)
      sent.push(variables.mark)
      return Promise.resolve()
    },
    landed,
  })
  return { queue, sent, answers, name }
}

describe('what waits', () => {
  it('is sent one after the other, in the order it was tapped', async () => {
    const { queue, sent } = open()
    await queue.signedIn('jonas')
    await Promise.all(['a', 'b', 'c'].map((id) => queue.add(entry(id))))
    await vi.waitFor(() => expect(sent).toEqual(['a', 'b', 'c']))
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
  })

  it('is asked for again once for all that landed, and not once for each', async () => {
    const landed = vi.fn()
    const { queue, sent, answers } = open(undefined, landed)
    await Promise.all(['a', 'b', 'c', 'd'].map((id) => queue.add(entry(id))))
    await queue.signedIn('jonas')
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
    expect(landed).toHaveBeenCalledTimes(1)
    await queue.signedIn(null)
    await Promise.all(['e', 'f', 'g'].map((id) => queue.add(entry(id))))
    answers.push(...([undefined, away] as Error[]))
    await queue.signedIn('jonas')
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
    expect(sent).toEqual(['a', 'b', 'c', 'd', 'e', 'f', 'g'])
    // What had landed before the network went is shown before it is back.
    expect(landed).toHaveBeenCalledTimes(3)
  })

  it('goes together where it belongs together, in its order, and one by one where the server refuses one of it', async () => {
    const queue = new WaitingQueue(`test ${names++}`, 5)
    const sent: string[][] = []
    const refuses = new Set<string>()
    const send = (all: { mark: string }[]) => {
      if (all.some(({ mark }) => refuses.has(mark))) return Promise.reject(new Problem(400, 'Not so.', {}, []))
      sent.push(all.map(({ mark }) => mark))
      return Promise.resolve()
    }
    queue.through('mark', {
      send: (one: { mark: string }) => send([one]),
      together: { word: ({ mark }: { mark: string }) => (mark === 'x' ? undefined : mark[0]), send },
    })
    await Promise.all(
      ['a1', 'a2', 'b1', 'x', 'x', 'b2'].map((mark, at) => queue.add({ ...entry(`${at}`), variables: { mark } })),
    )
    await queue.signedIn('jonas')
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
    expect(sent).toEqual([['a1', 'a2'], ['b1'], ['x'], ['x'], ['b2']])

    refuses.add('a4')
    await queue.signedIn(null)
    await Promise.all(['a3', 'a4', 'a5'].map((mark, at) => queue.add({ ...entry(`more ${at}`), variables: { mark } })))
    await queue.signedIn('jonas')
    await vi.waitFor(() => expect(queue.now().map(({ refused }) => refused)).toEqual(['Not so.']))
    expect(sent.slice(5)).toEqual([['a3'], ['a5']])
  })

  it('is sent once more when somebody asks for it after a refusal', async () => {
    const { queue, sent, answers } = open()
    await queue.signedIn('jonas')
    answers.push(new Problem(500, 'Something went wrong.', {}, []))
    await queue.add(entry('a'))
    await vi.waitFor(() => expect(queue.now()[0]?.refused).toContain('Something went wrong.'))
    await queue.sendAgain('a')
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
    expect(sent).toEqual(['a'])
  })

  it('waits for the network and goes on by itself when it is back', async () => {
    const { queue, sent, answers } = open()
    await queue.signedIn('jonas')
    answers.push(away, away)
    await queue.add(entry('a'))
    await queue.add(entry('b'))
    expect(queue.now().length).toBeGreaterThan(0)
    await vi.waitFor(() => expect(sent).toEqual(['a', 'b']))
  })

  it('waits where the server has too much to do just now, or gives no answer at all', async () => {
    const sent: string[] = []
    const queue = new WaitingQueue(`slow ${names++}`, 5, 20)
    let times = 0
    queue.through('mark', {
      send: ({ mark }: { mark: string }) => {
        times++
        if (times === 1) return Promise.reject(new Problem(429, 'Much is being planned just now.', {}, []))
        if (times === 2) return new Promise(() => undefined)
        sent.push(mark)
        return Promise.resolve()
      },
    })
    await queue.signedIn('jonas')
    await queue.add(entry('a'))
    await queue.add(entry('b'))
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
    expect(sent).toEqual(['a', 'b'])
  })

  it('survives a reload', async () => {
    const before = open()
    await before.queue.signedIn(null)
    await before.queue.add(entry('a'))
    await before.queue.add(entry('b'))
    const after = open(before.name)
    await after.queue.signedIn('jonas')
    await vi.waitFor(() => expect(after.sent).toEqual(['a', 'b']))
    const third = open(before.name)
    await vi.waitFor(() => expect(after.queue.now()).toEqual([]))
    await third.queue.signedIn('jonas')
    expect(third.queue.now()).toEqual([])
  })

  it('keeps every refusal with its reason until it has been read, and goes on with the rest', async () => {
    const { queue, sent, answers } = open()
    await queue.signedIn('jonas')
    answers.push(
      new Problem(400, 'This lesson has not been held yet.', {}, []),
      null,
      new Problem(403, 'Not yours.', {}, []),
    )
    for (const id of ['a', 'b', 'c']) await queue.add(entry(id))
    await vi.waitFor(() =>
      expect(queue.now().map(({ refused }) => refused)).toEqual(['This lesson has not been held yet.', 'Not yours.']),
    )
    expect(sent).toEqual(['b'])
    await queue.forget('a')
    expect(queue.now().map(({ id }) => id)).toEqual(['c'])
  })

  it('is sent by nobody but whoever tapped it', async () => {
    const { queue, sent } = open()
    await queue.signedIn('odile')
    await queue.add(entry('his', 'jonas'))
    await queue.add(entry('hers', 'odile'))
    await vi.waitFor(() => expect(queue.now().map(({ id }) => id)).toEqual(['his']))
    expect(sent).toEqual(['hers'])
    await queue.signedIn('jonas')
    await vi.waitFor(() => expect(sent).toEqual(['hers', 'his']))
  })

  it('waits, and is not refused, while nobody is signed in', async () => {
    const { queue, sent, answers } = open()
    await queue.signedIn('jonas')
    answers.push(new Problem(401, 'Sign in first.', {}, []))
    await queue.add(entry('a'))
    await vi.waitFor(() => expect(sent).toEqual(['a']))
  })

  it('is said to be kept once it is, and not before', async () => {
    const { queue, answers } = open()
    answers.push(away, away)
    await queue.signedIn('jonas')
    const adding = queue.add(entry('a'))
    expect(queue.now().map(({ kept }) => kept)).toEqual([undefined])
    expect(queue.isOnlyHere).toBe(true)
    await adding
    expect(queue.now().map(({ kept }) => kept)).toEqual([true])
    expect(queue.isOnlyHere).toBe(false)
  })

  it('is kept in one go where one tap says many things', async () => {
    const { queue, name } = open()
    await queue.signedIn(null)
    await queue.add(entry('first'))
    const going = vi.spyOn(IDBDatabase.prototype, 'transaction')
    const evening = Array.from({ length: 122 }, (_, mark) => `${mark}`)
    await Promise.all(evening.map((id) => queue.add(entry(id))))
    // Other devices may be at theirs at the same time.
    const here = going.mock.contexts.filter((database) => (database as IDBDatabase).name === name)
    going.mockRestore()
    expect(here).toHaveLength(1)
    expect(queue.isOnlyHere).toBe(false)
    const after = open(name)
    await after.queue.signedIn('jonas')
    await vi.waitFor(() => expect(after.sent).toEqual(['first', ...evening]))
  })

  it('is sent from a browser that keeps nothing, and never said to be kept there', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('Not allowed here.')
      },
    })
    const { queue, sent, answers } = open()
    answers.push(away)
    await queue.signedIn('jonas')
    await queue.add(entry('a'))
    expect(queue.now().map(({ kept }) => kept)).toEqual([undefined])
    await vi.waitFor(() => expect(sent).toEqual(['a']))
    await vi.waitFor(() => expect(queue.now()).toEqual([]))
    vi.unstubAllGlobals()
  })
})

it('of two devices loses and doubles none of two hundred marks through ten losses of the network', async () => {
  const facts = new Map<string, number>()
  let gone = false
  const device = async (who: string) => {
    const queue = new WaitingQueue(`two hundred ${who} ${names++}`, 1)
    queue.through('mark', {
      send: async ({ mark }: { mark: string }) => {
        if (gone) throw away
        await Promise.resolve()
        // It arrives and is kept once under its name; whether the answer comes back is another matter.
        facts.set(mark, (facts.get(mark) ?? 0) + 1)
        if (gone) throw away
      },
    })
    await queue.signedIn(who)
    return queue
  }
  const [noor, jonas] = await Promise.all([device('noor'), device('jonas')])
  for (let mark = 0; mark < 100; mark++) {
    gone = mark % 10 < 4
    void noor.add(entry(`noor ${mark}`, 'noor'))
    await jonas.add(entry(`jonas ${mark}`, 'jonas'))
  }
  gone = false
  await vi.waitFor(() => expect([noor.now(), jonas.now()]).toEqual([[], []]), 20_000)
  expect(facts.size).toBe(200)
})
