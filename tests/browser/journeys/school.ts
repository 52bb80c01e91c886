import AxeBuilder from '@axe-core/playwright'
import { expect, test as base, type Locator, type Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { schools } from '../schools'

export const password = process.env.ZEITPLAN_PASSWORD ?? ''

const { ZEITPLAN_PSQL, ZEITPLAN_ADMIN, ZEITPLAN_TEMPLATE: template } = process.env

/** What no page can do: to the databases of all schools. */
const administer = (sql: string) =>
  execFileSync(ZEITPLAN_PSQL!, ['-qX', '-v', 'ON_ERROR_STOP=1', '-c', sql, ZEITPLAN_ADMIN!], { stdio: 'pipe' })

/** The school as it was before the first journey: none of them depends on what another one left behind. */
function openAgain(database: string) {
  if (!ZEITPLAN_PSQL || !ZEITPLAN_ADMIN) return
  lose(database)
  administer(`CREATE DATABASE ${database} TEMPLATE ${template}`)
}

/** The disk is gone, and with it everything the school had. */
export const lose = (database: string) => administer(`DROP DATABASE IF EXISTS ${database} WITH (FORCE)`)

/** The launcher, as a technician runs it for the school in this database. */
export const zeitplan = (database: string, ...words: string[]) =>
  execFileSync('../../zeitplan', words, {
    env: {
      ...process.env,
      ZEITPLAN_DATABASE: process.env.ZEITPLAN_DATABASE!.replace(/Database=[^;]*/, `Database=${database}`),
      ZEITPLAN_PASSPHRASE: 'lanterns over the quay',
    },
    stdio: 'pipe',
  })

/** Connections of the dropped database are still in the server's pool: each is noticed by using it. */
export async function untilItAnswers(base: string) {
  let last = ''
  for (let good = 0, asked = 0; good < 4; asked++) {
    if (asked > 200) throw new Error(`The school at ${base} does not answer after it was opened again: ${last}`)
    const answers = await Promise.all([1, 2, 3, 4, 5].map(() => fetch(`${base}/api/session`)))
    const bad = answers.find((answer) => !answer.ok)
    good = bad ? 0 : good + 1
    if (!bad) continue
    last = `${bad.status} ${await bad.text()}`
    await new Promise((later) => setTimeout(later, 100))
  }
}

/** The page as it stood when a journey went no further, for whoever has only what the run printed. */
async function whatWasSeen(page: Page, heard: string[]) {
  const text = await page.locator('body').innerText({ timeout: 5000 }).catch(String)
  const lines = [page.url(), ...heard, text.replace(/\s+/g, ' ').slice(0, 600)]
  return lines.map((line) => `  saw: ${line}`).join('\n')
}

/** Every page of every test: nothing may be written to the console as an error unless the test says so. */
export const test = base.extend<{ fresh: void; quiet: void }>({
  baseURL: async ({ baseURL }, use, { parallelIndex }) => use(schools[parallelIndex]?.address ?? baseURL),
  fresh: [
    async ({ baseURL }, use) => {
      const school = schools.find(({ address }) => address === baseURL)
      if (school) openAgain(school.database)
      await untilItAnswers(baseURL!)
      await use()
    },
    { auto: true },
  ],
  quiet: [
    async ({ page }, use, info) => {
      const errors: string[] = []
      const refused: string[] = []
      page.on('pageerror', (error) => errors.push(error.message))
      page.on(
        'console',
        (message) =>
          message.type() === 'error' &&
          !message.text().startsWith('Failed to load resource') &&
          errors.push(message.text()),
      )
      page.on(
        'response',
        (response) => response.status() >= 400 && refused.push(`${response.status()} ${response.url()}`),
      )
      page.on('requestfailed', (request) => refused.push(`${request.failure()?.errorText} ${request.url()}`))
      await use()
      if (info.status === 'passed') expect(errors).toEqual([])
      else console.log(await whatWasSeen(page, [...refused.slice(-8), ...errors]))
    },
    { auto: true },
  ],
})

export const signIn = (page: Page, who: 'head' | 'instructor' | 'assistant' | 'tamsin') =>
  enter(page, `${who}@heronquay.example`)

export async function enter(page: Page, email: string) {
  await page.goto('/')
  await page.getByLabel('Email').fill(email)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
}

/** Chooses from a list that opens. */
export async function choose(field: Locator, name: string | RegExp) {
  await field.click()
  await field
    .page()
    .getByRole('option', { name, exact: typeof name === 'string' })
    .click()
}

/** Opens another form by the menu beside the heading. */
export async function otherForm(page: Page, name: string) {
  await page.getByRole('button', { name: 'Another form' }).click()
  await page.getByRole('menuitem', { name }).click()
}

/** Moves whoever is chosen in the roster. */
export async function moveTo(page: Page, schoolClass: string, cohort: string) {
  await page.getByRole('button', { name: 'Move to a cohort' }).click()
  await page.getByRole('menuitem', { name: schoolClass }).press('ArrowRight')
  await page.getByRole('menuitem', { name: cohort, exact: true }).click()
}

/**
 * No serious finding for people who use other means than eyes and a mouse. Of long tables the first rows stand for all: the scan takes a minute otherwise.
 * What a dialog keeps out of reach is scanned when nothing is in front of it.
 */
export async function expectAccessible(page: Page, what: string) {
  // What is behind an open list cannot be reached while it holds the focus; the scan believes that of dialogs only.
  const listOpen = (await page.getByRole('listbox').count()) > 0
  const scan = new AxeBuilder({ page })
  if (!listOpen && (await page.locator('#root[aria-hidden=true]').count()) > 0)
    scan.include('[role=dialog], [role=alertdialog]')
  // There are no pages in pages here, and only what is wrong is read: five times as fast.
  const { violations } = await scan
    .setLegacyMode()
    // Every style sheet is the page's own: none has to be fetched again to be read.
    .options({ resultTypes: ['violations'], preload: false })
    .disableRules(listOpen ? ['aria-hidden-focus'] : [])
    .exclude('tbody tr:nth-child(n+5)')
    .exclude('[role=row][aria-rowindex]:nth-child(n+5)')
    .analyze()
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
