import { expect, expectAccessible, password, signIn, test } from './school'

test('the instructor sees one class, marks it, and cannot change the school', async ({ page }) => {
  await signIn(page, 'instructor')
  await expect(page.getByRole('link', { name: 'Tuesday evening', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Tuesday morning, seated', exact: true })).toBeHidden()
  await page.getByRole('link', { name: 'Mark today’s lesson' }).click()
  await page.getByRole('tab', { name: 'Copper' }).click()
  await page.getByRole('button', { name: 'All here' }).click()
  await expect(page.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()
  await page.getByRole('button', { name: 'Imke R.: here' }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('2')
  await expect(page.locator('[data-grid]:focus')).toContainText('follows')
  await page.getByRole('button', { name: 'All taught as planned' }).click()
  await expect(page.getByText('what was taught is recorded')).toBeVisible()
  await page.getByRole('link', { name: 'Today', exact: true }).click()
  await expect(page.getByRole('article').filter({ hasText: 'Tuesday evening' })).toContainText(
    'Tuesday 1 December at 18:30',
  )

  await page.goto('/forms')
  await expect(page.getByRole('heading', { name: 'Lantern Form' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Rename' })).toBeHidden()
  await page.getByRole('button', { name: 'Open', exact: true }).click()
  await expect(page.getByText('This position')).toBeHidden()
  await expect(page.getByRole('complementary').getByText('Key point')).toBeVisible()
  await page.goto('/people')
  await expect(page.getByRole('button', { name: /Assign to/ })).toHaveCount(0)
  await page.goto('/term')
  await expect(page.getByRole('button', { name: /Plan the term/ })).toHaveCount(0)
  await page.goto('/progress')
  await page.getByRole('rowheader', { name: 'Bernd H.', exact: true }).click()
  await page.getByRole('button', { name: 'Show limits (this is written down)' }).click()
  await expect(page.getByRole('complementary')).toContainText('Not asked for: one-leg balance; kick.')
})

test('the assistant marks without seeing limits', async ({ page }) => {
  await signIn(page, 'assistant')
  await page.goto('/progress')
  await page.getByRole('rowheader', { name: 'Bernd H.', exact: true }).click()
  await expect(page.getByRole('complementary')).toContainText('Bernd Hollerbach')
  await expect(page.getByRole('complementary')).not.toContainText('Not asked for')
})

for (const [device, size] of [
  ['tablet', { width: 820, height: 1180 }],
  ['phone', { width: 390, height: 844 }],
] as const) {
  test(`Today, marking and Progress work on a ${device}`, async ({ page }) => {
    await page.setViewportSize(size)
    await signIn(page, 'tamsin')
    await expect(page.getByRole('heading', { name: 'Left to do' })).toBeVisible()
    await expectAccessible(page, `Today on a ${device}`)
    await page.goto('/lessons')
    await page.getByRole('link', { name: 'Register' }).first().click()
    const sole = page.getByRole('button', { name: /^Agnes W., / }).first()
    await sole.click()
    await page.getByRole('button', { name: /^seen and fine/ }).click()
    await expect(page.getByText('Seen in this lesson')).toBeVisible()
    const box = (await sole.boundingBox())!
    expect(Math.round(box.height)).toBeGreaterThanOrEqual(44)
    await expectAccessible(page, `Mark on a ${device}`)
    await page.goto('/progress')
    await expect(page.getByRole('heading', { name: 'Who can do what' })).toBeVisible()
    await expectAccessible(page, `Progress on a ${device}`)
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
  })
}

test('signing in fails clearly and signing out closes the school', async ({ page }) => {
  await page.goto('/progress')
  await expectAccessible(page, 'Sign in')
  await page.getByLabel('Email').fill('head@heronquay.example')
  await page.getByLabel('Password').fill('not the password')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toHaveText('Email and password do not belong together.')
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('link', { name: 'School' }).click()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByLabel('Email')).toBeVisible()
})
