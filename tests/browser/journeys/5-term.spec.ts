import { choose, expect, expectAccessible, signIn, test } from './school'
import type { Locator, Page } from '@playwright/test'

/** Takes a chip up with the mouse and brings it over the column of a lesson. */
async function dragTo(page: Page, chip: Locator, column: Locator) {
  await chip.scrollIntoViewIfNeeded()
  const [from, to] = [(await chip.boundingBox())!, (await column.boundingBox())!]
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
  await page.mouse.down()
  await page.mouse.move(from.x + from.width / 2 + 12, from.y + from.height / 2, { steps: 4 })
  await page.mouse.move(to.x + to.width / 2, from.y + from.height / 2, { steps: 8 })
}

const weaveOf = (page: Page) => page.getByRole('grid', { name: 'Winter term, Tuesday evening' })
const shoulderStroke = (page: Page, date: string) =>
  weaveOf(page).getByRole('button', { name: new RegExp(`^Shoulder Stroke, right, Fern, senior, new on ${date}`) })
const lesson = (page: Page, name: RegExp) => weaveOf(page).getByRole('button', { name })

async function openTerm(page: Page) {
  await signIn(page, 'head')
  await page.goto('/term')
  await expect(weaveOf(page)).toBeVisible()
}

test.describe('planning the term', () => {
  test('a chip is dragged, the lessons say what they cost, and the step is undone', async ({ page }) => {
    await openTerm(page)
    await dragTo(page, shoulderStroke(page, '29 December'), lesson(page, /^Lesson 8, Tuesday 22 December$/))
    await expect(weaveOf(page).getByText('fits').first()).toBeVisible()
    await expect(weaveOf(page).getByText('a test', { exact: true })).toBeVisible()
    await expect(weaveOf(page).getByText('closed', { exact: true })).toBeVisible()
    await page.mouse.up()
    await expect(shoulderStroke(page, '22 December')).toBeVisible()
    await expect(page.getByText('Shoulder Stroke, right fixed on 22 December.')).toBeVisible()
    const changes = page.getByRole('region', { name: 'What changes for Fern, senior' })
    await expect(changes.getByText('from 29 Dec to 22 Dec')).toBeVisible()
    await expect(changes.getByText('all met by 22 Dec instead of 29 Dec')).toBeVisible()
    await expectAccessible(page, 'Term, a draft')
    await page.getByRole('radio', { name: 'Announced, plan' }).click()
    await expect(shoulderStroke(page, '29 December')).toBeVisible()
    await page.getByRole('radio', { name: 'Draft', exact: true }).click()
    await expect(shoulderStroke(page, '22 December')).toBeVisible()
    await page.keyboard.press('z')
    await expect(shoulderStroke(page, '29 December')).toBeVisible()
    await expect(page.getByText('Taken back: Shoulder Stroke, right fixed on 22 December.')).toBeVisible()
    await expectAccessible(page, 'Term, a step taken back')
    await page.keyboard.press('Shift+Z')
    await expect(shoulderStroke(page, '22 December')).toBeVisible()
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(shoulderStroke(page, '29 December')).toBeVisible()
  })

  test('by keyboard a chip is taken up, put down, let go and announced', async ({ page }) => {
    await openTerm(page)
    await shoulderStroke(page, '29 December').focus()
    await page.keyboard.press('Shift+ArrowLeft')
    await expect(page.getByText('Lesson 8, Tuesday 22 December: fits. Enter puts it there')).toBeAttached()
    await page.keyboard.press('Escape')
    await expect(page.getByText('Enter puts it there')).not.toBeAttached()
    await page.keyboard.press('Shift+ArrowLeft')
    await expect(page.getByText('Lesson 8, Tuesday 22 December: fits.')).toBeAttached()
    await page.keyboard.press('Enter')
    const there = weaveOf(page).getByRole('button', {
      name: /^Shoulder Stroke, right, Fern, senior, new on 22 December, fixed, announced for 29 December/,
    })
    await expect(there).toBeFocused()
    await page.keyboard.press('p')
    await expect(page.getByText('Shoulder Stroke, right let go.')).toBeVisible()
    await page.keyboard.press('z')
    await expect(there).toBeVisible()
    await page.getByRole('button', { name: 'Announce this plan' }).press('Enter')
    await expect(page.getByText('only you see it until you announce it')).toBeHidden()
    await expect(shoulderStroke(page, '22 December')).toBeVisible()
    await page.getByRole('button', { name: 'Earlier plans' }).click()
    const panel = page.getByRole('complementary')
    await expect(panel.getByText('in force', { exact: true })).toBeVisible()
    await expect(panel.getByText('1 thing moved').first()).toBeVisible()
    await panel
      .getByRole('button', { name: /^Plan \d+$/ })
      .nth(1)
      .click()
    await expect(page.getByText(/Plan \d+, as it was announced\./)).toBeVisible()
    await page.getByRole('button', { name: 'Back to now' }).click()
    await page.getByRole('button', { name: 'Earlier plans' }).click()
    await choose(panel.getByLabel('Beside'), 'plan 1')
    await panel.getByRole('button', { name: 'Plan 2' }).click()
    await expect(page.getByText(/Plan 2, as it was announced\. .* against plan 1\./)).toBeVisible()
    await expect(shoulderStroke(page, '29 December')).toBeVisible()
    await page.getByRole('button', { name: 'Back to now' }).click()
    await expect(shoulderStroke(page, '22 December')).toBeVisible()
  })

  test('what cannot be is refused in words', async ({ page }) => {
    await openTerm(page)
    const push = weaveOf(page).getByRole('button', { name: /^Push, right, Ivory, new on/ })
    await push.focus()
    for (let step = 0; step < 6; step++) await page.keyboard.press('Shift+ArrowRight')
    await expect(page.getByText('Lesson 12, Tuesday 19 January: a test.')).toBeAttached()
    await page.keyboard.press('Enter')
    await expect(
      page.getByRole('alert').getByText('Push, right of Ivory cannot be on 19 January. 19 January is a test.'),
    ).toBeVisible()
    await page.getByRole('button', { name: /^Undo/ }).click()
    await expect(page.getByText('cannot be on 19 January')).toBeHidden()
  })

  test('what would make it fit is planned, shown and left, and then taken', async ({ page }) => {
    await openTerm(page)
    await page.getByRole('button', { name: 'What would make it fit?' }).click()
    const panel = page.getByRole('complementary')
    const more = panel.getByRole('listitem').filter({ hasText: /^One more lesson, on / })
    await expect(more).toBeVisible()
    const [says, day] = /^One more lesson, on (\w+ \d+ [A-Z][a-z]+)/.exec(await more.innerText())!
    const added = lesson(page, new RegExp(`^Lesson \\d+, ${day}$`))
    await expect(panel.getByRole('heading', { name: 'Would not help' })).toBeVisible()
    await expectAccessible(page, 'What would make it fit')
    await more.getByRole('button', { name: 'Show the plan it leads to' }).click()
    await expect(page.getByText(`${says}: this is the plan it leads to.`)).toBeVisible()
    await expect(weaveOf(page).getByRole('columnheader')).toHaveCount(15)
    await page.getByRole('button', { name: 'Cancel' }).click()
    await expect(weaveOf(page).getByRole('columnheader')).toHaveCount(14)
    await page.getByRole('button', { name: 'What would make it fit?' }).click()
    await more.getByRole('button', { name: 'Show the plan it leads to' }).click()
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.getByText(`${says}.`)).toBeVisible()
    await added.click()
    await page.getByRole('button', { name: 'Take this lesson out' }).click()
    await expect(added).toBeHidden()
  })

  test('a closure in mid-term is planned around, and one cohort kept out of it', async ({ page }) => {
    await openTerm(page)
    await lesson(page, /^Lesson 7, Tuesday 8 December/).click()
    await page.getByRole('radio', { name: 'No, this class does not meet' }).click()
    await page.getByLabel('Why').fill('Noor is away')
    await expectAccessible(page, 'A lesson of the term')
    await page.getByRole('button', { name: 'Save and plan around it' }).click()
    await expect(weaveOf(page).getByText('Noor is away')).toBeVisible()
    await expect(page.getByText(/8 December is closed: Noor is away\./).first()).toBeVisible()
    const copper = page.getByRole('region', { name: 'What changes for Copper' })
    await copper.getByRole('button', { name: 'Keep Copper as announced' }).click()
    await expect(page.getByText('Copper kept as announced.')).toBeVisible()
    await lesson(page, /^No lesson, Tuesday 8 December/).click()
    await page.getByRole('radio', { name: 'Yes' }).click()
    await page.getByLabel('Held on').fill('2026-12-22')
    await page.getByRole('button', { name: 'Save and plan around it' }).click()
    await expect(
      page.getByRole('alert').filter({ hasText: 'Tuesday evening has a lesson on 22 December already.' }).first(),
    ).toBeVisible()
    await page.getByLabel('Held on').fill('2026-12-08')
    await page.getByRole('button', { name: 'Save and plan around it' }).click()
    await expect(lesson(page, /^Lesson 7, Tuesday 8 December/)).toBeVisible()
  })

  test('what was really taught, and how long it took, is planned on from', async ({ page }) => {
    await openTerm(page)
    await page.goto('/lessons')
    await page.getByRole('link', { name: 'Register' }).first().click()
    await page.getByRole('tab', { name: 'Fern, senior' }).click()
    // The minutes of the cohort before it must not be written in their place.
    await expect(page.getByRole('grid', { name: 'Register of Fern, senior' })).toBeVisible()
    const minutes = page.getByLabel(/^Minutes for/).first()
    await minutes.fill('25')
    await Promise.all([
      page.waitForResponse((response) => response.url().endsWith('/taught') && response.ok()),
      minutes.blur(),
    ])
    await page.reload()
    await page.getByRole('tab', { name: 'Fern, senior' }).click()
    await expect(page.getByLabel(/^Minutes for/).first()).toHaveValue('25')
    await page.goto('/term')
    await expect(page.getByText('Changed since it was planned')).toBeVisible()
    await page.getByRole('button', { name: /^Plan the term from/ }).click()
    await expect(page.getByText('Planned.')).toBeVisible()
    await weaveOf(page)
      .getByRole('button', { name: /, Fern, senior, new on/ })
      .first()
      .click()
    await expect(page.getByRole('complementary').getByText(/the cohort's pace 1\.\d/)).toBeVisible()
    await page.getByRole('button', { name: 'Announce this plan' }).click()
    await expect(page.getByText('Changed since it was planned')).toBeHidden()
  })

  test('the plan is taken away: on paper, in a calendar, as a table', async ({ page }) => {
    await openTerm(page)
    await page.getByRole('button', { name: 'Print and take away' }).click()
    const panel = page.getByRole('complementary')
    await page.evaluate(() => {
      window.print = () =>
        document.body.setAttribute(
          'data-printed',
          (document.body.getAttribute('data-printed') ?? '') + document.querySelector('.print-alone')!.textContent,
        )
    })
    await panel.getByRole('button', { name: 'The term for the wall' }).click()
    await panel.getByRole('button', { name: 'A list for each cohort' }).click()
    const printed = await page.locator('body').getAttribute('data-printed')
    expect(printed).toContain('New in bold')
    expect(printed).toContain('Stop at pain')
    await panel.getByRole('button', { name: 'Address for Tuesday evening' }).click()
    const address = await panel.getByLabel('Tuesday evening', { exact: true }).inputValue()
    const feed = await page.request.get(address)
    expect(feed.headers()['content-type']).toContain('text/calendar')
    const events = (await feed.text()).split('BEGIN:VEVENT').slice(1)
    expect(events.length).toBeGreaterThan(12)
    for (const event of events)
      for (const property of ['UID', 'SEQUENCE', 'DTSTART', 'DTEND', 'STATUS'])
        expect(event).toMatch(new RegExp(`^${property}[:;]`, 'm'))
    const [table] = await Promise.all([
      page.waitForEvent('download'),
      panel.getByRole('link', { name: 'Save the plan as CSV' }).click(),
    ])
    expect(table.suggestedFilename()).toMatch(/^Tuesday evening, plan \d+\.csv$/)
    await expectAccessible(page, 'Print and take away')
  })

  test('all classes of the week stand below one another, and the whole term fits the width', async ({ page }) => {
    await openTerm(page)
    await page.getByRole('radio', { name: 'All', exact: true }).click()
    await expect(page.getByRole('grid').nth(1)).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Tuesday morning, seated' })).toBeVisible()
    await page.getByRole('button', { name: 'Whole term at once' }).first().click()
    await expect(page.getByRole('button', { name: 'Whole term at once' })).toHaveCount(0)
    const weave = page.getByRole('grid').first()
    expect(await weave.evaluate((element) => element.scrollWidth <= element.clientWidth)).toBe(true)
  })

  test('the next term is added under School, with what is wrong said at its field', async ({ page }) => {
    await openTerm(page)
    await page.goto('/school?view=terms')
    await page.getByRole('button', { name: 'Add a term' }).click()
    await page.getByLabel('Name').fill('Spring term')
    await page.getByLabel('First day').fill('2027-01-12')
    await page.getByRole('button', { name: 'Add closed days' }).click()
    await page.getByRole('group', { name: 'The whole school is closed' }).getByLabel('Day').fill('2028-03-02')
    await page.getByLabel('Why').fill('Harbour day')
    await page.getByRole('button', { name: 'Add the term' }).click()
    await expect(page.getByText('Winter term runs from 2026-10-21 to 2027-01-19.')).toBeVisible()
    await expect(page.getByText('2028-03-02 is outside the term.')).toBeVisible()
    await expectAccessible(page, 'A term')
    await page.getByLabel('First day').fill('2027-01-27')
    await page.getByRole('group', { name: 'The whole school is closed' }).getByLabel('Day').fill('2027-03-02')
    await page.getByRole('button', { name: 'Add the term' }).click()
    await expect(page.getByRole('button', { name: 'Spring term' }).first()).toBeVisible()
    await expect(page.getByText(/Harbour day on 2 March/)).toBeVisible()
  })

  test('a lesson nobody teaches holds nothing new, and everybody is told why', async ({ page }) => {
    await openTerm(page)
    const withAll = async (answer: string) => {
      await lesson(page, /^Lesson 8, Tuesday 22 December/).click()
      for (const who of ['Noor Adeyemi', 'Jonas Lindqvist', 'Odile Marchetti'])
        await choose(page.getByLabel(who), answer)
      await page.getByRole('button', { name: 'Save and plan around it' }).click()
      await expect(page.getByRole('button', { name: 'Save and plan around it' })).toBeHidden()
    }
    await withAll('is away, nobody instead')
    await expect(page.getByText('Nobody teaches on 22 December.').first()).toBeVisible()
    await expect(page.getByText('Changed since it was planned')).toBeHidden()
    await expect(weaveOf(page).getByText('0 of 0')).toBeVisible()
    await withAll('is there')
    await expect(page.getByText('Nobody teaches on 22 December.')).toHaveCount(0)
  })

  test('the way up the ladder, at this pace and with a lesson more a week', async ({ page }) => {
    await openTerm(page)
    await page.getByRole('link', { name: 'The years ahead' }).click()
    await expect(page.getByRole('heading', { name: 'The way to Slate' })).toBeVisible()
    const says = await page.getByText(/^Whoever begins at Ivory today stands at Slate in/).innerText()
    const [slow, quick] = [...says.matchAll(/in (\w+ \d{4})/g)].map(([, month]) => Date.parse(`1 ${month}`))
    expect(quick).toBeLessThan(slow!)
    await expect(page.getByRole('row', { name: /^Garnet.*from .* to .*, \d+ lessons, decided by/ })).toBeVisible()
    await expectAccessible(page, 'The years ahead')
  })

  test('what a posture takes each cohort is added up on its own page', async ({ page }) => {
    await openTerm(page)
    await page.goto('/forms/postures')
    await page
      .getByRole('link', { name: /^Cloud Hands/ })
      .first()
      .click()
    await page.getByText('What it takes each cohort').click()
    await expect(
      page.getByRole('row', { name: /^Chair group 6\.3 2\.4 6\.3 min: talk 1\.5; weight 1 × 4 counts × 12 s/ }),
    ).toBeVisible()
  })

  test('a visitor for a few lessons is told what they learn', async ({ page }) => {
    await openTerm(page)
    await page.getByRole('link', { name: 'A visitor for a few lessons' }).click()
    await page.getByLabel('Lessons').fill('0')
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByText('Lesson 1')).toBeHidden()
    await page.getByLabel('Lessons').fill('4')
    await choose(page.getByLabel('Knows already'), 'all of Ivory')
    await page.getByRole('button', { name: 'Work it out' }).click()
    await expect(page.getByRole('heading', { name: 'Lesson 4' })).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Left out' })).toBeVisible()
    await expectAccessible(page, 'A short stay')
  })

  test('the school’s own way of teaching is written down and used', async ({ page }) => {
    await openTerm(page)
    await page.goto('/school?view=teaching')
    await page.getByRole('button', { name: 'Add a pattern' }).click()
    await page.getByLabel('Name').fill('Twice together')
    await page.getByLabel('Called').first().fill('together')
    await page.getByLabel('Times').fill('0')
    await page.getByRole('button', { name: 'Save how we teach' }).click()
    await page.getByLabel('Times').fill('2')
    await expectAccessible(page, 'How we teach')
    await page.getByRole('button', { name: 'Save how we teach' }).click()
    await expect(
      page.getByText(/^Six counts, difficulty 2: 3\.1 min: talk 1\.5; together 2 × 6 counts × 6 s/),
    ).toBeVisible()

    const warmUp = page.getByRole('group', { name: /^The warm-up/ })
    await warmUp.getByRole('button', { name: 'Add a piece' }).click()
    await warmUp.getByLabel('Called').last().fill('standing quietly')
    await expect(page.getByText('11 of 10 minutes.')).toBeVisible()
    await page.getByRole('button', { name: 'Save how we teach' }).click()
    await expect(page.getByText('A warm-up takes 10 minutes; its pieces come to 11.')).toBeVisible()
    await warmUp.getByLabel('Minutes').nth(4).fill('2')
    await page.getByRole('button', { name: 'Save how we teach' }).click()
    // Nothing is left to be cancelled: it is saved.
    await expect(page.getByRole('button', { name: 'Cancel' })).toBeHidden()
    await page.goto('/lessons')
    await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
    await page.getByRole('gridcell', { name: /^Warm-up: .*; standing quietly, everybody/ }).click()
    await expect(page.getByRole('list', { name: 'Pieces of the warm-up' })).toContainText('standing quietly')
  })
})
