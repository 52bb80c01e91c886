import { base, quantile, say } from './browser.mjs'

/** A mark: from the key to the panel that shows it, to the sole that is judged by it, and to whatever follows from it: the table of the class with its re-teach, who is ready for the next sash, whom the coming lesson looks at. Beside them, that table read without a mark. */
export async function measureMarks(page) {
  await page.goto(`${base}/lessons`)
  await page.getByRole('link', { name: 'Register' }).first().click()
  await page.getByRole('tab', { name: 'Fern, newer' }).click()
  await page.getByRole('button', { name: /^Filippa S., Play the Pipa, left:/ }).click()
  const marked = await page.evaluate(async () => {
    const [, , classId, date] = location.pathname.split('/')
    const read = async (path) => (await fetch(`/api/${path}`)).json()
    const coming = (await read('lessons')).find(
      (lesson) => lesson.classId === classId && lesson.date > date && !lesson.past,
    )
    const sole = () => document.querySelector('[aria-label^="Filippa S., Play the Pipa, left:"]').ariaLabel
    const panel = () => document.querySelector('aside').textContent
    const frame = () => new Promise((next) => requestAnimationFrame(next))
    const consequences = {
      table: async () => {
        const { rows, columns } = await read(`classes/${classId}/progress`)
        const column = columns.findIndex(({ name }) => name === 'Play the Pipa, left')
        return rows.find(({ name }) => name === 'Filippa S.').cells[column].stage
      },
      nextSash: async () => {
        const { people } = await read(`classes/${classId}/readiness`)
        const { missing } = people.find(({ name }) => name === 'Filippa S.').next
        return missing.find(({ what }) => what === 'Play the Pipa, left')?.toSee.has ?? 'alone'
      },
      watchList: async () => {
        const { looks } = await read(`classes/${classId}/lessons/${coming.date}/arrangement`)
        return looks.find(({ student }) => student === 'Filippa S.')?.reason === 'oneFromAlone' ? 'follows' : 'alone'
      },
    }
    const times = { shown: [], judged: [], table: [], nextSash: [], watchList: [], read: [] }
    for (const [what, stageIn] of Object.entries(consequences)) {
      for (let at = 0; at < 25; at++) {
        const [key, stage] = at % 2 ? ['3', 'alone'] : ['2', 'follows']
        const before = panel()
        const since = performance.now()
        document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
        while (panel() === before) await frame()
        times.shown.push(performance.now() - since)
        while (!sole().includes(`: ${stage}`)) await frame()
        times.judged.push(performance.now() - since)
        while ((await stageIn()) !== stage);
        times[what].push(performance.now() - since)
        const again = performance.now()
        await consequences.table()
        times.read.push(performance.now() - again)
        await new Promise((next) => setTimeout(next, 300))
      }
    }
    return times
  })
  const afterAFew = (times) => quantile(times.slice(5), 0.95)
  say('a mark shows, from the key, p95', afterAFew(marked.shown), 'ms of at most 100')
  say('its sole is judged, from the key, p95', afterAFew(marked.judged), 'ms of at most 500')
  say(
    'the class’s table with what to teach again has it, from the key, p95',
    afterAFew(marked.table),
    'ms of at most 500',
  )
  say('the next sash has it, from the key, p95', afterAFew(marked.nextSash), 'ms of at most 500')
  say('the coming lesson’s watch list has it, from the key, p95', afterAFew(marked.watchList), 'ms of at most 500')
  say('that table read beside it, p95', afterAFew(marked.read), 'ms')
}
