import type { Page } from '@playwright/test'
import { expect, expectAccessible, signIn, test } from './school'

test.use({ serviceWorkers: 'allow' })

const address = (page: Page) =>
  page.evaluate(async () => {
    const lessons = (await (await fetch('/api/lessons')).json()) as { classId: string; class: string; date: string }[]
    const its = lessons.find((lesson) => lesson.date === '2026-11-24' && lesson.class === 'Tuesday evening')!
    return `/lessons/${its.classId}/${its.date}`
  })

/** The cohort that does this tonight, and the minute after it has begun. */
async function during(page: Page, lesson: string, what: string) {
  const its = await page.evaluate(
    async ([path, wanted]) => {
      const { blocks } = (await (await fetch(`/api/classes/${path}/arrangement`)).json()) as {
        blocks: { what: string; start: number; cohortId: string }[]
      }
      const { start, cohortId } = blocks.find((block) => block.what === wanted)!
      return { cohortId, minute: start + 1 }
    },
    [lesson.replace('/lessons/', '').replace('/', '/lessons/'), what] as const,
  )
  return { ...its, time: clockAt(its.minute) }
}

const clockAt = (minute: number) =>
  `${18 + Math.floor((30 + minute) / 60)}:${String((30 + minute) % 60).padStart(2, '0')}`

/** A look at somebody of a cohort that is not in the block led now, and when it is. */
async function lookOutside(page: Page, lesson: string, { cohortId, minute }: { cohortId: string; minute: number }) {
  const looks = await page.evaluate(
    async (path) =>
      (
        (await (await fetch(`/api/classes/${path}/arrangement`)).json()) as {
          looks: { student: string; cohortId: string; start: number; end: number }[]
        }
      ).looks,
    lesson.replace('/lessons/', '').replace('/', '/lessons/'),
  )
  const { student, start } = looks.find(
    (one) => one.cohortId === cohortId && one.start !== null && (one.start > minute || one.end <= minute),
  )!
  return { student, time: clockAt(start) }
}

/** The clock of the device goes on to a minute of tonight's lesson. */
async function until(page: Page, time: string) {
  const now = await page.evaluate(async () => {
    const { wall } = (await (await fetch('/api/session')).json()) as { wall: string }
    return Date.parse(`${wall.slice(0, 19)}Z`)
  })
  await page.clock.fastForward(Date.parse(`2026-11-24T${time}:00Z`) - now)
  await page.clock.runFor(1000)
}

/** Seconds pass in the hall, and meanwhile in the world whatever an answer takes. */
async function pass(page: Page, seconds: number) {
  for (let second = 0; second < seconds; second++) {
    await page.clock.runFor(1000)
    await page.waitForTimeout(40)
  }
}

const stage = (page: Page) => page.getByRole('region', { name: 'The lesson now' })
const watching = (page: Page) => page.getByRole('complementary', { name: 'Watching' })

test('the head leads the evening, loses the network, pauses, and everything is there in the end', async ({ page }) => {
  await page.clock.install()
  await signIn(page, 'head')
  const lesson = await address(page)
  await page.evaluate(() => navigator.serviceWorker.ready)
  const its = await during(page, lesson, 'Roll Back, right')
  await page.goto(`${lesson}/hall?cohort=${its.cohortId}`)
  await expect(stage(page)).toContainText('Looking through Tues')
  await until(page, its.time)
  await expect(stage(page).getByRole('heading', { name: 'Roll Back, right' })).toBeVisible()
  await expect(stage(page)).toContainText(`${its.time} · minute ${its.minute}`)
  await expect(stage(page).getByRole('img', { name: 'Roll Back, right, count 1' })).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(stage(page).getByRole('button', { name: '2 sit back' })).toHaveAttribute('aria-current', 'step')
  await expectAccessible(page, 'Hall')

  // The longest unseen stands first; two taps are a mark.
  // Whoever has their look in another block is told with its minute.
  const look = await lookOutside(page, lesson, its)
  await expect(watching(page).getByRole('listitem').filter({ hasText: look.student })).toContainText(look.time)
  const first = watching(page).getByRole('listitem').first()
  await first.getByRole('button').first().click()
  await first.getByRole('button', { name: 'follows', exact: true }).click()
  await expect(watching(page).getByRole('heading', { name: /^Watch: 1 of/ })).toBeVisible()
  await pass(page, 2)

  // The network goes, and the device's battery with it.
  await page.context().setOffline(true)
  await page.reload()
  await expect(stage(page).getByRole('heading', { name: 'Roll Back, right' })).toBeVisible()
  const second = watching(page).getByRole('listitem').nth(1)
  await second.getByRole('button').first().click()
  await second.getByRole('button', { name: 'alone', exact: true }).click()
  // What they break in every posture is one correction, and so is what was done about it.
  await second.getByRole('button').first().click()
  await second.getByRole('button', { name: 'a principle' }).click()
  await second.getByRole('group', { name: 'Broken in every posture' }).getByRole('button').first().click()
  await second.getByRole('button').first().click()
  await second.getByRole('region', { name: 'In every posture' }).getByRole('button', { name: 'an image' }).click()
  await second.getByRole('button').first().click()
  await page.getByRole('button', { name: 'Pause' }).click()
  await expect(stage(page)).toContainText('Paused by Noor')
  await pass(page, 180)
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(stage(page)).toContainText('2 changes kept here')
  // A visitor comes in meanwhile.
  await watching(page).getByRole('button', { name: 'Who is here' }).click()
  await watching(page).getByLabel('Who').fill('Wenke')
  await watching(page)
    .getByRole('button', { name: /^Is with .* tonight$/ })
    .click()
  await expect(watching(page).getByText('Wenke, a visitor')).toBeVisible()
  await expect(stage(page)).toContainText('3 changes kept here')
  await page.reload()
  await expect(stage(page)).toContainText('3 changes kept here')
  await expect(watching(page).getByRole('heading', { name: /^Watch: 2 of/ })).toBeVisible()

  await page.context().setOffline(false)
  await pass(page, 12)
  await expect(stage(page)).not.toContainText('kept here')
  const kept = await page.evaluate(
    async (path) => {
      const read = async (what: string) => (await (await fetch(`/api/classes/${what}`)).json()) as never
      const arrangement: { edits: { kind: string }[]; blocks: { what: string; start: number; end: number }[] } =
        await read(`${path}/arrangement`)
      const register: {
        students: {
          cells: { today: unknown[] }[]
          against: { today: unknown[]; correction: { triedToday: unknown[] } }[]
        }[]
      } = await read(`${path}/register`)
      const against = register.students.flatMap((student) => student.against)
      return {
        edits: arrangement.edits.map((edit) => edit.kind),
        lost: arrangement.blocks
          .filter((block) => block.what === 'Paused by Noor')
          .map(({ start, end }) => end - start),
        seen: register.students.flatMap((student) => student.cells.flatMap((cell) => cell.today)).length,
        broken: against.flatMap(({ today }) => today).length,
        tried: against.flatMap(({ correction }) => correction.triedToday).length,
      }
    },
    lesson.replace('/lessons/', '').replace('/', '/lessons/'),
  )
  expect(kept).toEqual({ edits: ['pause', 'since', 'since', 'joins'], lost: [3], seen: 2, broken: 1, tried: 1 })

  // How it went is there already.
  await page.getByRole('navigation', { name: 'In the hall' }).getByRole('button', { name: 'The end' }).click()
  await expectAccessible(page, 'How it went')
  await page.getByRole('button', { name: 'That is how it went' }).click()
  await pass(page, 3)
  await expect(page.getByRole('button', { name: 'It is recorded' })).toBeVisible()
})

test('the assistant leads the rail group from a phone, and leaves nothing on it', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.clock.install()
  await signIn(page, 'assistant')
  const lesson = await address(page)
  await page.goto(`${lesson}/hall`)
  await expect(stage(page)).toContainText('Looking through Tues')
  await until(page, '18:45')
  await expect(stage(page)).toContainText('Rail group')
  await expect(stage(page)).toContainText(/You are with them now\.|you lead/)
  await expectAccessible(page, 'Hall on a phone')
  const tabs = page.getByRole('navigation', { name: 'In the hall' })
  await tabs.getByRole('button', { name: 'All cohorts' }).click()
  await expect(stage(page)).toContainText('Garnet')
  await tabs.getByRole('button', { name: 'Watch' }).click()
  await watching(page).getByRole('button', { name: 'Who is here' }).click()
  await watching(page).getByRole('button', { name: 'away' }).first().click()
  await expect(watching(page).getByRole('button', { name: 'away' }).first()).toHaveAttribute('aria-pressed', 'true')
  await pass(page, 3)

  const kept = () =>
    page.evaluate(
      () =>
        new Promise<number>((count) => {
          const open = indexedDB.open('zeitplan-kept')
          open.onsuccess = () => {
            const all = open.result.transaction('answers').objectStore('answers').getAllKeys()
            all.onsuccess = () => count(all.result.filter((key) => key !== 'session').length)
          }
        }),
    )
  expect(await kept()).toBeGreaterThan(2)
  await page.goto('/school')
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await expect(page.getByLabel('Password')).toBeVisible()
  await expect.poll(kept).toBe(0)
})

test('the evening before: two are ill, it is said what collides and what would help, and the floor holds who is left', async ({
  page,
}) => {
  await signIn(page, 'head')
  await page.goto('/lessons')
  await expect(page.getByRole('img', { name: /^Tuesday evening, how it is arranged/ }).first()).toBeVisible()
  await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
  await page.getByRole('button', { name: 'without Jonas' }).click()
  await page.getByRole('button', { name: 'without Odile' }).click()
  const left = page.getByRole('note').filter({ hasText: 'Not everything can be kept.' })
  await expect(left).toBeVisible()
  await left.getByRole('button', { name: 'What would help?' }).click()
  await expect(left.getByText(/then (everything has room|\d+ have none)/).first()).toBeVisible()
  await expectAccessible(page, 'What would help')
  await left.getByRole('button', { name: 'Do it' }).first().click()
  await expect(page.getByRole('button', { name: 'Undo z' })).toBeVisible()

  await page.getByRole('button', { name: 'Something else is otherwise' }).click()
  await page.getByRole('button', { name: 'Fewer in Garnet' }).click()
  await expect(page.getByText('Garnet: 3 came.')).toBeVisible()
  await page.getByRole('button', { name: 'Something else is otherwise' }).click()

  await page.getByRole('radio', { name: 'Floor' }).click()
  await expect(page.getByRole('img', { name: /^Lower Hall from above/ })).toBeVisible()
  await expectAccessible(page, 'Floor')
})
