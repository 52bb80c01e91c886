import { expect, type Locator, type Page } from '@playwright/test'

/** What a page must let anybody reach: more stops than this on the way to something, and nobody goes there twice. */
const MOST_STOPS = 60

/** Goes on by the tab key alone until the focus is on what is wanted. */
export async function reach(page: Page, wanted: Locator) {
  await expect(wanted).toBeVisible()
  for (let stops = 0; stops < MOST_STOPS; stops++) {
    if (await wanted.evaluate((element) => element === document.activeElement)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`${wanted.toString()} is not reached within ${MOST_STOPS} stops of the tab key.`)
}

export async function press(page: Page, wanted: Locator, key = 'Enter') {
  await reach(page, wanted)
  await page.keyboard.press(key)
}

/** Writes over what a field has in it. */
export async function write(page: Page, field: Locator, text: string) {
  await reach(page, field)
  await page.keyboard.press('Control+a')
  await page.keyboard.type(text)
}

/** Chooses from a list with the arrow keys. */
export async function pick(page: Page, field: Locator, name: string) {
  const option = page.getByRole('option', { name, exact: true })
  // On a busy machine the first key is not always answered by a list: it is pressed again, as anybody would.
  await expect(async () => {
    if (!(await option.isVisible())) await press(page, field)
    await expect(option).toBeVisible({ timeout: 5_000 })
    await page.keyboard.press('Home')
    // The focus follows a key a little later: the next key waits for it, or it would go past what is wanted.
    for (const each of await page.getByRole('option').all()) {
      await expect(each).toBeFocused({ timeout: 5_000 })
      if (await option.evaluate((element) => element === document.activeElement)) break
      await page.keyboard.press('ArrowDown')
    }
    await expect(option).toBeFocused({ timeout: 5_000 })
  }).toPass({ timeout: 60_000 })
  await page.keyboard.press('Enter')
  await expect(option).toBeHidden()
}
