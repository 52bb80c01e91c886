// The hall, measured: a whole evening at sixty times its speed, and two devices that mark through losses of the network. Output: name: value unit
import { base, enter, launch, quantile, say } from './browser.mjs'

const DATE = '2026-11-24'
const MINUTES = 90
const [MARKS, LOSSES] = [200, 10]
const browser = await launch()

async function device(who, clock = false) {
  const context = await browser.newContext({ viewport: { width: 1024, height: 768 }, locale: 'en-GB' })
  const page = await context.newPage()
  if (clock) await page.clock.install()
  await enter(page, who)
  return page
}
const read = (page, path) => page.evaluate(async (from) => (await fetch(from)).json(), path)

// The evening on the wall: what every group does and for how long still, each second of it, beside what the arrangement says.
const wall = await device('head', true)
const { classId } = (await read(wall, '/api/lessons')).find(
  (lesson) => lesson.date === DATE && lesson.class === 'Tuesday evening',
)
const lesson = `/classes/${classId}/lessons/${DATE}`
const { blocks, cohorts } = await read(wall, `/api${lesson}/arrangement`)
// The school's clock as it stands beside the device's.
const { wall: school, device: own } = await wall.evaluate(async () => {
  const session = await (await fetch('/api/session')).json()
  return { wall: Date.parse(`${session.wall.slice(0, 19)}Z`), device: Date.now() }
})
const BEGINS = Date.parse(`${DATE}T18:30:00Z`)
const lanes = cohorts.map(({ id, name }) => ({
  name,
  blocks: blocks.filter((block) => block.kind !== 'visit' && (block.cohortId === null || block.cohortId === id)),
}))
const blockIn = (lane, second) =>
  lane.blocks.findLast(({ start, end }) => start * 60 <= second && end * 60 > second) ?? lane.blocks.at(-1)
const leftOf = (block, second) => {
  const left = Math.max(0, block.end * 60 - second)
  return `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}`
}
await wall.goto(`${base}/lessons/${classId}/${DATE}/hall?part=all`)
await wall.getByText('Garnet').first().waitFor()
await wall.clock.fastForward(BEGINS - school - 2000)
let changes = 0
const late = []
const since = Date.now()
for (let step = 0; step < MINUTES * 60; step++) {
  await wall.clock.runFor(1000)
  const { device: at, rows } = await wall.evaluate(() => ({
    device: Date.now(),
    rows: [...document.querySelectorAll('section[aria-label="The lesson now"] li')].map((row) => ({
      name: row.querySelector('.font-bold').textContent,
      what: row.querySelector('.leading-tight').textContent,
      left: row.querySelector('.text-right').textContent,
    })),
  }))
  const second = Math.floor((school + at - own - BEGINS) / 1000)
  if (second < 1 || second >= MINUTES * 60) continue
  for (const lane of lanes) {
    const row = rows.find(({ name }) => name === lane.name)
    if (blockIn(lane, second) !== blockIn(lane, second - 1)) changes++
    const isShown = (then) => {
      const block = blockIn(lane, then)
      return row?.left === leftOf(block, then) && (block.what === '' || row.what === block.what)
    }
    let by = 0
    while (by <= second && !isShown(second - by)) by++
    late.push(by)
  }
}
say(`a lesson of ${MINUTES} minutes, at so many times its speed`, (MINUTES * 60_000) / (Date.now() - since), '')
say('changes of what a group does in it', changes, '')
say('shown on the wall later than it is, at most', Math.max(...late), 's of at most 1')
await wall.context().close()

// Two devices mark in one hall, and each loses the network again and again. A mark is two taps: whom, and what.
const devices = await Promise.all(['head', 'instructor'].map((who) => device(who)))
for (const [at, page] of devices.entries()) {
  const cohort = cohorts.filter(({ people }) => people > 3)[at]
  await page.goto(`${base}/lessons/${classId}/${DATE}/hall?cohort=${cohort.id}`)
  await page.getByRole('complementary', { name: 'Watching' }).getByRole('listitem').nth(2).waitFor()
}
const factsOf = async (page) =>
  (await read(page, `/api${lesson}/register`)).students.flatMap(({ cells }) => cells.flatMap(({ today }) => today))
    .length
const before = await factsOf(devices[0])
const times = { shown: [], opened: [] }
const markOn = (page, at) =>
  page.evaluate(async (which) => {
    const frame = () => new Promise((next) => requestAnimationFrame(next))
    const button = (says) =>
      [...document.querySelectorAll('aside button')].find((one) => says.test(one.textContent) && !one.disabled)
    const rows = [...document.querySelectorAll('aside button[aria-expanded]')]
    const opened = performance.now()
    rows[which % 3].click()
    const stage = which % 2 ? /^alone$/ : /^flowing$/
    while (!button(stage)) await frame()
    const said = button(/^Undo/)?.textContent
    const tapped = performance.now()
    button(stage).click()
    while (!button(/^Undo/) || button(/^Undo/).textContent === said) await frame()
    return { opened: tapped - opened, shown: performance.now() - tapped }
  }, at)
const EACH = MARKS / devices.length
const BETWEEN = EACH / (LOSSES / devices.length)
await Promise.all(
  devices.map(async (page) => {
    for (let at = 0; at < EACH; at++) {
      // Half of the time between two losses there is no network.
      if (at % BETWEEN === 0) await page.context().setOffline(true)
      if (at % BETWEEN === BETWEEN / 2) await page.context().setOffline(false)
      const { opened, shown } = await markOn(page, at)
      times.opened.push(opened)
      times.shown.push(shown)
    }
    await page.context().setOffline(false)
  }),
)
const until = Date.now() + 60_000
let kept = 0
do {
  await new Promise((next) => setTimeout(next, 500))
  kept = (await factsOf(devices[0])) - before
} while (kept < MARKS && Date.now() < until)
// Whatever would come twice has come by now, too.
await new Promise((next) => setTimeout(next, 3000))
say('a mark is shown, from the tap, p95', quantile(times.shown.slice(10), 0.95), 'ms of at most 100')
say('a row is opened beside it, from the tap, p95', quantile(times.opened.slice(10), 0.95), 'ms')
say(
  `facts of ${MARKS} marks by two devices through ${LOSSES} losses of the network`,
  (await factsOf(devices[0])) - before,
  `of exactly ${MARKS}`,
)
await browser.close()
