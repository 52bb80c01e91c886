import { choose, expect, expectAccessible, otherForm, signIn, test } from './school'

test.describe('a form from nothing', () => {
  test.beforeEach(({ page }) => signIn(page, 'head'))

  test('a posture is written in the notation and by hand, and its picture follows', async ({ page }) => {
    await page.goto('/forms/postures')
    await expect(page.getByText('47 postures and 11 drills')).toBeVisible()
    await expectAccessible(page, 'Postures')
    await page.getByRole('button', { name: 'Write a posture' }).click()
    await page.getByRole('tab', { name: 'About it' }).click()
    await page.getByLabel('Name', { exact: true }).fill('Quay Bow')
    await page.getByLabel(/^Key point/).fill('the bow grows out of the standing leg')
    await page.getByRole('tab', { name: 'Counts and steps' }).click()
    await page.getByLabel('Entry: from feet together into where it starts').fill('L step out 1.2 50%')

    const feet = page.getByLabel('Feet', { exact: true })
    await feet.first().fill('R 100%; L stap fwd 2')
    await expect(page.getByRole('alert').first()).toContainText(
      'Line 1, column 11: Here should stand what the foot does',
    )
    await feet.first().fill('R 100%; L s')
    await page.keyboard.press('End')
    await page.keyboard.type('t')
    await page.keyboard.press('Tab')
    await page.keyboard.type('fwd 2.6 out 1 h')
    await expect(page.getByRole('listbox', { name: 'What could come next' })).toContainText('heel')
    await page.keyboard.press('Tab')
    await expect(feet.first()).toHaveValue('R 100%; L step fwd 2.6 out 1 heel ')
    const left = page.getByRole('slider', { name: 'left foot', exact: true })
    await expect(left).toHaveAttribute('aria-valuetext', /0 % on it, on the heel/)
    await expect(page.getByText('left foot steps 2.6 forward and 1 left, heel first')).toBeVisible()

    await page.getByLabel('Cue, the few words called').fill('step left, heel first')
    await page.getByRole('button', { name: 'Add a count after it' }).click()
    await page.getByLabel('Cue, the few words called').nth(1).fill('weight forward')
    await feet.nth(1).focus()
    const weight = page.getByRole('slider', { name: 'Weight on the right foot' })
    await weight.focus()
    await page.keyboard.press('Home')
    for (let step = 0; step < 6; step++) await page.keyboard.press('ArrowRight')
    await expect(feet.nth(1)).toHaveValue('L 70%')
    const right = page.getByRole('slider', { name: 'right foot', exact: true })
    await right.focus()
    for (let turn = 0; turn < 9; turn++) await page.keyboard.press(']')
    await expect(feet.nth(1)).toHaveValue('L 70%; R pivot right 45')
    await expect(page.getByText('All of it ends in bow, left foot leading, 70 % left.')).toBeVisible()

    await feet.first().focus()
    const box = (await left.boundingBox())!
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 30, { steps: 5 })
    await page.mouse.up()
    await expect(feet.first()).not.toHaveValue('R 100%; L step fwd 2.6 out 1 heel ')
    await expect(feet.first()).toHaveValue(/^R 100%; L step fwd [0-9.]+ left [0-9.]+ heel$/)
    await expectAccessible(page, 'Posture editor')
    await page.getByRole('button', { name: 'Save the posture' }).click()
    await expect(page.getByRole('heading', { name: 'Quay Bow, left' })).toBeVisible()
    await page.keyboard.press('m')
    await expect(page.getByRole('heading', { name: 'Quay Bow, right' })).toBeVisible()
    await expect(page.getByText('step right, heel first')).toBeVisible()
    await expectAccessible(page, 'Posture')
  })

  test('hands are moved on the figure, what no body does is said and mended, and it dances from behind', async ({
    page,
  }) => {
    await page.goto('/forms/postures')
    await page.getByRole('link', { name: 'Push', exact: true }).click()
    await page.getByRole('button', { name: 'Edit the posture' }).click()
    const body = page.getByLabel('Hands, trunk and gaze', { exact: true })
    await body.nth(3).focus()
    await expect(body.nth(3)).toHaveValue('both shoulder own long palm front fingers up palm')

    const right = page.getByRole('slider', { name: 'Right hand, in the picture' })
    const box = (await right.boundingBox())!
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    await page.mouse.move(box.x + box.width / 2, box.y - 40, { steps: 6 })
    await page.mouse.up()
    await expect(body.nth(3)).toHaveValue(/R (ear|brow|crown) own \w+ palm front fingers up palm$/)
    await right.focus()
    for (let word = 0; word < 3; word++) await page.keyboard.press('ArrowUp')
    await expect(body.nth(3)).toHaveValue(/R crown own/)
    // How far the arm reaches is not seen from the front: it is said in words.
    await body.nth(3).fill((await body.nth(3).inputValue()).replace(/R crown own \w+/, 'R crown own bent'))
    await page.getByRole('group', { name: 'Fingers point' }).getByRole('button', { name: 'In', exact: true }).click()
    await page.getByRole('group', { name: 'Shape' }).getByRole('button', { name: 'Fist' }).click()
    await expect(body.nth(3)).toHaveValue(/fingers in fist$/)
    const found = page.getByRole('note').filter({ hasText: 'The right elbow is' })
    await expect(found).toContainText('above the shoulder; an elbow hangs unless it is said to be up')
    await expectAccessible(page, 'Posture editor, hands')
    await found.getByRole('button', { name: 'The right elbow is meant to be up' }).click()
    await expect(found).toBeHidden()
    await expect(body.nth(3)).toHaveValue(/elbow up$/)

    await page.getByRole('tab', { name: 'About it' }).click()
    const asks = page.getByRole('region', { name: 'What it asks of a body' })
    await expect(asks).toContainText('overhead reach the right hand is at the brow or higher, count 4')
    await page.getByRole('button', { name: 'It does not ask for overhead reach' }).click()
    await page.getByLabel('Why it does not ask for overhead reach').fill('We show it and never ask for it.')
    await page.getByRole('button', { name: 'Take it off' }).click()
    await expect(asks).toContainText('overhead reach not asked: “We show it and never ask for it.”')
    await page.getByRole('tab', { name: 'Counts and steps' }).click()
    await body.nth(1).fill('both chest centre rear palm in fingers down')
    const impossible = page.getByRole('note').filter({ hasText: 'no shoulder turns so far back' })
    await expect(impossible.first()).toBeVisible()
    await body.nth(1).fill('both chest own near palm front fingers up')
    await expect(impossible).toHaveCount(0)
    await page.getByRole('button', { name: 'Save the posture' }).click()
    await expect(page.getByRole('heading', { name: 'Push, right' })).toBeVisible()
    await expect(page.getByText('not overhead reach: “We show it and never ask for it.”')).toBeVisible()
    await page.getByRole('radio', { name: 'Behind' }).click()
    await page.getByRole('button', { name: 'Play' }).click()
    await expect(page.getByRole('img', { name: /^Count 2, seen from behind/ })).toBeVisible()
    await expectAccessible(page, 'Posture with its figure')
  })

  test('the way back of a loop is drawn as it is written, and a hand it leaves astray is said and brought home', async ({
    page,
  }) => {
    await page.goto('/forms/postures')
    await page.getByRole('link', { name: 'Apparent Close', exact: true }).click()
    await page.getByRole('button', { name: 'Edit the posture' }).click()
    const back = page.getByLabel('Hands, trunk and gaze meanwhile')
    await back.fill(`${await back.inputValue()}; R brow outside long`)
    await expect(page.getByRole('img', { name: /^The way back, seen from the front/ })).toBeVisible()
    const astray = page.getByRole('note').filter({ hasText: 'The way back leaves the right hand at brow height' })
    await expect(astray).toContainText('it begins again with it at chest height')
    await astray.getByRole('button', { name: /^Write it/ }).click()
    await expect(astray).toBeHidden()
    await expect(back).toHaveValue(/R chest centre long/)
    await page.getByRole('button', { name: 'Save the posture' }).click()
    await expect(page.getByRole('heading', { name: 'Apparent Close, left' })).toBeVisible()
  })

  test('a gentler version lets somebody in whom the coverage table left out', async ({ page }) => {
    const coverage = async () => {
      await page.goto('/people')
      await page.getByRole('link', { name: 'Coverage of Chair group' }).click()
    }
    await coverage()
    await expect(page.getByRole('button', { name: /^Ewan S., Roll Back, right: nothing fits/ })).toBeVisible()
    await page.goto('/forms/postures')
    await page.getByRole('link', { name: 'Roll Back', exact: true }).click()
    await page.getByRole('button', { name: 'Edit the posture' }).click()
    await page.getByRole('tab', { name: 'Adapted versions' }).click()
    await page.getByRole('radio', { name: /^Seated/ }).click()
    const asks = page.getByRole('region', { name: 'What it still asks of a body' })
    await expect(asks).toContainText('trunk twist')
    const body = page.getByLabel('Hands, trunk and gaze', { exact: true })
    for (const field of await body.all())
      await field.fill((await field.inputValue()).replace(/chest left \d+/, 'chest left 15'))
    await expect(asks).not.toContainText('trunk twist')
    await page.getByRole('button', { name: 'Save the posture' }).click()
    await expect(page.getByRole('heading', { name: 'Roll Back, right' })).toBeVisible()
    await coverage()
    await expect(page.getByRole('button', { name: 'Ewan S., Roll Back, right: seated' })).toBeVisible()
  })

  test('eight positions are put together, broken, mended, played, fitted, exported, wiped and taken in again', async ({
    page,
  }) => {
    await page.goto('/forms')
    await otherForm(page, 'Write a new one')
    await expect(page.getByRole('heading', { name: 'New form' })).toBeVisible()
    await page.getByRole('button', { name: 'About this form' }).click()
    await page.getByLabel('Name of the form').fill('Harbour Form')
    await page.getByRole('button', { name: 'Save the name' }).click()
    await expect(page.getByRole('heading', { name: 'Harbour Form' })).toBeVisible()

    for (const [name, side] of [
      ['Opening', ''],
      ['Ward Off', 'left'],
      ['Brush Knee', 'right'],
      ['Brush Knee', 'left'],
      ['Brush Knee', 'right'],
      ['Ward Off', 'left'],
      ['Cross Hands', 'right'],
      ['Closing', ''],
    ] as const) {
      await page.getByLabel(/^Add a position/).fill(name)
      if (side) await choose(page.getByLabel(/^Side/), side)
      await page.getByRole('button', { name: 'Add', exact: true }).click()
      await expect(page.getByLabel(/^Add a position/)).toHaveValue('')
      const mend = page.getByRole('button', { name: /^Write the way in/ })
      if (side && name !== 'Cross Hands') {
        await mend.first().click()
        await expect(mend).toHaveCount(0)
      }
    }
    await expect(page.getByText(/^8 positions/)).toBeVisible()
    await expect(page.getByText(/The form closes .* m from where it began/)).toBeVisible()
    await page.getByRole('button', { name: 'Keep it as our way' }).click()
    await page.getByLabel('Why this is the school’s way').fill('it ends at the water')
    await page.getByRole('button', { name: 'Keep it', exact: true }).click()
    await expect(page.getByText('“it ends at the water”')).toBeVisible()
    await expect(page.getByText(/disagree/)).toBeHidden()

    const fourth = page.getByRole('button', { name: /^4 Brush Knee, left/ })
    await fourth.click()
    await expect(fourth).toHaveAttribute('aria-pressed', 'true')
    await page.keyboard.press('m')
    await expect(page.getByText(/things disagree/)).toBeVisible()
    await expect(
      page.getByText(/leaves 0 % on the left foot; Brush Knee, right starts with 100 %/).first(),
    ).toBeVisible()
    await page.getByRole('button', { name: /Undo mirroring/ }).click()
    await expect(page.getByText(/disagree/)).toBeHidden()

    await page.getByRole('button', { name: 'To the start' }).click()
    await choose(page.getByLabel('Seconds a count'), '0.5 s')
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await expect(page.getByRole('img', { name: /Floor map of Harbour Form, Brush Knee, right/ })).toBeVisible()
    await page.getByRole('button', { name: 'Pause' }).click()
    await page.getByRole('radio', { name: 'Facing', exact: true }).click()
    await page.keyboard.press('.')
    await expectAccessible(page, 'Floor map')

    await page.getByRole('tab', { name: 'Hall', exact: true }).click()
    await choose(page.getByRole('combobox', { name: 'Hall' }), 'Chapel Room, 8.2 × 6.4 m')
    await expect(page.getByText(/^14 do not fit at once/)).toBeVisible()
    await expect(page.getByText(/^Split in 2 waves of 7/)).toBeVisible()
    await page.getByLabel('Standing').fill('7')
    await expect(page.getByText(/^7 fit .* abreast/)).toBeVisible()
    await expectAccessible(page, 'Hall')

    await page.getByRole('link', { name: 'Import and export' }).click()
    await expect(page.getByRole('heading', { name: 'Import and export' })).toBeVisible()
    const downloading = page.waitForEvent('download')
    await page.getByRole('link', { name: 'Harbour Form', exact: true }).click()
    const file = await (await downloading).path()

    await page.getByRole('link', { name: 'Forms', exact: true }).last().click()
    await otherForm(page, 'Harbour Form, 8 positions')
    await expect(page.getByRole('heading', { name: 'Harbour Form' })).toBeVisible()
    await page.getByRole('button', { name: 'About this form' }).click()
    await page.getByRole('button', { name: 'Take this form out of the school' }).click()
    await expect(page.getByRole('heading', { name: 'Lantern Form' })).toBeVisible()
    await page.getByRole('button', { name: 'Another form' }).click()
    await expect(page.getByRole('menuitem', { name: /Lamp Form/ })).toBeVisible()
    await expect(page.getByRole('menuitem', { name: /Harbour/ })).toHaveCount(0)
    await page.keyboard.press('Escape')

    await page.goto('/forms/files')
    await page.getByLabel('A form library, JSON').setInputFiles({
      name: 'broken.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{ "format": "zeitplan-forms",\n  "version": 1,\n  "forms": [ { "id": 7 } ] }'),
    })
    await expect(page.getByRole('alert')).toContainText('broken.json cannot be taken in. Nothing was changed.')
    await expect(page.getByRole('alert')).toContainText('Line 3, column')
    await page.getByLabel('A form library, JSON').setInputFiles(file)
    await expect(page.getByText('1 things would change')).toBeVisible()
    await expect(page.getByRole('row', { name: /Harbour Form/ })).toContainText('new')
    await expectAccessible(page, 'Import')
    await page.getByRole('button', { name: 'Take it in' }).click()
    await expect(page.getByText('Taken in: 0 postures, 0 links, 0 principles, 1 forms.')).toBeVisible()
    await page.goto('/forms')
    await otherForm(page, 'Harbour Form, 8 positions')
    await expect(page.getByText('“it ends at the water”')).toBeVisible()
  })

  test('the long form is heard, counted and compared', async ({ page }) => {
    await page.goto('/forms?view=cues')
    await expect(page.getByRole('cell', { name: 'left foot to shoulder width' }).first()).toBeVisible()
    await expectAccessible(page, 'Say and do')
    await page.getByRole('tab', { name: 'Analysis' }).click()
    await expect(page.getByRole('rowheader', { name: /one-leg balance 7/ })).toBeVisible()
    await page.getByLabel('a compound as one').check()
    await expect(page.getByRole('row', { name: /^Closing/ })).toBeVisible()
    await expectAccessible(page, 'Analysis')
    await page.getByRole('tab', { name: 'Compare' }).click()
    await choose(page.getByLabel('Somebody who knows'), 'Lamp Form')
    await expect(page.getByText(/minutes to learn/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Slant Flying, right', exact: true })).toBeVisible()
    await expectAccessible(page, 'Compare')
    await page.goto('/forms/principles')
    await expect(page.getByText('each knee points where its foot points, and no further than the toes')).toBeVisible()
    await expectAccessible(page, 'Principles')
  })

  test('a convention changed in School is in force on the forms at once', async ({ page }) => {
    await page.goto('/school')
    await choose(page.getByLabel(/^Directions are said/), /by the hall/)
    await choose(page.getByLabel(/^Teachers show/), 'facing the class, mirrored')
    await expectAccessible(page, 'School')
    await page.getByRole('link', { name: 'Forms', exact: true }).click()
    await expect(page.getByRole('button', { name: /4 Ward Off, right .* right wall/ })).toBeVisible()
    await page.getByRole('tab', { name: 'Say and do' }).click()
    const line = page.getByRole('row', { name: /step left, heel first/ }).first()
    await expect(line).toContainText('step right, heel first')
    await page.goto('/school')
    await choose(page.getByLabel(/^Directions are said/), /on a clock/)
    await choose(page.getByLabel(/^Teachers show/), 'with the back to the class')
    await expect(page.getByLabel(/^Teachers show/)).toBeEnabled()
  })
})
