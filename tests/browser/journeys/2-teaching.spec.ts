import type { Page } from '@playwright/test'
import { expect, expectAccessible, password, signIn, test } from './school'

/** The evening class of a day, in the list of lessons. */
async function evening(page: Page, day: string) {
  await page.goto('/lessons')
  return page.getByRole('listitem').filter({ hasText: day }).filter({ hasText: 'Tuesday evening' })
}

test('the instructor sees one class, marks it, and cannot change the school', async ({ page }) => {
  await signIn(page, 'instructor')
  await expect(page.getByRole('link', { name: 'Tuesday evening', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Tuesday morning, seated', exact: true })).toBeHidden()
  await page.getByRole('link', { name: 'Mark today’s lesson' }).click()
  await page.getByRole('tab', { name: 'Copper' }).click()
  const copper = page.getByRole('grid', { name: 'Register of Copper' })
  await copper.getByRole('button', { name: 'All here' }).click()
  await expect(page.getByRole('button', { name: 'Imke R.: here' })).toBeVisible()
  await page.getByRole('button', { name: 'Imke R.: here' }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('2')
  await expect(page.locator('[data-grid]:focus')).toContainText('follows')
  await page.getByRole('button', { name: 'All taught as planned' }).click()
  await expect(page.getByText('what was taught is recorded')).toBeVisible()
  await page.getByRole('link', { name: 'Today', exact: true }).click()
  const card = page.getByRole('article').filter({ hasText: 'Tuesday evening' })
  await expect(card).toContainText('Tuesday 1 December at 18:30')
  await expect(card.getByRole('link', { name: 'Look back on today' })).toBeVisible()

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

test('what is stuck is taught another way, and what was done about it is kept', async ({ page }) => {
  await signIn(page, 'instructor')
  await page.goto('/progress')
  await page.getByRole('link', { name: /corrections open/ }).click()
  await expect(page.getByRole('heading', { name: 'What to correct' })).toBeVisible()
  await page.getByRole('radio', { name: /^Stuck/ }).click()
  const imke = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: 'Imke R.' }) })
  await expect(imke).toContainText('key point, open, stuck')
  await expect(imke).toContainText('at the wall, eased 5 of 6 within three weeks')
  await expectAccessible(page, 'What to correct')
  await imke.getByRole('button', { name: /^What I did about it/ }).click()
  await page.getByRole('menuitem', { name: 'at the wall' }).click()
  await expect(imke).toContainText('not seen again yet')
  await page.reload()
  await page.getByRole('radio', { name: /^Stuck/ }).click()
  const tried = imke.getByRole('list', { name: 'Tried' })
  await expect(tried).toContainText('at the wall')

  // It is no new trouble: the same came last spring.
  const corrections = page.url()
  await page.getByRole('link', { name: 'over the years' }).click()
  await page.getByRole('radio', { name: 'Comes back 1' }).click()
  await page.getByRole('button', { name: /^Single Whip/ }).click()
  await expect(page.getByRole('complementary')).toContainText('Has come twice.')
  await expect(page.getByRole('complementary').getByRole('listitem').filter({ hasText: 'Imke R.' })).toContainText(
    'and still',
  )
  await expectAccessible(page, 'What we teach against')
  await page.goto(corrections)

  // In the lesson the same is a tap, and the tap once more takes it back.
  const lesson = page.url().replace(/.*progress\/(.*)\/corrections.*/, '/lessons/$1/2026-11-24/mark')
  await page.goto(lesson)
  await page.getByRole('tab', { name: 'Copper' }).click()
  await page.getByRole('button', { name: /^Imke R., Single Whip, left/ }).click()
  const wall = page.getByRole('button', { name: 'at the wall' })
  await expect(wall).toHaveAttribute('aria-pressed', 'true')
  await wall.click()
  await expect(wall).toHaveAttribute('aria-pressed', 'false')

  // What is shown in another mode is kept beside, and is no stage in hers.
  await page.getByRole('button', { name: /^The mode Imke R. did it in/ }).click()
  await page.getByRole('menuitem', { name: 'supported' }).click()
  await page.keyboard.press('2')
  await expect(page.getByRole('complementary')).toContainText(/follows, .*supported/)
  await page.goto(page.url().replace(/lessons\/([^/]*).*/, 'progress/$1'))
  await page.getByRole('gridcell', { name: /^Imke R., Single Whip, left: flowing/ }).click()
  await expect(page.getByRole('complementary')).toContainText('supported: follows')
})

test('sheets for home are printed once, and the days brought back are written down', async ({ page }) => {
  await signIn(page, 'instructor')
  await page.goto('/progress')
  await page.getByRole('link', { name: 'home practice' }).click()
  await expect(page.getByRole('heading', { name: 'Home practice' })).toBeVisible()
  await expectAccessible(page, 'Home practice')
  // What would go to the printer is looked at instead.
  await page.evaluate(() => {
    window.print = () => {
      const paper = document.querySelector('.print-alone')!
      document.body.dataset.sheets = String(paper.querySelectorAll('article').length)
      document.body.dataset.figures = String([...paper.querySelectorAll('img')].every((one) => one.naturalWidth > 0))
    }
  })
  const all = page.getByRole('button', { name: /^Print the \d+ to hand out$/ })
  const many = /\d+/.exec((await all.textContent())!)![0]
  await all.click()
  await expect(page.getByText(`Are the ${many} sheets on paper?`)).toBeVisible()
  expect(await page.evaluate(() => ({ ...document.body.dataset }))).toMatchObject({ sheets: many, figures: 'true' })
  await page.getByRole('button', { name: 'Yes, they are handed out' }).click()
  await expect(page.getByRole('button', { name: 'Nothing has changed' })).toBeDisabled()

  // Without a network a tap waits, and outlives a reload.
  await page.getByRole('button', { name: /^Goran V\./ }).click()
  await page.route('**/api/classes/*/home/practice', (route) => route.abort('connectionrefused'))
  await page.getByRole('button', { name: 'Sunday 22 November: nothing' }).click()
  await expect(page.getByText('1 mark is waiting for the network. Kept on this device', { exact: false })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: /^Sunday 22 November: \d+ minutes$/ })).toBeVisible()
  await page.unroute('**/api/classes/*/home/practice')
  await page.reload()
  await expect(page.getByText('waiting for the network', { exact: false })).toHaveCount(0)
  await expect(page.getByRole('button', { name: /^Sunday 22 November: \d+ minutes$/ })).toBeVisible()
})

test('after the lesson the head looks back: the rest moves on, what many share comes again', async ({ page }) => {
  await signIn(page, 'head')
  await (await evening(page, 'Tuesday 17 November')).getByRole('link', { name: 'Register' }).click()
  await page.getByRole('tab', { name: 'Fern, newer' }).click()
  await expect(page.getByRole('grid', { name: 'Register of Fern, newer' })).toBeVisible()
  const missedOut = page.getByRole('checkbox').first()
  await Promise.all([
    page.waitForResponse((response) => response.url().endsWith('/taught') && response.ok()),
    missedOut.click(),
  ])
  await page.getByRole('link', { name: 'Look back' }).click()
  await expect(page.getByRole('heading', { name: 'Looking back on Tuesday 17 November' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Brush Knee, right → Brush Knee, left.*not reached$/ })).toBeVisible()
  await expect(page.getByText('Away when it was new')).toBeVisible()
  const what = page.getByRole('complementary', { name: 'What follows' })
  await expect(what).toContainText(/Dai Y\./)
  await expectAccessible(page, 'Looking back')

  await expect(page.getByRole('button', { name: /^Plan the rest again/ })).toBeVisible()
  await page.keyboard.press('p')
  await expect(what).toContainText(/Fern, newer: Brush Knee, right → Brush Knee, left from 17 Nov to/)
  await page.keyboard.press('a')
  await expect(page.getByRole('button', { name: /^Announce it/ })).toBeHidden()

  await expect(what).toContainText('Offered')
  await expect(what).toContainText('Slowly by counts, its usual faults, then flowing; feet only, along two boards')
  await page.keyboard.press('t')
  await expect(what).toContainText(/the feet land on one line: it is in the lesson, [4-6] min\./)
  // It takes minutes of the plan, too.
  await expect(page.getByRole('button', { name: /^Plan the rest again/ })).toBeVisible()
  await page.reload()
  await expect(what).toContainText(/the feet land on one line: it is in the lesson, [4-6] min\./)
  await page.keyboard.press('d')
  await expect(page).toHaveURL(/\/$/)
})

test('whoever was away makes up for it before class, with whoever may show it', async ({ page }) => {
  await signIn(page, 'head')
  await (await evening(page, 'Tuesday 17 November')).getByRole('link', { name: 'Look back' }).click()
  const what = page.getByRole('complementary', { name: 'What follows' })
  await what
    .getByRole('button', { name: /before class on 24 Nov, with …$/ })
    .first()
    .click()
  await page.getByRole('menuitem').first().click()
  const booked = what.getByText(/^24 Nov, 10 min before class with/)
  await expect(booked).toBeVisible()
  const words = /before class with ([^:]+): (\S+)/.exec((await booked.textContent())!)!
  await expectAccessible(page, 'Made up before class')

  // It stands in the lesson it comes before, and a reload later.
  await page.goto(page.url().replace('2026-11-17/back', '2026-11-24'))
  const before = page.getByRole('region', { name: 'Before class' })
  await expect(before).toContainText(`18:20 ${words[1]} with ${words[2]}`)
  await page.reload()
  await before.getByRole('button', { name: 'Take it back' }).click()
  await expect(before).toHaveCount(0)
})

test('what the school does otherwise from now on is offered as the difference alone', async ({ page }) => {
  await signIn(page, 'head')
  await page.goto('/forms/postures')
  await page.getByRole('link', { name: 'Single Whip', exact: true }).click()
  await page.getByRole('button', { name: 'Edit the posture' }).click()
  await page.getByRole('tab', { name: 'About it' }).click()
  await page.getByRole('button', { name: 'Add a change of the standard' }).click()
  await page.getByLabel('Only the difference').last().fill('the hook hangs a hand lower')
  await page.getByRole('button', { name: 'Save the posture' }).click()
  await expect(page.getByText('the hook hangs a hand lower')).toBeVisible()

  // Who learned it before is counted, and what it takes is known before it is put in.
  await (await evening(page, 'Tuesday 1 December')).getByRole('link').first().click()
  const offer = page
    .getByRole('region', { name: 'To teach again' })
    .getByRole('listitem')
    .filter({ hasText: 'the hook hangs a hand lower' })
  await expect(offer.first()).toContainText(/\d+ of \d+ learned it before\./)
  await offer
    .first()
    .getByRole('button', { name: /^Teach the difference, \d+ min$/ })
    .click()
  await expect(page.getByRole('button', { name: 'Undo z' })).toBeVisible()
  await page.keyboard.press('z')
  await expect(offer.first()).toBeVisible()

  // And back: nobody holds an old way.
  await page.goto('/forms/postures')
  await page.getByRole('link', { name: 'Single Whip', exact: true }).click()
  await page.getByRole('button', { name: 'Edit the posture' }).click()
  await page.getByRole('tab', { name: 'About it' }).click()
  await page
    .getByRole('button', { name: /^Take out \d+ of Done differently/ })
    .last()
    .click()
  await page.getByRole('button', { name: 'Save the posture' }).click()
  await expect(page.getByText('the hook hangs a hand lower')).toHaveCount(0)
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
