import AxeBuilder from '@axe-core/playwright'
import { expect, test as base, type Page } from '@playwright/test'

export const password = process.env.ZEITPLAN_PASSWORD ?? ''

/** Every page of every test: nothing may be written to the console as an error unless the test says so. */
export const test = base.extend<{ quiet: void }>({
  quiet: [
    async ({ page }, use, info) => {
      const errors: string[] = []
      page.on('pageerror', (error) => errors.push(error.message))
      page.on(
        'console',
        (message) =>
          message.type() === 'error' &&
          !message.text().startsWith('Failed to load resource') &&
          errors.push(message.text()),
      )
      await use()
      if (info.status === 'passed') expect(errors).toEqual([])
    },
    { auto: true },
  ],
})

export async function signIn(page: Page, who: 'head' | 'instructor' | 'assistant' | 'tamsin') {
  await page.goto('/')
  await page.getByLabel('Email').fill(`${who}@heronquay.example`)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
}

/** No serious finding for people who use other means than eyes and a mouse. Of long tables the first rows stand for all: the scan takes a minute otherwise. */
export async function expectAccessible(page: Page, what: string) {
  const { violations } = await new AxeBuilder({ page }).exclude('tbody tr:nth-child(n+5)').analyze()
  const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')
  expect(
    serious.map(
      ({ id, nodes }) =>
        `${what}: ${id}: ${nodes
          .map((node) => node.html)
          .slice(0, 3)
          .join(' | ')}`,
    ),
  ).toEqual([])
}

export { expect }
