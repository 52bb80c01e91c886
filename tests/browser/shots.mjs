// One current picture of each main view, from the demo school.
import { base, enter, launch } from './browser.mjs'

const folder = process.argv[2]
const laptop = { width: 1280, height: 800 }

const browser = await launch()
const page = await browser.newPage({ viewport: laptop, locale: 'en-GB' })

// A page that has been idle once stays so for the browser, whatever it asks for afterwards.
let asking = 0
page.on('request', () => asking++)
page.on('requestfinished', () => asking--)
page.on('requestfailed', () => asking--)
const settled = async () => {
  for (let quiet = 0; quiet < 4; quiet = asking > 0 ? 0 : quiet + 1) await page.waitForTimeout(100)
}

async function shot(name, path, act = async () => {}) {
  await page.goto(base + path)
  await page.waitForLoadState('networkidle')
  await act()
  await settled()
  await page.getByRole('status').filter({ hasText: '…' }).waitFor({ state: 'hidden' })
  await page.screenshot({ path: `${folder}/${name}.png` })
  console.log(`${name}.png`)
}

await enter(page)
await shot('today', '/')
await shot('forms', '/forms', () => page.getByRole('button', { name: /^11 Brush Knee, left/ }).click())
const opened = async (name) => {
  await page.getByRole('link', { name, exact: true }).click()
  await page.getByText(/^Ends in/).waitFor()
}
await shot('posture', '/forms/postures', () => opened('Brush Knee'))
await shot('posture-editor', '/forms/postures', async () => {
  await opened('Single Whip')
  await page.getByRole('button', { name: 'Edit the posture' }).click()
  await page.getByLabel('Hands, trunk and gaze', { exact: true }).nth(4).focus()
  await page.getByRole('slider', { name: 'left foot', exact: true }).waitFor()
  await page.getByRole('img', { name: /^Count 5, seen from the front/ }).waitFor()
})
// Every posture as lists show it, from the front and from the side, to be looked at posture by posture.
const drawn = await page.evaluate(async () => {
  const postures = (await (await fetch('/api/postures')).json()).filter((one) => !one.isCompound && one.counts > 0)
  const picture = async (id, view) => (await fetch(`/api/postures/${id}/figure.svg?view=${view}`)).text()
  return Promise.all(
    postures.map(async ({ id, name }) => ({ name, pictures: [await picture(id, 'front'), await picture(id, 'left')] })),
  )
})
const wall = await browser.newPage({ viewport: { width: 1500, height: 900 } })
await wall.setContent(
  `<body style="margin:6px;background:#F3F0E8;font:600 12px sans-serif;display:flex;flex-wrap:wrap;gap:4px">${drawn
    .map(
      ({ name, pictures }) =>
        `<figure style="margin:0;padding:4px;background:#FBFAF5">${name}<br>${pictures
          .map((svg) => svg.replace('<svg ', '<svg height="118" '))
          .join('')}</figure>`,
    )
    .join('')}</body>`,
)
await wall.screenshot({ path: `${folder}/end-shapes.png`, fullPage: true })
await wall.close()
console.log('end-shapes.png')
await shot('people-assign', '/people', () => page.getByRole('link', { name: 'Assign to Copper' }).click())
await shot('people-coverage', '/people?view=coverage')
await shot('term', '/term')
await shot('lesson', '/lessons', async () => {
  await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
  await page.getByRole('heading', { name: 'Whom to watch' }).waitFor()
})
await shot('lesson-floor', '/lessons', async () => {
  await page.getByRole('link', { name: 'Tuesday 1 December, 18:30' }).click()
  await page.getByRole('radio', { name: 'Floor' }).click()
  await page.getByRole('button', { name: 'After' }).click({ clickCount: 3, delay: 50 })
})
const ivory = await page.evaluate(async () => {
  const lessons = await (await fetch('/api/lessons')).json()
  const { classId } = lessons.find((lesson) => lesson.date === '2026-12-01' && lesson.class === 'Tuesday evening')
  const { blocks } = await (await fetch(`/api/classes/${classId}/lessons/2026-12-01/arrangement`)).json()
  const press = blocks.find((block) => block.kind === 'new' && block.what === 'Press, right')
  return `/lessons/${classId}/2026-12-01/hall?cohort=${press.cohortId}&minute=${press.start + 1}`
})
await shot('hall', ivory, async () => {
  await page.getByRole('img', { name: 'Press, right, count 1' }).waitFor()
  await page.keyboard.press('ArrowRight')
  await page.getByRole('img', { name: 'Press, right, count 2' }).waitFor()
})
const marked = async () => {
  await page.getByRole('link', { name: 'Register' }).first().click()
  await page.getByRole('tab', { name: 'Fern, newer' }).click()
  await page.getByRole('button', { name: /^Goran V., Brush Knee, left:/ }).click()
  await page.getByRole('heading', { name: 'Goran V.' }).waitFor()
}
await shot('mark', '/lessons', marked)
await shot('progress', '/progress', async () => {
  await page.getByRole('gridcell', { name: /^Imke R., Single Whip/ }).click()
  await page.getByRole('heading', { name: 'Imke Rademaker' }).waitFor()
})
await shot('taken-over', '/people', async () => {
  await page.getByRole('link', { name: 'What Copper came with' }).click()
  await page.getByRole('gridcell', { name: /^Imke Rademaker, Cloud Hands, left/ }).click()
})
await shot('school', '/school?view=school')
await shot('corrections', '/progress', () => page.getByRole('link', { name: /corrections open/ }).click())
await shot('next-sash', '/progress', () => page.getByRole('link', { name: 'next sash' }).click())
await shot('home', '/progress', async () => {
  await page.getByRole('link', { name: 'home practice' }).click()
  await page.getByRole('button', { name: /^Imke R\./ }).click()
  await page.getByRole('button', { name: /^Imke R\./ }).evaluate((row) => row.scrollIntoView({ block: 'center' }))
})
await shot('look-back', '/lessons', async () => {
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Tuesday evening' })
    .getByRole('link', { name: 'Look back' })
    .first()
    .click()
  await page.getByText('Not seen in their last two lessons').waitFor()
})
await browser.close()
