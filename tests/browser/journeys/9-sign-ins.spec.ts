import type { Browser, Page } from '@playwright/test'
import { choose, enter, expect, expectAccessible, password, signIn, test } from './school'

const chosen = 'a heron on one leg'

/** Somebody else, at a device of their own. */
const elsewhere = async (browser: Browser, baseURL: string) =>
  (await browser.newContext({ baseURL, serviceWorkers: 'block' })).newPage()

/** The same school under a name, which passkeys need; see demo_schools in scripts/demo.sh. */
const atItsName = (address: string) => address.replace(/127\.0\.0\.(\d+)/, 'school-$1.localhost')

/** Invites somebody and takes their letter out of the postbox. */
async function invite(head: Page, name: string, email: string, role: RegExp) {
  await head.goto('/school?view=staff')
  await head.getByRole('button', { name: 'Invite somebody who teaches' }).click()
  await head.getByLabel('Name', { exact: true }).fill(name)
  await choose(head.getByLabel('Role'), role)
  await head.getByLabel('Email to sign in with').fill(email)
  await head.getByRole('button', { name: 'Invite', exact: true }).click()
  await head.getByRole('button', { name: `Read the letter to ${name}` }).click()
  return (await head.locator('pre.letter').textContent())!.match(/http\S+/)![0]
}

async function comeIn(page: Page, way: string) {
  await page.goto(way)
  await page.getByLabel('Password, 12 characters or more').fill(chosen)
  await page.getByLabel('The same again').fill(chosen)
  await page.getByRole('button', { name: 'Come in' }).click()
  await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
}

test('an instructor comes in through the letter, leads a class, and has a passkey from then on', async ({
  page,
  browser,
  baseURL,
}) => {
  await signIn(page, 'head')
  const way = await invite(page, 'Runa Falk', 'runa@heronquay.example', /^instructor/)
  await expectAccessible(page, 'Who teaches')

  // The passkey needs an address with a name.
  const named = atItsName(baseURL!)
  const runa = await elsewhere(browser, named)
  await comeIn(runa, atItsName(way))
  await expect(runa.getByText('You lead no class yet.')).toBeVisible()
  await page.goto('/people?view=classes')
  await page.getByRole('button', { name: 'Change Tuesday evening' }).click()
  await page.getByRole('checkbox', { name: 'Runa Falk' }).check()
  await page.getByRole('button', { name: 'Save the class' }).click()
  await expect(page.getByRole('button', { name: 'Save the class' })).toBeHidden()
  await runa.reload()
  await runa.getByRole('link', { name: 'Mark today’s lesson' }).click()
  await runa.getByRole('tab', { name: 'Copper' }).click()
  await runa.getByRole('button', { name: 'All here' }).click()
  await expect(runa.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()

  const device = await runa.context().newCDPSession(runa)
  await device.send('WebAuthn.enable')
  await device.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })
  await runa.goto('/school?view=account')
  await runa.getByRole('button', { name: 'Add a passkey on this device' }).click()
  await runa.getByLabel('What you call this device').fill('Quay tablet')
  await runa.getByLabel('Your password, once more').fill(chosen)
  await runa.getByRole('button', { name: 'Make the passkey' }).click()
  await expect(runa.getByText('Quay tablet')).toBeVisible()
  await expectAccessible(runa, 'Your sign-in')
  await runa.getByRole('button', { name: 'Sign out', exact: true }).click()
  await runa.getByRole('button', { name: 'Use a passkey' }).click()
  await expect(runa.getByRole('navigation', { name: 'Rooms' })).toBeVisible()

  // A used letter opens nothing.
  const late = await elsewhere(browser, baseURL!)
  await late.goto(way)
  await expect(late.getByRole('alert')).toContainText('This letter no longer opens anything')
})

test('a sign-in is closed while its owner is marking: nothing more is kept, and it is said', async ({
  page,
  browser,
  baseURL,
}) => {
  const jonas = await elsewhere(browser, baseURL!)
  await enter(jonas, 'instructor@heronquay.example')
  await jonas.getByRole('link', { name: 'Mark today’s lesson' }).click()
  await jonas.getByRole('tab', { name: 'Copper' }).click()
  await jonas.getByRole('button', { name: 'All here' }).click()
  await expect(jonas.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()

  await signIn(page, 'head')
  await page.goto('/school?view=staff')
  await page.getByRole('button', { name: 'Jonas Lindqvist' }).click()
  await page.getByRole('button', { name: 'Close the sign-in' }).click()
  await page.getByRole('button', { name: 'Close it' }).click()
  await expect(page.getByText('closed, and still leads a class: give it away')).toBeVisible()

  await jonas.getByRole('button', { name: 'Imke R.: here' }).click()
  await expect(jonas.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible()
  await expect(jonas.getByText('1 mark is not sent yet.')).toBeVisible()
  await jonas.getByLabel('Email').fill('instructor@heronquay.example')
  await jonas.getByLabel('Password').fill(password)
  await jonas.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(jonas.getByRole('alert')).toHaveText('Email and password do not belong together.')

  // Opened again, they go on where they were, and what they tapped lands.
  await page.getByRole('button', { name: 'Open it again' }).click()
  await expect(page.getByText('Open; signed in nowhere.')).toBeVisible()
  await jonas.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(jonas.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
  await jonas.getByRole('tab', { name: 'Copper' }).click()
  await expect(jonas.getByRole('button', { name: 'Imke R.: away' })).toBeVisible()
})
