import type { Page } from '@playwright/test'
import { choose, expect, expectAccessible, moveTo, signIn, test } from './school'

/** As an old spreadsheet writes it: semicolons, Western European letters, names the other way round, a column nobody needs. */
const sheet = (sash: string) =>
  Buffer.from(
    [
      'Surname;First name;Level;Member since;Takes part;Shoe size',
      'Núñez;Marisol;Ivory;3.9.2026;;38',
      'Peake;Rowan;Ivory;14.10.2026;;41',
      'Okafor;Chidi;Ivory;14.10.2026;;44',
      `"Lind, von";Ása;${sash};1.2.2025;;39`,
      'Brandt;Ottilie;Fern newer;1.2.2025;;37',
      'Vey;Lorcan;Copper;9.5.2023;;43',
      'Sorel;Maud;Ivory;2.3.2026;seated;',
      'Hale;Edwin;Ivory;2.3.2026;seated;',
      'Strand;Filippa;Fern newer;;;40',
    ].join('\r\n'),
    'latin1',
  )

test.describe('the head, from a spreadsheet to safe lessons', () => {
  test.beforeEach(({ page }) => signIn(page, 'head'))

  const bring = (page: Page, content: Buffer) =>
    page
      .getByLabel('A roster from a spreadsheet (XLSX, ODS, CSV)')
      .setInputFiles({ name: 'members.csv', mimeType: 'text/csv', buffer: content })

  test('from a spreadsheet to lessons that are safe for everybody', async ({ page }) => {
    test.setTimeout(420_000)
    await test.step('a messy roster is looked at, put right, imported, and could be taken back', async () => {
      await page.goto('/people?view=roster')
      await page.getByRole('link', { name: 'Import' }).click()
      await bring(page, sheet('Purple'))
      await expect(page.getByLabel('Meaning of Surname')).toHaveText('family name')
      await expect(page.getByLabel('Meaning of Shoe size')).toHaveText('pass it over')
      await expect(page.getByRole('alert')).toContainText('Line 5, Level: The ladder has no sash Purple.')
      await expect(page.getByRole('button', { name: /^Import/ })).toBeDisabled()
      await expectAccessible(page, 'People, import')
      await page.getByRole('button', { name: /^Leave it out: line 5/ }).click()
      await expect(page.getByRole('heading', { name: '7 added, 1 as it is, 1 left out' })).toBeVisible()
      await page.getByRole('button', { name: /^Take it in again: line 5/ }).click()
      await choose(page.getByLabel('Meaning of the word Purple'), 'Fern')
      await expect(page.getByRole('heading', { name: '8 added, 1 as it is' })).toBeVisible()

      await bring(page, sheet('Fern newer'))
      await expect(page.getByRole('heading', { name: '8 added, 1 as it is' })).toBeVisible()
      await page.getByRole('button', { name: 'Import 8 people' }).click()
      await expect(page.getByRole('status').filter({ hasText: '8 people imported.' })).toBeVisible()
      await page.getByRole('button', { name: 'Take members.csv back' }).click()
      await expect(page.getByText('taken back', { exact: true })).toBeVisible()
      await bring(page, sheet('Fern newer'))
      await page.getByRole('button', { name: 'Import 8 people' }).click()
      await page.getByRole('link', { name: 'See the 8 without a class' }).click()
      await expect(page.getByRole('rowheader', { name: 'Marisol Núñez' })).toBeVisible()
      await expect(page.getByText('8 of 8')).toBeVisible()
    })
    await test.step('a class of several levels and a chair group are built from it', async () => {
      const addClass = async (name: string, start: string, hall: string, staff: string) => {
        await page.getByRole('button', { name: 'Add a class' }).click()
        await page.getByLabel('Name').fill(name)
        await choose(page.getByLabel('Weekday'), 'Thursday')
        await page.getByLabel('Starts at').fill(start)
        await choose(page.getByLabel('Hall'), hall)
        await page.getByRole('checkbox', { name: new RegExp(staff) }).check()
        await page.getByRole('button', { name: 'Add the class' }).click()
        await expect(page.getByRole('heading', { name })).toBeVisible()
      }
      const addCohort = async (meeting: string, made: string, half: string | null, name: string) => {
        await page.getByRole('button', { name: `Add a cohort to ${meeting}` }).click()
        await choose(page.getByLabel('Made from'), made)
        if (half) await choose(page.getByLabel('Half'), `the ${half} half`)
        await page.getByRole('textbox', { name: 'Name' }).fill(name)
        // Whoever has the sash and no class is offered; here everybody is moved by hand.
        if (made.startsWith('the sash')) await page.getByRole('checkbox', { name: /^Takes in/ }).uncheck()
        await page.getByRole('button', { name: 'Add the cohort' }).click()
        await expect(page.getByRole('rowheader', { name })).toBeVisible()
        await page.keyboard.press('Escape')
      }
      const move = async (name: string, to: string) => {
        await page.getByLabel(`Choose ${name}`).check()
        const [schoolClass, cohort] = to.split(': ')
        await moveTo(page, schoolClass!, cohort!)
        await expect(page.getByRole('rowheader', { name })).toBeHidden()
      }
      await page.goto('/people')
      await addClass('Thursday evening', '18:00', 'Chapel Room, 8.2 × 6.4 m', 'Jonas Lindqvist')
      await addCohort('Thursday evening', 'the sash Ivory', null, 'Thursday Ivory')
      await addCohort('Thursday evening', 'the sash Fern', 'newer', 'Thursday Fern')
      await addCohort('Thursday evening', 'the sash Copper', null, 'Thursday Copper')
      await addClass('Thursday chairs', '10:00', 'Quay Day-room, 7.5 × 6 m', 'Tamsin Okoro')
      await addCohort('Thursday chairs', 'people of any sash: an adapted group', null, 'Thursday seats')
      await expectAccessible(page, 'People, four classes')

      await page.goto('/people?view=roster')
      await choose(page.getByLabel('Who', { exact: true }), 'without a class')
      for (const name of ['Marisol Núñez', 'Rowan Peake', 'Chidi Okafor'])
        await page.getByLabel(`Choose ${name}`).check()
      await moveTo(page, 'Thursday evening', 'Thursday Ivory')
      await expect(page.getByText('5 of 5')).toBeVisible()
      await expect(page.getByText('Moving 3 people to Thursday Ivory: done.', { exact: true })).toBeVisible()
      await page.getByRole('button', { name: /^Undo/ }).click()
      await expect(page.getByText('8 of 8')).toBeVisible()
      for (const name of ['Marisol Núñez', 'Rowan Peake', 'Chidi Okafor'])
        await page.getByLabel(`Choose ${name}`).check()
      await moveTo(page, 'Thursday evening', 'Thursday Ivory')
      await expect(page.getByText('5 of 5')).toBeVisible()
      await move('Ása Lind, von', 'Thursday evening: Thursday Fern')
      await move('Ottilie Brandt', 'Thursday evening: Thursday Fern')
      await move('Lorcan Vey', 'Thursday evening: Thursday Copper')
      await move('Maud Sorel', 'Thursday chairs: Thursday seats')
      await move('Edwin Hale', 'Thursday chairs: Thursday seats')
    })
    await test.step('two seated versions are not how this school does it, and are taken out', async () => {
      for (const posture of ['Embrace Tiger', 'Fist under Elbow']) {
        await page.goto('/forms/postures')
        await page.getByRole('link', { name: posture, exact: true }).click()
        await page.getByRole('button', { name: 'Edit the posture' }).click()
        await page.getByRole('tab', { name: 'Adapted versions' }).click()
        await page.getByRole('button', { name: 'Remove the seated version' }).click()
        await page.getByRole('button', { name: 'Save the posture' }).click()
        await expect(page.getByRole('heading', { name: posture })).toBeVisible()
        await expect(page.getByRole('radio', { name: 'Seated' })).toBeHidden()
      }
    })
    await test.step('three sashes and the seated group are given segments, dragged and typed', async () => {
      const open = async (cohort: string) => {
        await page.goto('/people')
        await page.getByRole('link', { name: `Assign to ${cohort}` }).click()
        await expect(page.getByText('Nothing is given yet.')).toBeVisible()
      }
      const save = async () => {
        await page.getByRole('button', { name: 'Save the assignment' }).click()
        await expect(page.getByText('This is what the cohort has.')).toBeVisible()
      }
      const drag = async (from: RegExp, to: RegExp) => {
        await page.getByRole('button', { name: from }).hover()
        await page.mouse.down()
        await page.getByRole('button', { name: to }).hover()
        await page.mouse.up()
      }
      await open('Thursday Ivory')
      await drag(/^1 Opening/, /^4 Ward Off, right/)
      await expect(page.getByRole('button', { name: /1\. Opening to Ward Off, right/ })).toBeVisible()
      await save()

      // Without a mouse: the first end, then the last one.
      await open('Thursday Fern')
      await page.getByRole('button', { name: /^6 Crane Cools Wings/ }).focus()
      await page.keyboard.press('Enter')
      await page.keyboard.press('ArrowRight')
      await page.keyboard.press('ArrowRight')
      await page.keyboard.press('Enter')
      await expect(
        page.getByRole('button', { name: /1\. Crane Cools Wings, left to Play the Pipa, left/ }),
      ).toBeVisible()
      await save()

      await open('Thursday Copper')
      await drag(/^24 Slant Flying/, /^25 Raise Hands, right/)
      await page.getByLabel('Last position').fill('29')
      await page.getByRole('button', { name: 'Mark', exact: true }).click()
      await expect(
        page.getByRole('button', { name: /1\. Slant Flying, right to Fan through the Back, left/ }),
      ).toBeVisible()
      await choose(page.getByLabel('Leave out'), '26 Shoulder Stroke, right')
      await expect(
        page.getByText(/^Shoulder Stroke, right is left out; Brush Knee, left follows Raise Hands, right/),
      ).toBeVisible()
      await save()

      await open('Thursday seats')
      await drag(/^13 Apparent Close/, /^18 Fist under Elbow/)
      await expect(page.getByText('Embrace Tiger, right: no seated version has been written.')).toBeVisible()
      await save()
    })
    await test.step('the two seated versions that are missing are written from the coverage table', async () => {
      await page.goto('/people')
      await page.getByRole('link', { name: 'Coverage of Thursday seats' }).click()
      await expect(page.getByText('6 of 8 postures can be taught seated tonight, 2 need a version.')).toBeVisible()
      await expectAccessible(page, 'People, coverage')
      for (const [written, posture] of ['Embrace Tiger', 'Fist under Elbow'].entries()) {
        // The list is shorter by what has been written before anything in it is pressed.
        await expect(page.getByRole('link', { name: 'Write the seated version' })).toHaveCount(2 - written)
        await page
          .getByRole('listitem')
          .filter({ hasText: posture })
          .getByRole('link', { name: 'Write the seated version' })
          .click()
        await expect(page.getByRole('heading', { name: posture })).toBeVisible()
        await page.getByRole('button', { name: 'Begin one from the standard counts' }).click()
        await page.getByLabel('What replaces the steps').fill('the turn stays in the ribs; the feet stay')
        await page.getByRole('button', { name: 'Save the posture' }).click()
        await expect(page.getByRole('heading', { name: 'Thursday seats: who can do what, and how' })).toBeVisible()
      }
      await expect(page.getByText('8 of 8 postures can be taught seated tonight.')).toBeVisible()
    })
    await test.step('a limit that comes in the middle of the term raises what it touches until each is settled', async () => {
      await page.goto('/term')
      await page.getByRole('radio', { name: 'Thursday evening' }).click()
      await page.getByRole('button', { name: 'Plan the term' }).click()
      await expect(
        page
          .getByRole('grid', { name: 'Winter term, Thursday evening' })
          .getByRole('button', { name: /^Ward Off, left, Thursday Ivory, new on/ }),
      ).toBeVisible()
      await page.getByRole('button', { name: 'Announce this plan' }).click()
      await expect(page.getByText('only you see it')).toBeHidden()

      await page.goto('/people?view=roster')
      await page.getByLabel('Filter the roster').fill('rowan')
      await page.getByRole('button', { name: 'Open Rowan Peake' }).click()
      await page.getByRole('tab', { name: 'Limits' }).click()
      await page.getByRole('button', { name: 'Add a limit' }).click()
      await choose(page.getByLabel('Demand'), 'wide step')
      await expectAccessible(page, 'People, limits')
      await page.getByRole('button', { name: 'Save the limits' }).click()
      await expect(
        page.getByRole('status').filter({ hasText: '2 postures of the coming lessons are now unsafe for Rowan.' }),
      ).toBeVisible()
      await page.getByRole('link', { name: 'Settle how it is done' }).click()

      const open = page
        .getByRole('list', { name: 'To be settled' })
        .getByRole('listitem')
        .filter({ hasText: 'Rowan P.' })
      await expect(open).toHaveCount(2)
      await expectAccessible(page, 'People, to settle')
      await open.first().getByLabel('As the sheet says it').fill('a short step, one hand at the rail')
      await page
        .getByRole('button', { name: /^Settle Rowan P., Ward Off, / })
        .first()
        .click()

      // Both sides of a posture are settled in one go.
      await expect(open).toHaveCount(0)
      await expect(
        page.getByText('Rowan P.: Ward Off, left short-step, a short step, one hand at the rail'),
      ).toBeVisible()
      await page.getByRole('link', { name: 'Who read or changed limits' }).click()
      await expect(page.getByRole('row', { name: /Noor Adeyemi Rowan Peake changed/ })).toBeVisible()
      await expectAccessible(page, 'People, access log')

      await page.goto('/lessons')
      await page.getByRole('link', { name: /^Thursday 10 December, 18:00/ }).click()
      await expect(
        page.getByText('Rowan P.: Ward Off, left short-step, a short step, one hand at the rail.', { exact: true }),
      ).toBeVisible()
      await expect(page.getByText('wide step')).toBeHidden()
    })
  })

  test('the ladder is put into another order once it is known what that does, and back', async ({ page }) => {
    await page.goto('/people?view=ladder')
    await expect(page.getByRole('list', { name: 'Sash ladder' }).getByRole('listitem').first()).toContainText('Slate')
    await expectAccessible(page, 'People, ladder')
    const handle = page.getByRole('button', { name: 'Move Copper' })
    await handle.focus()
    await page.keyboard.press('Space')
    await expect(handle).toHaveAttribute('aria-pressed', 'true')
    await page.keyboard.press('ArrowDown')
    // Over another than itself.
    await expect(page.getByText(/item (\S+) was moved over droppable area (?!\1)/)).toBeAttached()
    await page.keyboard.press('Space')
    await expect(page.getByText(/at Fern would work towards Garnet next, not Copper\./)).toBeVisible()
    await page.getByRole('button', { name: 'Cancel' }).click()
    await expect(page.getByText(/would work towards/)).toBeHidden()

    await page.getByRole('button', { name: 'Change Ivory' }).click()
    await page.getByLabel('Weeks at least').fill('14')
    await expect(
      page.getByText('The level would take at least 14 weeks and 10 lessons instead of 12 and 10.'),
    ).toBeVisible()
    await page.getByRole('button', { name: 'Save the sash' }).click()
    await expect(page.getByText(/at least 14 weeks/)).toBeVisible()
    await page.getByRole('button', { name: 'Change Slate' }).click()
    await page.getByRole('button', { name: 'Change Garnet' }).click()
    await page.getByRole('button', { name: 'Take Garnet off the ladder' }).click()
    await expect(page.getByRole('alert')).toContainText('Garnet is in use and stays.')
    await page.goto('/people?view=halls')
    await expectAccessible(page, 'People, halls')
  })
})

test('an assistant sees the mode and the caution, and no limit anywhere', async ({ page }) => {
  await signIn(page, 'assistant')
  await page.goto('/people?view=roster')
  await page.getByLabel('Filter the roster').fill('yusuf')
  await page.getByRole('button', { name: 'Open Yusuf Demirel' }).click()
  await expect(page.getByRole('complementary').getByText('Usual mode')).toBeVisible()
  await expect(page.getByRole('tab', { name: 'Limits' })).toBeHidden()
  await page.goto('/people')
  await page.getByRole('link', { name: 'Coverage of Fern, senior' }).click()
  await page.getByRole('button', { name: 'Yusuf D., Step Back, left: no-step' }).click()
  await expect(
    page.getByRole('complementary').getByRole('heading', { name: 'Yusuf D.: Step Back, left' }),
  ).toBeVisible()
  await expect(page.getByText(/Ruled out/)).toBeHidden()
  await expect(
    page
      .getByText('Somebody who can help', { exact: false })
      .or(page.getByText('Never hold or force the breath', { exact: false }))
      .first(),
  ).toBeVisible()
})

test('beside an open panel the words of the roster keep to their columns', async ({ page }) => {
  await signIn(page, 'head')
  await page.goto('/people?view=roster')
  await page.getByRole('button', { name: 'Open Bernd Hollerbach' }).click()
  await expect(page.getByRole('heading', { name: 'Bernd Hollerbach' })).toBeVisible()
  const wider = await page
    .getByRole('row')
    .locator('th, td')
    .evaluateAll((cells) =>
      cells.filter((cell) => cell.scrollWidth > cell.clientWidth + 1).map((cell) => cell.textContent),
    )
  expect(wider).toEqual([])
})
