import type { Locator } from '@playwright/test'
import { choose, expect, expectAccessible, signIn, test } from './school'

test.describe('the head, from the form to a marked lesson', () => {
  test.beforeEach(({ page }) => signIn(page, 'head'))

  test('Today says what is next and what is left, each leading there', async ({ page }) => {
    await expect(page.getByRole('heading', { name: 'Tuesday 24 November' })).toBeVisible()
    await expect(page.getByText('Week 5 of the winter term')).toBeVisible()
    await expectAccessible(page, 'Today')
    const script = await page.locator('script[src^="/assets/"]').getAttribute('src')
    const sent = await page.request.get(script!)
    expect(sent.headers()['content-encoding'], 'as it lies there, not compressed in haste').toBe('br')
    await page.getByRole('link', { name: /Ivory has .* minutes more/ }).click()
    await expect(page).toHaveURL(/\/term\//)
    await page.goBack()
    await page.getByRole('link', { name: /Imke R. is stuck in Single Whip/ }).click()
    await expect(page.getByRole('complementary').getByText('key point, open, stuck')).toBeVisible()
  })

  test('a position opens beside the floor, and an edit of the form is checked and undone', async ({ page }) => {
    await page.goto('/forms')
    await page
      .getByRole('button', { name: /Single Whip, left/ })
      .first()
      .click()
    await page.getByRole('button', { name: 'Open', exact: true }).click()
    const details = page.getByRole('complementary')
    await expect(
      details.getByText('Key point the left knee opens over the left toes before the palm turns out'),
    ).toBeVisible()
    await expect(details.getByRole('listitem').filter({ hasText: 'turn the right toes in' })).toBeVisible()
    await expect(details.getByText('sit all the way back before the right toes leave their line')).toBeVisible()
    await expect(details.getByRole('heading', { name: 'Cautions' })).toBeVisible()
    await expectAccessible(page, 'Forms')

    await details.getByRole('radio', { name: '7:30', exact: true }).click()
    await expect(page.getByText("A turn of -180° from 3 o'clock leads to 9 o'clock; 7:30 is written.")).toBeVisible()
    await expect(page.getByRole('button', { name: 'Turn 135° instead' })).toBeVisible()
    await page.getByRole('button', { name: "Write 9 o'clock" }).first().click()
    await expect(page.getByText(/disagree/)).toBeHidden()
    // What is being saved is not yet to be undone.
    await expect(page.getByRole('button', { name: 'Undo a mend' })).toBeEnabled()
    await page.keyboard.press('z')
    await expect(page.getByText(/things disagree/)).toBeVisible()
    await expect(page.getByRole('button', { name: /^Undo (?!a mend)/ })).toBeEnabled()
    await page.keyboard.press('z')
    await expect(page.getByText(/disagree/)).toBeHidden()

    await page.keyboard.press('m')
    await expect(page.getByRole('button', { name: /5 Single Whip, right/ })).toBeVisible()
    await expect(details.getByText('turn the left toes in')).toBeVisible()
    await page.getByRole('button', { name: /Undo mirroring/ }).click()
    await expect(page.getByRole('button', { name: /5 Single Whip, left/ })).toBeVisible()
  })

  test('a stale edit is shown with what changed, and nothing is lost silently', async ({ page, context }) => {
    await page.goto('/forms')
    await page.getByRole('button', { name: /2 Raise Hands, right/ }).click()
    await page.getByRole('button', { name: 'Open', exact: true }).click()
    const other = await context.newPage()
    await other.goto('/forms')
    const raise = other.getByRole('button', { name: /2 Raise Hands, right/ })
    await raise.click()
    await expect(raise).toHaveAttribute('aria-pressed', 'true')
    await other.keyboard.press('m')
    await expect(other.getByRole('button', { name: /2 Raise Hands, left/ })).toBeVisible()

    await page.getByRole('button', { name: 'Move down' }).click()
    await expect(page.getByRole('alert')).toContainText(
      'The form was changed in the meantime. Nothing of yours was saved.',
    )
    await expect(page.getByRole('alert')).toContainText('Raise Hands, left now ends')
    await page.getByRole('button', { name: 'Show what is there now' }).click()
    await expect(page.getByRole('button', { name: /2 Raise Hands, left/ })).toBeVisible()
    await expect(other.getByRole('button', { name: /^Undo/ })).toBeEnabled()
    await other.keyboard.press('z')
    await expect(other.getByRole('button', { name: /2 Raise Hands, right/ })).toBeVisible()
  })

  test('a class cannot have its teacher twice, and a way out is offered', async ({ page }) => {
    await page.goto('/people')
    await expect(page.getByText('43 people in 2 classes · 3 halls · 4 staff')).toBeVisible()
    await expectAccessible(page, 'People, classes')
    await page.getByRole('button', { name: 'Change Tuesday morning, seated' }).click()
    await page.getByLabel('Starts at').fill('19:00')
    await expect(page.getByRole('alert')).toContainText(
      'Noor Adeyemi teaches Tuesday evening at that time (18:30 to 20:00).',
    )
    await page.getByRole('button', { name: 'Save the class' }).click()
    await expect(page.getByText('Some of this cannot be kept as it is. Nothing was saved.')).toBeVisible()
    await page.getByRole('button', { name: 'Start at 12:00' }).first().click()
    await expect(
      page.getByText('Noor Adeyemi teaches Tuesday evening at that time (18:30 to 20:00).').first(),
    ).toBeHidden()
    await page.getByRole('button', { name: 'Close' }).click()
  })

  test('a student is added, found and told where something is wrong', async ({ page }) => {
    await page.goto('/people')
    await page.getByRole('tab', { name: 'Roster' }).click()
    await page.getByLabel('Filter the roster').fill('rail')
    await expect(page.getByText('6 of 43')).toBeVisible()
    await expectAccessible(page, 'People, roster')
    await page.getByRole('button', { name: 'Add a student' }).click()
    await page.getByRole('button', { name: 'Add the student' }).click()
    await expect(page.getByRole('alert').first()).toHaveText('Give a name.')
    await page.getByLabel('Given name').fill('Orla')
    await page.getByLabel('Family name').fill('Vane')
    await choose(page.getByLabel('Tuesday evening'), 'Ivory')
    await page.getByRole('button', { name: 'Add the student' }).click()
    await page.getByLabel('Filter the roster').fill('orla')
    await expect(page.getByText('1 of 44')).toBeVisible()
  })

  test('a segment is assigned, the term planned, and the weave tells why', async ({ page }) => {
    await page.goto('/people')
    await page.getByRole('link', { name: 'Assign to Copper' }).click()
    await page.getByRole('button', { name: /Bend the Bow, right/ }).click()
    await page.getByRole('button', { name: /Closing/ }).click()
    await page.getByLabel('All of it met by').fill('2031-01-01')
    await page.getByRole('button', { name: 'Save the assignment' }).click()
    await expect(
      page.getByRole('alert').filter({ hasText: 'The target lies outside Winter term' }).first(),
    ).toBeVisible()
    await page.getByLabel('All of it met by').fill('2026-12-29')
    await expect(page.getByText(/^\d+ new, \d+ min\.$/)).toBeVisible()
    await expectAccessible(page, 'People, assign')
    await page.getByRole('button', { name: 'Save the assignment' }).click()
    await page.getByRole('link', { name: 'Plan the term' }).click()

    await expect(page.getByText('Changed since it was planned')).toBeVisible()
    await page.getByRole('button', { name: 'Plan the term from 24 Nov' }).click()
    await expect(page.getByText('Changed since it was planned')).toBeHidden()
    const weave = page.getByRole('grid', { name: 'Winter term, Tuesday evening' })
    await expect(weave.getByRole('button', { name: /^Closing, Copper, new on/ })).toBeVisible()
    await page.getByRole('button', { name: 'Announce this plan' }).click()
    await expect(page.getByText('only you see it until you announce it')).toBeHidden()
    await weave.getByRole('button', { name: /^Closing, Copper, new on/ }).click()
    const details = page.getByRole('complementary')
    await expect(details.getByText(/After .*, in teaching order\./)).toBeVisible()
    await expect(details.getByText(/min: talk 1\.5; show 2 × 4 counts × 12 s/)).toBeVisible()
    await expectAccessible(page, 'Term')
    await page.keyboard.press('Escape')
    await expect(details).toBeHidden()

    await weave.getByRole('button', { name: /^Opening, Ivory/ }).focus()
    await page.keyboard.press('ArrowRight')
    await expect(weave.getByRole('button', { name: /^Raise Hands, right, Ivory/ })).toBeFocused()
    await page.keyboard.press('Enter')
    await expect(details.getByRole('heading', { name: 'Raise Hands, right' })).toBeVisible()
    await expect(page.getByText('Ivory: Play the Pipa, left')).toBeVisible()
  })

  test('next Tuesday has a sheet, and it prints on one page', async ({ page }) => {
    await page.goto('/lessons')
    await expectAccessible(page, 'Lessons')
    await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
    await expect(page.getByRole('heading', { name: 'Tuesday 1 December' })).toBeVisible()
    const ivory = page.getByRole('row', { name: /^Ivory/ })
    const kindsOf = (row: Locator) =>
      row
        .getByRole('gridcell')
        .evaluateAll((blocks) => blocks.map((block) => block.getAttribute('aria-label')!.split(/[:,]/)[0]))
    expect(await kindsOf(page.getByRole('row', { name: 'Everybody' }))).toEqual(['Warm-up', 'Together', 'Settle'])
    expect(new Set(await kindsOf(ivory))).toEqual(new Set(['Lead-in', 'New', 'Own practice', 'Review']))
    await expect(page.getByText('Not everything can be kept.')).toBeHidden()
    await ivory.getByRole('gridcell', { name: /^New: Press, right, minute/ }).click()
    const block = page.getByRole('region', { name: 'The chosen block' })
    await expect(block).toContainText('Key point the back foot presses and the back hand only joins')
    await expect(block).toContainText('arms round, press')
    await expectAccessible(page, 'Lesson')
    const sheet = await page.pdf({ format: 'A4', printBackground: true, preferCSSPageSize: true })
    expect(sheet.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
    // Each who teaches has a sheet of their own, whoever stands in another one, and they are no longer.
    for (const whose of ['Sheet for Noor', 'Sheet for who stands in for Noor']) {
      await choose(page.getByLabel('Whose sheet is printed'), whose)
      const own = await page.pdf({ format: 'A4', printBackground: true, preferCSSPageSize: true })
      expect(own.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
    }
  })

  test('a block of a lesson is moved a minute, given to somebody else and taken back; the rest follows', async ({
    page,
  }) => {
    await page.goto('/lessons')
    await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
    const press = page.getByRole('gridcell', { name: /^New: Press, right, minute/ })
    const was = (await press.getAttribute('aria-label'))!
    const minute = Number(/minute (\d+)/.exec(was)![1])
    await press.click()
    await page.keyboard.press('Shift+ArrowRight')
    await expect(press).toHaveAccessibleName(new RegExp(`minute ${minute + 1} to .*fixed$`))
    await press.focus()
    // Where it is a minute later, whoever leads it may be somebody else.
    const leader = /, (\w+ \w+) leads/.exec((await press.getAttribute('aria-label'))!)![1]!
    await page.keyboard.press('Shift+ArrowDown')
    await expect(press).not.toHaveAccessibleName(new RegExp(`${leader} leads`))
    await page.reload()
    await expect(press).toHaveAccessibleName(new RegExp(`minute ${minute + 1} to .*fixed$`))
    await page.getByRole('button', { name: 'Undo z' }).click()
    await expect(press).toHaveAccessibleName(new RegExp(`${leader} leads`))
    await page.keyboard.press('z')
    await expect(press).toHaveAccessibleName(was)
    const table = await page.request.get(
      `/api/classes/${page.url().split('/').at(-2)}/lessons/2026-12-01/arrangement.csv`,
    )
    expect((await table.text()).split('\r\n')[1]).toMatch(/^0,10,all,warm-up,/)
  })

  test('a held lesson is marked: attendance, stage, correction in own words, withdrawn again', async ({ page }) => {
    await page.goto('/lessons')
    await page.getByRole('link', { name: 'Register' }).first().click()
    await page.getByRole('tab', { name: 'Fern, newer' }).click()
    const attendance = page.getByRole('button', { name: /^Filippa S.: / })
    const before = (await attendance.textContent())!
    await attendance.click()
    await expect(attendance).toHaveText(before === 'here' ? 'away' : 'here')
    await attendance.click()
    await expect(attendance).toHaveText(before)

    await page.getByRole('button', { name: /^Filippa S., Play the Pipa, left:/ }).click()
    await page.keyboard.press('3')
    await expect(page.getByRole('button', { name: /^Filippa S., Play the Pipa, left: alone/ })).toBeVisible()
    await page.keyboard.press('x')
    await page.getByLabel('In your own words').fill('looks at the floor')
    await choose(page.getByLabel('It is about'), 'finesse')
    await page.getByRole('button', { name: 'Open the correction' }).click()
    await expect(
      page.getByRole('button', { name: /^Filippa S., Play the Pipa, left: alone: correction: finesse/ }),
    ).toBeVisible()
    await expectAccessible(page, 'Mark')
    await page.getByRole('button', { name: 'Undo the last mark' }).click()
    await expect(
      page.getByRole('button', { name: /^Filippa S., Play the Pipa, left: alone(?!.*correction)/ }),
    ).toBeVisible()

    await page.getByRole('button', { name: /^Filippa S., Play the Pipa, left:/ }).focus()
    await page.keyboard.press('ArrowDown')
    await expect(page.getByRole('button', { name: /^Goran V., Play the Pipa, left:/ })).toBeFocused()
  })

  test('progress shows who can do what and the facts behind it', async ({ page }) => {
    await page.goto('/progress')
    await expect(page.getByRole('heading', { name: 'Who can do what' })).toBeVisible()
    await expectAccessible(page, 'Progress')
    await page.getByRole('gridcell', { name: /^Imke R., Single Whip, left/ }).click()
    const details = page.getByRole('complementary')
    await expect(details.getByText(/^Single Whip, left: (alone|flowing)/)).toBeVisible()
    await expect(details.getByText('feet only, slowly, at the wall')).toBeVisible()
    await expectAccessible(page, 'Progress, one student')
    await page.keyboard.press('ArrowDown')
    await expect(page.getByRole('gridcell', { name: /^Jorun A., Single Whip, left/ })).toBeFocused()
    // Only what is in sight is drawn; the keys reach the rest all the same, and come back.
    const last = page.getByRole('gridcell', { name: /^Rosalind F., Hand Circles/ })
    await expect(last).toHaveCount(0)
    await page.keyboard.press('Control+End')
    await expect(last).toBeFocused()
    await expect(last).toBeInViewport({ ratio: 1 })
    await page.mouse.move(500, 500)
    await page.mouse.wheel(-1000, -1000)
    await expect(page.getByRole('gridcell', { name: /^Adaeze O., Opening/ })).toBeInViewport()
    await expect(last).toBeFocused()
    await page.keyboard.press('Home')
    await expect(page.getByRole('rowheader', { name: 'Rosalind F.' })).toBeFocused()
    await page.getByRole('radio', { name: /^Not seen/ }).click()
    await expect(page.getByRole('rowheader', { name: 'Dai Y.' })).toBeVisible()
    await expect(page.getByRole('rowheader', { name: 'Emeka N.' })).toBeHidden()
  })

  test('the next sash: what somebody lacks, dated, and one thing less once it is seen', async ({ page }) => {
    await page.goto('/progress')
    await page.getByRole('link', { name: 'next sash' }).click()
    await expect(page.getByRole('heading', { name: /^Likely by the test of 19 January/ })).toBeVisible()
    await expectAccessible(page, 'Next sash')
    const wilma = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: 'Wilma E.' }) })
    await expect(wilma.getByText(/^For Fern, senior/)).toBeVisible()
    const toBeSeen = (postures: number) =>
      wilma.getByText(new RegExp(`^${postures} postures to be seen alone, likely by`))
    const before = Number.parseInt((await wilma.getByText(/^\d+ postures to be seen alone/).textContent())!)
    await expect(toBeSeen(before)).toBeVisible()
    // Whoever missed the test has everything since.
    await expect(
      page.getByRole('listitem').filter({ has: page.getByRole('link', { name: 'Matteo F.' }) }),
    ).toContainText('Ready: nothing is missing.')
    const away = page.url()
    await page.goto('/lessons')
    await page.getByRole('link', { name: 'Register' }).first().click()
    await page.getByRole('tab', { name: 'Fern, newer' }).click()
    await page.getByRole('button', { name: /^Wilma E., Brush Knee, left:/ }).click()
    await page.keyboard.press('3')
    await expect(page.getByRole('button', { name: /^Wilma E., Brush Knee, left: alone(?!, taken over)/ })).toBeVisible()
    await page.goto(away)
    await expect(toBeSeen(before - 1)).toBeVisible()
    await wilma.getByRole('link', { name: 'Wilma E.' }).click()
    await expect(page.getByRole('complementary').getByRole('heading', { name: 'For Fern, senior' })).toBeVisible()
  })

  test('keys lead everywhere and find anything', async ({ page }) => {
    for (const [key, path] of [
      ['f', '/forms'],
      ['p', '/people'],
      ['t', '/term'],
      ['l', '/lessons'],
      ['o', '/progress'],
      ['s', '/school'],
      ['d', '/'],
    ] as const) {
      await page.keyboard.press('g')
      await page.keyboard.press(key)
      await expect(page).toHaveURL(new RegExp(`${path}$`))
    }
    await page.keyboard.press('/')
    await page.getByRole('combobox', { name: /^Find/ }).fill('cloud')
    await expect(page.getByRole('option', { name: 'Cloud Hands posture' })).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: /Cloud Hands/ })).toBeVisible()
    await page.keyboard.press('?')
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden()
    await page.goto('/school')
    await expectAccessible(page, 'School')
  })
})
