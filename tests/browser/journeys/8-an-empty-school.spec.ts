import { choose, enter, expect, expectAccessible, password, signIn, test } from './school'
import { pick, press, reach, write } from './keys'

const { ZEITPLAN_EMPTY_BASE: empty, ZEITPLAN_ALONE_BASE: alone } = process.env

test.describe.serial('the demo school alone', () => {
  test.use({ baseURL: alone })

  test('has our own school begun beside it, is looked at, and taken away', async ({ page }) => {
    await signIn(page, 'head')
    await page.getByRole('link', { name: 'Begin our own school' }).click()
    await page.getByLabel('Your name').fill('Runa Falk')
    await page.getByLabel('Email to sign in with').fill('runa@boathouse.example')
    await page.getByLabel('Password, 12 characters or more').fill('short')
    await page.getByRole('button', { name: 'Begin', exact: true }).click()
    await expect(page.getByText(/at least 12 characters/)).toBeVisible()
    await expectAccessible(page, 'Begin our own school')
    await page.getByLabel('Password, 12 characters or more').fill('lanterns over the quay')
    await page.getByRole('button', { name: 'Begin', exact: true }).click()
    // Its head is in, and the password she chose is her own already.
    await expect(page.getByRole('link', { name: 'Do this next: Name and place' })).toBeVisible()
    await expect(page.getByRole('link', { name: 'Do this: Your own password' })).toBeHidden()

    await page.goto('/school?view=school')
    const [demo] = await Promise.all([
      page.waitForEvent('popup'),
      page.getByRole('link', { name: 'Look at it in another window' }).click(),
    ])
    await demo.getByLabel('Email').fill('instructor@heronquay.example')
    await demo.getByLabel('Password').fill(password)
    await demo.getByRole('button', { name: 'Sign in', exact: true }).click()
    await expect(demo.getByRole('link', { name: 'Tuesday evening', exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Take it away' }).click()
    await page.getByRole('alertdialog').getByRole('button', { name: 'Take it away' }).click()
    await expect(page.getByRole('link', { name: 'Look at it in another window' })).toBeHidden()
    await demo.reload()
    await expect(demo.getByText('A school that has no name yet')).toBeVisible()
  })

  test('our own school is moved into by keys alone', async ({ page }) => {
    test.setTimeout(300_000)
    await page.goto('/')
    await write(page, page.getByLabel('Email'), 'runa@boathouse.example')
    await write(page, page.getByLabel('Password'), 'lanterns over the quay')
    await page.keyboard.press('Enter')
    const next = (step: string) =>
      page
        .getByRole('navigation', { name: 'Moving in' })
        .getByRole('link', { name: step, exact: true })
        .or(page.getByRole('link', { name: `Do this next: ${step}` }))

    await press(page, next('Name and place'))
    await write(page, page.getByLabel('Name of the school'), 'Boat House Tai Chi')
    await page.keyboard.press('Enter')
    await press(page, next('Halls'))
    await press(page, page.getByRole('button', { name: 'Add the first hall' }))
    await write(page, page.getByLabel('Name'), 'Boat Hall')
    await page.keyboard.press('Enter')
    await press(page, next('The sash ladder'))
    await press(page, page.getByRole('button', { name: /^Three steps/ }))
    await press(page, next('Forms'))
    await press(page, page.getByRole('button', { name: 'Take over the starter catalogue' }))
    await press(page, next('Students'))
    await press(page, page.getByRole('button', { name: 'Add the first student' }))
    // A paper list is written from top to bottom, and what is the same for the next one stays.
    for (const [at, given] of ['Imke', 'Goran', 'Tamsin'].entries()) {
      await write(page, page.getByLabel('Given name'), given)
      await write(page, page.getByLabel('Family name'), 'Rademaker')
      if (at === 0) await pick(page, page.getByRole('combobox', { name: 'Sash', exact: true }).last(), 'Middle sash')
      await press(page, page.getByRole('button', { name: at < 2 ? 'Add, and write the next' : 'Add the student' }))
      await expect(page.getByRole('rowheader', { name: `${given} Rademaker` })).toBeVisible()
    }
    await expect(page.getByRole('row', { name: /Tamsin Rademaker/ })).toContainText('Middle sash')

    await press(page, next('Classes and cohorts'))
    await press(page, page.getByRole('button', { name: 'Add the first class' }))
    await write(page, page.getByLabel('Name'), 'Tuesday evening')
    await press(page, page.getByRole('checkbox', { name: /Runa Falk/ }), 'Space')
    await press(page, page.getByRole('button', { name: 'Add the class' }))
    await press(page, page.getByRole('button', { name: 'Add the first cohort' }))
    await pick(page, page.getByRole('combobox', { name: 'Made from' }), 'the sash Middle sash')
    // Who has this sash and no class comes along, after it was said who.
    await expect(page.getByRole('checkbox', { name: /^Takes in the 3 people at Middle sash/ })).toBeChecked()
    await press(page, page.getByRole('button', { name: 'Add the cohort' }))
    await expect(page.getByRole('rowheader', { name: 'Middle sash' })).toBeVisible()

    await press(page, next('What people already know'))
    await press(page, page.getByRole('button', { name: 'That is right for everybody' }))
    await press(page, next('The term'))
    await press(page, page.getByRole('button', { name: 'Add the first term' }))
    await write(page, page.getByLabel('Name'), 'Autumn term')
    await write(page, page.getByLabel('First day'), '3 November 2026')
    await write(page, page.getByLabel('Last day'), '26 January 2027')
    await press(page, page.getByRole('button', { name: 'Add the term' }))
    await press(page, next('Who learns what'))
    await expect(page.getByRole('heading', { name: 'Assign to Middle sash' })).toBeVisible()
    await reach(page, page.locator('[data-grid][tabindex="0"]').first())
    for (const key of ['Enter', 'ArrowRight', 'ArrowRight', 'Enter']) await page.keyboard.press(key)
    await press(page, page.getByRole('button', { name: 'Save the assignment' }))
    await press(page, next('The plan'))
    await press(page, page.getByRole('button', { name: 'Plan it now' }))
    await press(page, page.getByRole('button', { name: 'Announce this plan' }))
    await expect(page.getByRole('navigation', { name: 'Moving in' })).toContainText('You have moved in')
  })
})

/** One evening, from nothing to a marked lesson: every page leads on to the next step, and nothing but the page is needed. */
test.describe('an empty school', () => {
  test.use({ baseURL: empty })

  test('is moved into within one evening', async ({ page }) => {
    test.setTimeout(300_000)
    await enter(page, 'head@school.example')
    await test.step('every room says what is missing and leads there', async () => {
      for (const [path, link, leadsTo] of [
        ['/', 'Do this next: Name and place', '/school?view=school'],
        ['/term', 'Add the first term', '/school?view=terms'],
        ['/term/short-stay', 'Write or bring one', '/forms'],
        ['/progress', 'Add the first class', '/people'],
        ['/lessons', 'See the terms', '/school?view=terms'],
        ['/people', 'Add a hall', '/people?view=halls'],
        ['/people?view=roster', 'Import a spreadsheet', '/people?view=import'],
      ] as const) {
        await page.goto(path)
        await expect(page.getByRole('link', { name: link })).toHaveAttribute('href', leadsTo)
      }
    })
    const next = page.getByRole('navigation', { name: 'Moving in' })
    await test.step('a name, a place and a password of one’s own', async () => {
      await page.goto('/')
      await expectAccessible(page, 'Moving in')
      await page.getByRole('link', { name: 'Do this next: Name and place' }).click()
      await expect(page.getByText(/what the computer you sit at is set to/)).toBeVisible()
      await page.getByLabel('Name of the school').fill('Boat House Tai Chi')
      await page.getByRole('button', { name: 'Save the school' }).click()
      await expect(page.getByRole('heading', { level: 1, name: 'Boat House Tai Chi' })).toBeVisible()
      await expectAccessible(page, 'Name and place')
      await next.getByRole('link', { name: 'Your own password' }).click()
      await page.getByLabel('The password you have now').fill(password)
      await page.getByLabel('The new one, 12 characters or more').fill('lanterns over the quay')
      await page.getByLabel('The new one again').fill('lanterns over the quay')
      await page.getByRole('button', { name: 'Change the password' }).click()
      await expect(next.getByRole('link', { name: 'Halls' })).toBeVisible()
      await expectAccessible(page, 'Your sign-in')
    })
    await test.step('a term', async () => {
      await page.goto('/moving-in')
      await page.getByRole('link', { name: 'Do this: The term' }).click()
      await page.getByRole('button', { name: 'Add the first term' }).click()
      await page.getByLabel('Name').fill('Autumn term')
      await page.getByLabel('First day').fill('3 November 2026')
      await page.getByLabel('Last day').fill('26 January 2027')
      await page.getByRole('button', { name: 'Add the term' }).click()
      await expect(page.getByText('· running now')).toBeVisible()
    })
    await test.step('the starter catalogue', async () => {
      await page.goto('/forms')
      await page.getByRole('button', { name: 'Take over the starter catalogue' }).click()
      await expect(page.getByRole('heading', { level: 1, name: /Form$/ })).toBeVisible()
      await expectAccessible(page, 'the first form')
    })
    await test.step('a hall, a sash, a class and its cohort', async () => {
      await page.goto('/people')
      await page.getByRole('link', { name: 'Add a hall' }).click()
      await page.getByRole('button', { name: 'Add the first hall' }).click()
      await page.getByLabel('Name').fill('Boat Hall')
      await page.getByRole('button', { name: 'Add the hall' }).click()
      await expect(page.getByText('Boat Hall')).toBeVisible()

      await page.getByRole('tab', { name: 'Ladder' }).click()
      await page.getByRole('button', { name: 'Add the first sash' }).click()
      await page.getByLabel('Name', { exact: true }).fill('Ivory')
      await page.getByRole('button', { name: 'Add the sash' }).click()
      await expect(page.getByRole('list', { name: 'Sash ladder' })).toContainText('Ivory')

      await page.getByRole('tab', { name: 'Classes' }).click()
      await page.getByRole('button', { name: 'Add the first class' }).click()
      await page.getByLabel('Name').fill('Tuesday evening')
      await page.getByRole('checkbox', { name: /Head of school/ }).check()
      await page.getByRole('button', { name: 'Add the class' }).click()
      await page.getByRole('button', { name: 'Add the first cohort' }).click()
      await page.getByRole('button', { name: 'Add the cohort' }).click()
      await expect(page.getByRole('rowheader', { name: 'Ivory' })).toBeVisible()
    })
    await test.step('two students', async () => {
      await page.getByRole('tab', { name: 'Roster' }).click()
      for (const [given, family] of [
        ['Imke', 'Rademaker'],
        ['Goran', 'Vidal'],
      ] as const) {
        await page
          .getByRole('button', { name: /^Add (a|the first) student$/ })
          .first()
          .click()
        await expect(page.getByRole('heading', { name: 'New student' })).toBeVisible()
        await page.getByLabel('Given name').fill(given)
        await page.getByLabel('Family name').fill(family)
        await choose(page.getByRole('combobox', { name: 'Tuesday evening' }), 'Ivory')
        await page.getByRole('button', { name: 'Add the student' }).click()
        await expect(page.getByRole('rowheader', { name: `${given} ${family}` })).toBeVisible()
      }
    })
    await test.step('a segment, and a plan', async () => {
      await page.goto('/term')
      await page.getByRole('link', { name: 'Assign to Ivory' }).click()
      const strip = page.locator('[data-grid]')
      await strip.first().focus()
      await page.keyboard.press('Enter')
      await page.keyboard.press('ArrowRight')
      await page.keyboard.press('ArrowRight')
      await page.keyboard.press('Enter')
      await page.getByRole('button', { name: 'Save the assignment' }).click()
      await page.getByRole('link', { name: 'Plan the term' }).click()
      await page.getByRole('button', { name: 'Plan it now' }).click()
      await expect(page.getByRole('button', { name: 'Announce this plan' })).toBeVisible()
      await page.getByRole('button', { name: 'Announce this plan' }).click()
      await expect(page.getByRole('button', { name: /^Plan the term from/ })).toBeVisible()
    })
    await test.step('what people already know, which here is nothing, and the way in is put away', async () => {
      await expect(next).toContainText('You have moved in')
      await page.goto('/progress/taken-over')
      await expect(page.getByRole('grid', { name: 'What people came with' })).toBeVisible()
      await next.getByRole('button', { name: 'Put this away' }).click()
      await expect(next).toBeHidden()
    })
    await test.step('the lesson of the day, and its register', async () => {
      await page.goto('/')
      await page.getByRole('link', { name: 'Mark today’s lesson' }).click()
      await page.getByRole('button', { name: 'All here' }).click()
      await expect(page.getByText(/2 here, 0 away/)).toBeVisible()
      await page
        .getByRole('button', { name: /^Imke R\., / })
        .first()
        .click()
      await page.getByRole('button', { name: /^follows/ }).click()
      await page.goto('/progress')
      await expect(page.getByRole('gridcell', { name: /^Imke R\., .*: follows$/ }).first()).toBeVisible()
    })
  })
})
