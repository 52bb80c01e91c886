// One current picture of each main view, from the demo school.
import { chromium } from '@playwright/test'

const folder = process.argv[2]
const base = process.env.ZEITPLAN_BASE
const laptop = { width: 1280, height: 800 }
const tablet = { width: 820, height: 1180 }

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
})
const page = await browser.newPage({ viewport: laptop, locale: 'en-GB' })

async function shot(name, path, act = async () => {}, size = laptop) {
  await page.setViewportSize(size)
  await page.goto(base + path)
  await page.waitForLoadState('networkidle')
  await act()
  await page.waitForLoadState('networkidle')
  await page.getByRole('status').filter({ hasText: '…' }).waitFor({ state: 'hidden' })
  await page.screenshot({ path: `${folder}/${name}.png` })
  console.log(`${name}.png`)
}

await shot('sign-in', '/')
await page.getByLabel('Email').fill('head@heronquay.example')
await page.getByLabel('Password').fill(process.env.ZEITPLAN_PASSWORD)
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('navigation', { name: 'Rooms' }).waitFor()

await shot('today', '/')
await shot('forms', '/forms', () => page.getByRole('button', { name: /Single Whip, left/ }).click())
await shot('people', '/people')
await shot('people-assign', '/people', () => page.getByRole('button', { name: 'Assign to Copper' }).click())
await shot('people-roster', '/people?view=roster')
await shot('people-school', '/people?view=school')
await shot('term', '/term')
await shot('term-why', '/term', () => page.getByRole('button', { name: /^Single Whip, left, Ivory/ }).click())
await shot('lessons', '/lessons')
await shot('lesson', '/lessons', async () => {
  await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
  await page.getByRole('heading', { name: 'Whom to watch' }).waitFor()
})
const marked = async () => {
  await page.getByRole('link', { name: 'Register' }).first().click()
  await page.getByRole('button', { name: 'Fern, newer' }).click()
  await page.getByRole('button', { name: /^Goran V., Brush Knee/ }).click()
  await page.getByRole('heading', { name: 'Goran V.' }).waitFor()
}
await shot('mark', '/lessons', marked)
await shot('progress', '/progress', async () => {
  await page.getByRole('button', { name: /^Imke R., Single Whip/ }).click()
  await page.getByRole('heading', { name: 'Imke Rademaker' }).waitFor()
})
await shot('school', '/school')
await shot('today-tablet', '/', undefined, tablet)
await shot('mark-tablet', '/lessons', marked, tablet)
await shot('progress-tablet', '/progress', undefined, tablet)
await browser.close()
