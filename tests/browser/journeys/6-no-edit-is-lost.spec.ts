import type { Browser, Page } from '@playwright/test'
import { schools } from '../schools'
import { choose, expect, lose, password, signIn, test, untilItAnswers, zeitplan } from './school'

/** Somebody else, at a screen of their own. */
async function another(browser: Browser, who: Parameters<typeof signIn>[1]): Promise<Page> {
  const page = await (
    await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB', serviceWorkers: 'block' })
  ).newPage()
  await signIn(page, who)
  return page
}

/** The server is out of reach, or answers as something in between does. */
const cut = (page: Page, status?: number) =>
  page.route('**/api/**', (route) =>
    status === undefined ? route.abort('connectionrefused') : route.fulfill({ status, body: '' }),
  )
const mend = (page: Page) => page.unroute('**/api/**')

const sole = (page: Page) => page.getByRole('button', { name: /^Imke R\., Turn and Chop, \w+:/ })

test.describe('no edit is lost', () => {
  test('two editors of one posture: the second is told what the first changed, and keeps both', async ({
    page,
    browser,
  }) => {
    await signIn(page, 'head')
    const other = await another(browser, 'head')
    for (const one of [page, other]) {
      await one.goto('/forms/postures')
      await one.getByRole('link', { name: 'Push', exact: true }).click()
      await one.getByRole('button', { name: 'Edit the posture' }).click()
      await one.getByRole('tab', { name: 'About it' }).click()
    }
    await other.getByLabel('Family').fill('the tail of the sparrow')
    await page.getByLabel(/^Key point/).fill('mine: the elbows stay low')
    await other.getByRole('button', { name: 'Save the posture' }).click()
    await expect(other.getByRole('heading', { name: 'Push, right' })).toBeVisible()

    // The first window gets the focus again, and with it the newest version; the draft stays the older one.
    await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')))
    await page.bringToFront()
    await page.getByRole('button', { name: 'Save the posture' }).click()
    await expect(page.getByRole('alert').filter({ hasText: 'Nothing of yours was saved' })).toBeVisible()
    await expect(page.getByLabel(/^Key point/)).toHaveValue('mine: the elbows stay low')
    await page.getByRole('button', { name: 'Keep mine, to save it over theirs' }).click()
    await page.getByRole('button', { name: 'Save the posture' }).click()
    await expect(page.getByText('mine: the elbows stay low')).toBeVisible()
    await other.close()
  })

  test('two teachers mark one lesson at once, and neither undoes the other', async ({ page, browser }) => {
    await signIn(page, 'instructor')
    const other = await another(browser, 'head')
    for (const one of [page, other]) {
      await one.goto('/lessons')
      await one.getByRole('link', { name: 'Tuesday 24 November, 18:30' }).click()
      await one.getByRole('link', { name: 'Mark this lesson' }).click()
      await one.getByRole('tab', { name: 'Copper' }).click()
      // The table before it must not be tapped in its place.
      await expect(one.getByRole('button', { name: /^Imke R\.: / })).toBeVisible()
    }
    const ticks = (one: Page) => one.getByRole('grid').getByRole('checkbox')
    const many = await ticks(page).count()
    expect(many).toBeGreaterThan(3)
    // Quicker than any answer: all the odd ones here, all the even ones there.
    await Promise.all(
      [page, other].map(async (one, which) => {
        for (let at = which; at < many; at += 2) await ticks(one).nth(at).click()
      }),
    )
    // Each sees before long what the other has tapped, and so does whoever comes later.
    for (const one of [page, other]) for (let at = 0; at < many; at++) await expect(ticks(one).nth(at)).toBeChecked()
    for (const one of [page, other]) await expect(one.getByText(/on (its|their) way/)).toHaveCount(0)
    await page.reload()
    for (let at = 0; at < many; at++) await expect(ticks(page).nth(at)).toBeChecked()
    await other.close()
  })

  test('the network goes and comes back: what was tapped waits, outlives a reload, and lands once', async ({
    page,
  }) => {
    await signIn(page, 'instructor')
    await page.getByRole('link', { name: 'Mark today’s lesson' }).click()
    await page.getByRole('tab', { name: 'Copper' }).click()
    await expect(sole(page)).toBeVisible()
    await cut(page)
    await sole(page).click()
    const before = await sole(page).boundingBox()
    await page.keyboard.press('3')
    await page.getByRole('button', { name: 'Imke R.: not said' }).click()
    await expect(
      page.getByText('2 marks are waiting for the network. Kept on this device', { exact: false }),
    ).toBeVisible()
    await expect(sole(page)).toContainText('alone')
    await expect(page.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()
    // What is said about it moves nothing under the finger.
    expect((await sole(page).boundingBox())?.y).toBe(before?.y)

    await page.reload()
    await mend(page)
    await page.reload()
    await page.getByRole('tab', { name: 'Copper' }).click()
    await expect(page.getByText('waiting for the network', { exact: false })).toHaveCount(0)
    await expect(page.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()
    await sole(page).click()
    await expect(page.getByRole('complementary').getByRole('listitem').filter({ hasText: 'Withdraw' })).toHaveCount(1)
  })

  test('backed up, everything lost, restored: what was marked is there, and marking goes on', async ({
    page,
    baseURL,
  }, info) => {
    const { database } = schools.find(({ address }) => address === baseURL)!
    const kept = info.outputPath('kept.zeitplan')
    await signIn(page, 'instructor')
    await page.getByRole('link', { name: 'Mark today’s lesson' }).click()
    await page.getByRole('tab', { name: 'Copper' }).click()
    const here = (who: string) => page.getByRole('button', { name: `${who}: not said` })
    await sole(page).click()
    await page.keyboard.press('3')
    await expect(page.getByText(/on (its|their) way/)).toHaveCount(0)
    zeitplan(database, 'backup', kept)
    lose(database)
    await here('Imke R.').click()
    await expect(page.getByText(/1 mark is waiting/)).toBeVisible()

    zeitplan(database, 'restore', kept)
    await untilItAnswers(baseURL!)
    await page.reload()
    // Who was signed in is no part of a backup.
    await page.getByLabel('Email').fill('instructor@heronquay.example')
    await page.getByLabel('Password').fill(password)
    await page.getByRole('button', { name: 'Sign in', exact: true }).click()
    await page.getByRole('tab', { name: 'Copper' }).click()
    await expect(sole(page)).toContainText('alone')
    await expect(page.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()
    await sole(page).click()
    await page.keyboard.press('4')
    await expect(page.getByText(/waiting|on (its|their) way/)).toHaveCount(0)
    await page.reload()
    await page.getByRole('tab', { name: 'Copper' }).click()
    await expect(sole(page)).toContainText('flowing')
  })

  test('a server that is away for a while takes nothing off the screen', async ({ page }) => {
    await signIn(page, 'head')
    await page.goto('/people')
    await expect(page.getByRole('heading', { name: 'Tuesday evening' })).toBeVisible()
    await cut(page, 503)
    await page.getByRole('button', { name: 'Change Tuesday evening' }).click()
    await page.getByLabel('Name').fill('Tuesday, at dusk')
    await page.getByRole('button', { name: 'Save the class' }).click()
    await expect(page.getByRole('alert').first()).toBeVisible()
    await expect(page.getByText('The server does not answer.', { exact: false }).first()).toBeVisible()
    await expect(page.getByLabel('Name')).toHaveValue('Tuesday, at dusk')
    await mend(page)
    await page.getByRole('button', { name: 'Save the class' }).click()
    await expect(page.getByRole('heading', { name: 'Tuesday, at dusk' }).first()).toBeVisible()
  })

  test('a page whose files break off on the way opens all the same', async ({ page }) => {
    await signIn(page, 'head')
    const [rooms, own] = [/assets\/(ProgressScreen|SoleKey|kept)-/, /assets\/(index|session)-[^/]*js/]
    for (const files of [rooms, own]) {
      const broken = new Set<string>()
      await page.route(files, async (route) => {
        const url = route.request().url()
        if (broken.has(url)) return route.continue()
        broken.add(url)
        await route.abort('connectionreset')
      })
      await page.goto('/progress')
      await expect(page.getByRole('rowheader', { name: 'Adaeze O.', exact: true })).toBeVisible()
      expect(broken.size).toBeGreaterThan(1)
      await page.unrouteAll()
    }
  })

  test('a sign-in that ran out comes back to the same place, with the words that were being written', async ({
    page,
    context,
  }) => {
    await signIn(page, 'head')
    await page.goto('/people?view=halls')
    await page.getByRole('button', { name: 'Change Lower Hall' }).click()
    await page.getByLabel('Name').fill('Lower Hall, by the water')
    await context.clearCookies()
    await page.getByRole('button', { name: 'Save the hall' }).click()
    await expect(page.getByLabel('Email')).toBeVisible()
    await page.getByLabel('Email').fill('head@heronquay.example')
    await page.getByLabel('Password').fill(password)
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page).toHaveURL(/view=halls/)
    await page.getByRole('button', { name: 'Change Lower Hall' }).click()
    await expect(page.getByLabel('Name')).toHaveValue('Lower Hall, by the water')
    await page.getByRole('button', { name: 'Save the hall' }).click()
    await expect(page.getByText('Lower Hall, by the water')).toBeVisible()
  })

  test('what is being typed stays while the rest of the page is read again', async ({ page, browser }) => {
    await signIn(page, 'head')
    await page.goto('/people?view=ladder')
    await page.getByRole('button', { name: 'Change Copper' }).click()
    await page.getByLabel('Name').fill('Copper, half ty')
    const other = await another(browser, 'head')
    await other.goto('/people?view=ladder')
    await other.getByRole('button', { name: 'Change Copper' }).click()
    await expect(other.getByText('Whole:').first()).toBeVisible()
    // What would follow is said above the button just while it is being pressed: it moves, and the press counts all the same.
    let say = () => {}
    const isPressed = new Promise<void>((resolve) => (say = resolve))
    await other.route('**/effects', (route) => isPressed.then(() => route.continue()))
    await other.getByLabel('Weeks at least').fill('21')
    const button = other.getByRole('button', { name: 'Save the sash' })
    await button.hover()
    const before = (await button.boundingBox())!
    await other.mouse.down()
    say()
    await expect(other.getByRole('region', { name: 'What this changes' })).toBeVisible()
    expect((await button.boundingBox())!.y).toBeGreaterThan(before.y + before.height)
    await other.mouse.up()
    await expect(button).toBeHidden()
    await expect(other.getByText(/at least 21 weeks/)).toBeVisible()
    await other.close()

    // Coming back to the window reads everything again; the panel and its words are still there, and say so.
    await expect(async () => {
      await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')))
      await expect(page.getByText('Somebody else has saved this', { exact: false })).toBeVisible({ timeout: 1000 })
    }).toPass()
    await expect(page.getByLabel('Name')).toHaveValue('Copper, half ty')
    await page.getByRole('button', { name: 'Close' }).click()
    await expect(page.getByRole('alertdialog')).toContainText('You have not saved the sash Copper.')
    await page.getByRole('button', { name: 'Keep writing' }).click()
    await expect(page.getByLabel('Name')).toHaveValue('Copper, half ty')
    await page.getByRole('button', { name: 'Show what is there now' }).click()
    await expect(page.getByLabel('Weeks at least')).toHaveValue('21')
  })

  test('what is taken out can be brought back', async ({ page }) => {
    await signIn(page, 'head')
    await page.goto('/forms/principles')
    const principle = page.getByRole('listitem').filter({ hasText: 'each knee points where its foot points' }).first()
    await principle.getByRole('button', { name: 'Edit' }).click()
    await page.getByRole('button', { name: 'Take the principle out' }).click()
    await expect(page.getByText('each knee points where its foot points')).toHaveCount(0)
    await page.getByRole('button', { name: /^Undo/ }).click()
    await expect(page.getByText('each knee points where its foot points', { exact: false })).toBeVisible()
  })
})

test('an evening by keyboard alone', async ({ page }) => {
  /** Tab until something has the focus: whatever cannot be reached so cannot be done. */
  const tabTo = async (name: RegExp) => {
    for (let pressed = 0; pressed < 80; pressed++) {
      await page.keyboard.press('Tab')
      const here = await page.evaluate(() => {
        const now = document.activeElement as HTMLElement | null
        return `${now?.getAttribute('aria-label') ?? ''} ${now?.textContent ?? ''}`.trim()
      })
      if (name.test(here)) return
    }
    throw new Error(`Tab does not come to ${name}.`)
  }
  await page.goto('/')
  await expect(page.getByLabel('Email')).toBeVisible()
  await page.getByLabel('Email').focus()
  await page.keyboard.type('instructor@heronquay.example')
  await page.keyboard.press('Tab')
  await page.keyboard.type(password)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Left to do' })).toBeVisible()
  await tabTo(/^Mark today’s lesson$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Mark Tuesday 24 November' })).toBeVisible()
  await tabTo(/^Ivory$/)
  for (const next of ['Fern, newer', 'Fern, senior']) {
    await page.keyboard.press('ArrowRight')
    await expect(page.getByRole('tab', { name: next })).toBeFocused()
  }
  await expect(page.getByRole('tab', { name: 'Fern, senior' })).toHaveAttribute('aria-selected', 'true')
  await tabTo(/All here|not said/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Ines C.: here' })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('3')
  await expect(page.locator('[data-grid]:focus')).toContainText('alone')
  await page.keyboard.press('x')
  await expect(page.getByText('What did you see?')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-grid="1,1"]')).toContainText('seen')
  await page.keyboard.press('z')
  await expect(page.locator('[data-grid="1,1"]')).toContainText('alone')
  await page.keyboard.press('g')
  await page.keyboard.press('o')
  await expect(page.getByRole('heading', { name: 'Who can do what' })).toBeVisible()
  await page.keyboard.press('/')
  await expect(page.getByRole('combobox', { name: /^Find/ })).toBeFocused()
  await page.keyboard.type('imke')
  await expect(page.getByRole('option', { name: /^Imke/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('complementary')).toContainText('Imke Rademaker')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: 'Choose a sole' })).toBeVisible()
})

test('from the sign-in to a mark on a phone', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB', hasTouch: true })
  const page = await context.newPage()
  await page.goto('/')
  await page.getByLabel('Email').fill('instructor@heronquay.example')
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).tap()
  const rooms = page.getByRole('navigation', { name: 'Rooms' })
  const foot = (await rooms.boundingBox())!
  expect(Math.round(foot.y + foot.height)).toBe(844)
  await rooms.getByRole('link', { name: 'Lessons' }).tap()
  await page.getByRole('link', { name: 'Tuesday 24 November, 18:30' }).tap()
  await page.getByRole('link', { name: 'Mark this lesson' }).tap()
  await page.getByRole('tab', { name: 'Copper' }).tap()
  await sole(page).tap()
  const sheet = page.getByRole('dialog', { name: 'Imke R.' })
  await expect(sheet).toBeVisible()
  await sheet.getByRole('button', { name: /^alone/ }).tap()
  await expect(sole(page)).toContainText('alone')
  const button = (await sheet.getByRole('button', { name: /^alone/ }).boundingBox())!
  expect(button.height).toBeGreaterThanOrEqual(44)
  await sheet.getByRole('button', { name: 'Close' }).tap()
  await rooms.getByRole('button', { name: 'More' }).tap()
  await page.getByRole('menuitem', { name: 'People' }).tap()
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
  await context.close()
})

test('single letters can be switched off', async ({ page }) => {
  await signIn(page, 'head')
  await page.keyboard.press('?')
  await page.getByRole('switch', { name: /^Single letters do something/ }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('g')
  await page.keyboard.press('p')
  await expect(page.getByRole('heading', { name: 'Tuesday 24 November' })).toBeVisible()
  await page.getByRole('link', { name: 'People' }).click()
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible()
  await page.getByRole('tab', { name: 'Roster' }).click()
  await choose(page.getByLabel('Sash', { exact: true }), 'Copper')
  await expect(page.getByRole('status').filter({ hasText: ' of 43' })).toBeVisible()
})
