// What is felt at the screen, each beside a reference taken in the same page and run. Output: name: value unit
import { measureMarks } from './bench-marks.mjs'
import { base, enter, launch, quantile, say } from './browser.mjs'

const browser = await launch()
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
await enter(page)

// What comes before Today can be read, and what everything together would be; the page's engine as it is sent, and as it is.
const scripts = () =>
  page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      // The find box is fetched a second and a half in, when the page stands.
      .filter(({ name, startTime }) => name.endsWith('.js') && startTime < 1500)
      .reduce((sum, { encodedBodySize }) => sum + encodedBodySize, 0),
  )
await page.goto(base)
await page.getByRole('heading', { name: 'Left to do' }).waitFor()
say('first load, compressed script', (await scripts()) / 1024, 'kB of at most 160')
const [sent, whole] = await page.evaluate(async () => {
  const address = '/engine/dotnet.js'
  const { dotnet } = await import(address)
  await dotnet.create()
  const files = performance.getEntriesByType('resource').filter(({ name }) => name.includes('/engine/'))
  return [
    files.reduce((sum, { encodedBodySize }) => sum + encodedBodySize, 0),
    files.reduce((sum, { decodedBodySize }) => sum + decodedBodySize, 0),
  ]
})
say('the engine as it is sent', sent / 1024, 'kB')
say('the engine unpacked', whole / 1024, 'kB')

// Typing in the step notation: everything from the second of seventeen positions to the end of the section is walked and drawn anew.
await page.goto(`${base}/forms`)
await page.getByRole('button', { name: /^2 Raise Hands, right/ }).click()
await page.getByRole('button', { name: 'Open', exact: true }).click()
await page.getByLabel(/^Way in/).waitFor()
await page.waitForFunction(() => document.querySelector('[id$="-about"]')?.textContent?.includes('weight'))

/** From the key to the picture: React's work, the walk and the layout; what the browser adds to paint it is the same for both. */
const keystrokes = (selector, texts) =>
  page.evaluate(
    ([wanted, values]) => {
      const field = [...document.querySelectorAll(wanted)].find((one) => one.closest('fieldset'))
      const write = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value').set
      return values.map((value) => {
        const since = performance.now()
        write.call(field, value)
        field.dispatchEvent(new Event('input', { bubbles: true }))
        document.querySelector('main').getBoundingClientRect()
        return performance.now() - since
      })
    },
    [selector, texts],
  )
const typed = Array.from(
  { length: 260 },
  (_, at) =>
    `L 100%; R adjust right ${(1 + (at % 17) / 10).toFixed(1)}; hips ${at % 2 ? 'left' : 'right'} ${1 + (at % 40)}`,
)
const redrawn = (await keystrokes('textarea', typed)).slice(60)
const shown = await page.locator('main svg polyline').first().getAttribute('points')
if (!shown || shown.split(' ').length < 60) throw new Error('The section was not drawn anew.')
const plain = (
  await keystrokes(
    'input[placeholder="only the difference"]',
    typed.map((_, at) => `note ${at}`),
  )
).slice(60)
say('typing a step, a section of 17 positions redrawn, p50', quantile(redrawn, 0.5), 'ms')
say('typing a step, a section of 17 positions redrawn, p95', quantile(redrawn, 0.95), 'ms')
say('typing in a plain field beside it, p95', quantile(plain, 0.95), 'ms')

// A form of 150 positions, scrolled and played.
const session = await page.evaluate(() => fetch('/api/session').then((answer) => answer.json()))
const long = await page.evaluate(async (token) => {
  const forms = await fetch('/api/forms').then((answer) => answer.json())
  const form = await fetch(`/api/forms/${forms[0].id}`).then((answer) => answer.json())
  const id = '0199c000-0000-7fff-8fff-ffffffffffff'
  const again = (position, half) => ({
    ...position,
    id: crypto.randomUUID(),
    sectionId: form.text.sections[half ? 1 : 0].id,
    parentId: null,
  })
  const positions = [
    ...form.text.positions.map((one) => again(one, 0)),
    ...form.text.positions.map((one) => again(one, 1)),
  ].slice(0, 150)
  const answer = await fetch('/api/forms', {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'X-Zeitplan-Token': token },
    body: JSON.stringify({
      id,
      text: { ...form.text, name: 'Twice the Lantern', positions, segments: [], accepted: [] },
    }),
  })
  if (!answer.ok) throw new Error(await answer.text())
  return id
}, session.token)

const frames = (act) =>
  page.evaluate(
    ([what, milliseconds]) =>
      new Promise((done) => {
        const list = [...document.querySelectorAll('main div')].find(
          (one) => getComputedStyle(one).overflowY === 'auto' && one.querySelector('ol'),
        )
        const times = []
        let last = 0
        const began = performance.now()
        const step = (now) => {
          if (last) times.push(now - last)
          last = now
          if (what === 'scroll') list.scrollTop = ((now - began) / milliseconds) * list.scrollHeight
          if (now - began < milliseconds) requestAnimationFrame(step)
          else done(times)
        }
        requestAnimationFrame(step)
      }),
    [act, 4000],
  )
const report = (name, times) => {
  say(`${name}, p95 from frame to frame`, quantile(times, 0.95), 'ms')
  say(
    `${name}, frames dropped`,
    times.reduce((sum, time) => sum + Math.max(0, Math.round(time / (1000 / 60)) - 1), 0),
    `of ${times.length}`,
  )
}
await page.goto(`${base}/forms/${long}`)
await page.getByText(/^150 positions/).waitFor()
await page.waitForTimeout(1500)
report('150 positions at rest', await frames('rest'))
report('150 positions scrolled', await frames('scroll'))
await page.getByRole('button', { name: 'To the start' }).click()
await page.getByLabel('Seconds a count').click()
await page.getByRole('option', { name: '1 s', exact: true }).click()
await page.getByRole('button', { name: 'Play', exact: true }).click()
report('150 positions played', await frames('play'))

// Bodies: all end shapes at once, one that follows the typing, and one that is played beside its floor.
await page.goto(`${base}/forms`)
await page.getByRole('link', { name: 'Postures', exact: true }).waitFor()
await page.waitForTimeout(1500)
const figures = await page.evaluate(
  () =>
    new Promise((done) => {
      const since = performance.now()
      ;[...document.querySelectorAll('a')].find((one) => one.textContent === 'Postures').click()
      const look = () =>
        document.querySelectorAll('tbody svg').length >= 57
          ? done(performance.now() - since)
          : requestAnimationFrame(look)
      look()
    }),
)
say('the catalogue with its figures, from the press', figures, 'ms of at most 300')
await page.getByRole('link', { name: 'Brush Knee', exact: true }).click()
await page.getByRole('img', { name: /^Count 4, seen from the front/ }).waitFor()
await page.getByLabel('Seconds a count').click()
await page.getByRole('option', { name: '1 s', exact: true }).click()
await page.getByRole('button', { name: 'Play', exact: true }).click()
report('a body played beside its floor', await frames('play'))
await page.getByRole('button', { name: 'Edit the posture' }).click()
const body = page.getByLabel('Hands, trunk and gaze', { exact: true }).nth(2)
await body.focus()
const heights = ['navel', 'chest', 'shoulder', 'chin', 'brow']
const followed = (
  await keystrokes(
    await body.evaluate((field) => `#${CSS.escape(field.id)}`),
    Array.from(
      { length: 160 },
      (_, at) => `L ${heights[at % 5]} own bent palm down; chest right ${Math.floor(at / 5)}`,
    ),
  )
).slice(40)
say('typing a body, the figure follows, p50', quantile(followed, 0.5), 'ms')
say('typing a body, the figure follows, p95', quantile(followed, 0.95), 'ms of a frame of 16.7')
page.once('dialog', (dialog) => dialog.accept())

// Searching a roster of 300: from the key to the filtered rows.
await page.route('**/api/students', async (route) => {
  const people = await (await route.fetch()).json()
  const roster = Array.from({ length: 300 }, (_, at) => ({
    ...people[at % people.length],
    id: `0199e000-0000-7000-8000-${String(at).padStart(12, '0')}`,
    givenName: `Given${at % 7}`,
    familyName: `Family${at % 11}`,
    name: `Given${at % 7} Family${at % 11}`,
  }))
  await route.fulfill({ json: roster })
})
await page.goto(`${base}/people?view=roster`)
await page.getByText(/ of 300$/).waitFor()
const searched = await page.evaluate(async () => {
  const field = document.querySelector('input[type=search]')
  const write = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value').set
  const times = []
  for (let at = 0; at < 120; at++) {
    const since = performance.now()
    write.call(field, at % 2 ? 'family1' : 'given2')
    field.dispatchEvent(new Event('input', { bubbles: true }))
    document.querySelector('main').getBoundingClientRect()
    times.push(performance.now() - since)
    await new Promise((done) => setTimeout(done, 30))
  }
  return { times: times.slice(20), rows: document.querySelectorAll('tbody tr').length }
})
if (searched.rows < 20) throw new Error(`The roster was not filtered: ${searched.rows} rows.`)
say('typing in the roster of 300, p95', quantile(searched.times, 0.95), 'ms')
await page.unrouteAll()
// Progress of a generated school: 300 students by 60 postures. From the click on a sole to the picture with its panel laid out; beside it, a view of the same table.
const stages = ['notMet', 'shown', 'follows', 'alone', 'flowing', 'settled']
const generated = {
  columns: Array.from({ length: 60 }, (_, at) => ({
    postureId: `0199c000-0000-7000-8000-${String(at).padStart(12, '0')}`,
    side: at % 2 ? 'left' : 'right',
    name: `Posture ${at}, ${at % 2 ? 'left' : 'right'}`,
  })),
  rows: Array.from({ length: 300 }, (_, row) => ({
    studentId: `0199d000-0000-7000-8000-${String(row).padStart(12, '0')}`,
    name: `Student ${row}`,
    sashColour: '#AE6A38',
    half: 'none',
    seenDays: row % 30,
    longUnseen: row % 30 > 14,
    eyes: { seen: row % 4, here: 6, isFair: row % 4 === 3 },
    cells: Array.from({ length: 60 }, (_, at) => ({
      stage: stages[(row + at) % stages.length],
      fading: (row * at) % 11 === 0,
      correction: (row + at) % 9 === 0 ? 'shape' : null,
    })),
  })),
  openCorrections: 0,
  longUnseen: 0,
  reTeach: [],
}
await page.route(/\/api\/classes\/[^/]+\/progress$/, (route) => route.fulfill({ json: generated }))
await page.route(/\/api\/students\/0199d000/, (route) => route.fulfill({ status: 404, json: {} }))
await page.goto(`${base}/progress`)
await page.getByRole('rowheader', { name: 'Student 0', exact: true }).waitFor()
await page.waitForTimeout(1000)
const repaints = (selector, times) =>
  page.evaluate(
    async ([wanted, count]) => {
      const taken = []
      for (let at = 0; at < count; at++) {
        const all = [...document.querySelectorAll(wanted)]
        const target = all[(at * 37) % all.length]
        const since = performance.now()
        target.click()
        await new Promise((done) => requestAnimationFrame(done))
        document.querySelector('main').getBoundingClientRect()
        taken.push(performance.now() - since)
        await new Promise((done) => setTimeout(done, 40))
      }
      return taken.slice(Math.floor(count / 6))
    },
    [selector, times],
  )
say(
  'choosing a sole among 300 × 60, repainted, p95',
  quantile(await repaints('[role=gridcell][data-grid]', 120), 0.95),
  'ms of at most 100',
)
say('an empty click beside it, to the next frame, p95', quantile(await repaints('main h1', 60), 0.95), 'ms')
const scrolled = (act) =>
  page.evaluate(
    ([what, milliseconds]) =>
      new Promise((done) => {
        const board = document.querySelector('[role=grid]').parentElement.parentElement
        const times = []
        let last = 0
        const began = performance.now()
        const step = (now) => {
          if (last) times.push(now - last)
          last = now
          if (what === 'scroll') board.scrollTop = ((now - began) / milliseconds) * board.scrollHeight * 0.5
          if (now - began < milliseconds) requestAnimationFrame(step)
          else done(times)
        }
        requestAnimationFrame(step)
      }),
    [act, 4000],
  )
report('300 × 60 at rest', await scrolled('rest'))
report('300 × 60 scrolled', await scrolled('scroll'))
await page.unrouteAll()

await measureMarks(page)

// A posture is put into another lesson by the keys, and taken back; the first twenty warm the server up. From Enter to the plan with everything planned around it, laid out. Beside it, the plan that is there already asked for and drawn again.
await page.goto(`${base}/term`)
await page.getByRole('grid').waitFor()
await page.getByText('Earlier plans').waitFor()
// Three postures that can go a lesson later, each of another row: to come, and followed by a lesson that is held.
const toCome = await page.evaluate(() =>
  [...document.querySelectorAll('[role=grid] [role=row]')].map((row) =>
    [...row.querySelectorAll('[data-chip]')]
      .filter((chip) => chip.ariaLabel.includes(', new on '))
      .map((chip) => chip.dataset.chip),
  ),
)
const told = page.locator('p[aria-live]').filter({ hasText: /: \w.*Enter puts it there/ })
const chips = []
for (const row of toCome)
  for (const chip of row) {
    await page.locator(`[data-chip="${chip}"]`).focus()
    await page.keyboard.press('Shift+ArrowRight')
    await told.waitFor({ state: 'attached' })
    const isHeld = !/closed/.test(await told.textContent())
    await page.keyboard.press('Escape')
    if (!isHeld) continue
    chips.push(chip)
    break
  }
chips.length = Math.min(chips.length, 3)
const replanned = []
for (let run = 0; run < 60; run++) {
  await page.locator(`[data-chip="${chips[run % chips.length]}"]`).focus()
  await page.keyboard.press('Shift+ArrowRight')
  await told.waitFor({ state: 'attached' })
  replanned.push(
    await page.evaluate(
      () =>
        new Promise((resolve) => {
          const id = document.activeElement.dataset.chip
          const since = performance.now()
          const watch = new MutationObserver(() => {
            const chip = document.querySelector(`[data-chip="${id}"]`)
            if (!chip || !document.querySelector('main')?.textContent?.includes('only you see it')) return
            document.querySelector('main').getBoundingClientRect()
            watch.disconnect()
            resolve(performance.now() - since)
          })
          watch.observe(document.body, { subtree: true, childList: true, characterData: true })
          document.activeElement.dispatchEvent(
            new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }),
          )
        }),
    ),
  )
  if (run < 59) {
    await page.keyboard.press('z')
    await page.getByText('only you see it').waitFor({ state: 'hidden' })
  }
}
const again = []
for (let run = 0; run < 20; run++)
  again.push(
    await page.evaluate(
      (which) =>
        new Promise((resolve) => {
          const button = [...document.querySelectorAll('button')].find((one) => one.textContent.startsWith(which))
          const since = performance.now()
          button.click()
          const look = () => {
            if (button.getAttribute('aria-checked') !== 'true') return requestAnimationFrame(look)
            document.querySelector('main').getBoundingClientRect()
            resolve(performance.now() - since)
          }
          look()
        }),
      run % 2 ? 'Draft' : 'Announced',
    ),
  )
say('a posture put into another lesson, planned around and redrawn, p50', quantile(replanned.slice(20), 0.5), 'ms')
say('a posture put into another lesson, planned around and redrawn, p95', quantile(replanned.slice(20), 0.95), 'ms')
say('between draft and announced plan, redrawn, p95', quantile(again, 0.95), 'ms')
await browser.close()
