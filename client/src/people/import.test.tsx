import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { answers, noor } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { serve } from '../testing/server'
import type { RosterAnswers, RosterPreview } from './data'
import { ImportView } from './ImportView'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })

const preview: RosterPreview = {
  sheets: [],
  sheet: null,
  tops: [{ line: 1, cells: ['Name', 'Gürtel'] }],
  headerLine: 1,
  headers: ['Name', 'Gürtel'],
  examples: [['Orla Vane', 'Elfenbein']],
  columns: [
    { field: 'fullName', formId: null, sectionId: null },
    { field: 'sash', formId: null, sectionId: null },
  ],
  items: [
    { line: 2, name: 'Orla Vane', fate: 'refused', changes: [] },
    { line: 3, name: 'Agnes Whitlock', fate: 'asked', changes: [] },
  ],
  problems: [
    { line: 2, column: 'Gürtel', message: 'The ladder has no sash Elfenbein.' },
    { line: 3, column: 'Name', message: 'Agnes Whitlock is on the roster since 2024-03-01.' },
  ],
  unknown: [{ field: 'sash', word: 'Elfenbein', lines: 1, choices: [{ meaning: 'ivory', name: 'Ivory' }] }],
  asksDayFirst: true,
  added: 0,
  changed: 0,
  forms: [],
}

const ready: RosterPreview = {
  ...preview,
  items: [
    { line: 2, name: 'Orla Vane', fate: 'added', changes: [] },
    { line: 3, name: 'Agnes Whitlock', fate: 'leftOut', changes: ['Name: Agnes Whitlock is on the roster.'] },
  ],
  problems: [],
  unknown: [],
  asksDayFirst: false,
  added: 1,
}

function open(answer: (said: RosterAnswers) => RosterPreview) {
  const server = serve({
    ...answers,
    'GET /api/roster/imports': { body: [] },
    'POST /api/roster/preview': (body) => ({ body: answer((body as { answers: RosterAnswers }).answers) }),
    'POST /api/roster/imports': { body: { done: 1, of: 1, kept: true, problem: null, withoutClass: 1 } },
  })
  draw(<ImportView />, { at: '/people?view=import', as: noor })
  const choose = async (content: string) => {
    const input = await screen.findByLabelText(/A roster from a spreadsheet/)
    await user.upload(input, new File([content], 'mitglieder.csv', { type: 'text/csv' }))
  }
  const said = () =>
    server.asked
      .filter(({ what }) => what === 'POST /api/roster/preview')
      .map(({ body }) => body as { file: string; answers: RosterAnswers })
  return { server, choose, said }
}

const press = async (name: string | RegExp) => user.click(await screen.findByRole('button', { name }))

describe('A roster that comes in', () => {
  it('asks once what nobody can guess, and says it with every look that follows', async () => {
    const { choose, said } = open(() => preview)
    await choose('Name;Gürtel\nOrla Vane;Elfenbein')
    await user.click(await screen.findByLabelText('Meaning of the word Elfenbein'))
    await user.click(await screen.findByRole('option', { name: 'Ivory' }))
    await waitFor(() =>
      expect(said().at(-1)!.answers.words).toEqual([{ field: 'sash', word: 'Elfenbein', meaning: 'ivory' }]),
    )
    await user.click(screen.getByLabelText('Order of day and month'))
    await user.click(await screen.findByRole('option', { name: 'the day comes first' }))
    await press('Somebody else: line 3, Agnes Whitlock')
    await press('Leave it out: line 2, Orla Vane')
    await waitFor(() => expect(said().at(-1)!.answers.leftOut).toEqual([2]))
    expect(said().at(-1)!.answers).toMatchObject({ dayFirst: true, anotherPerson: [3], words: [{ word: 'Elfenbein' }] })
  })

  it('reads the corrected file of the same name again, with the words and without what was said of its lines', async () => {
    const { choose, said } = open(() => preview)
    await choose('Name;Gürtel\nOrla Vane;Elfenbein')
    await user.click(await screen.findByLabelText('Meaning of the word Elfenbein'))
    await user.click(await screen.findByRole('option', { name: 'Ivory' }))
    await press('Leave it out: line 2, Orla Vane')
    const before = said().at(-1)!
    await choose('Name;Gürtel\nOrla Vane;Elfenbein\nAdaeze Obi;Ivory')
    await waitFor(() => expect(said().at(-1)!.file).not.toBe(before.file))
    expect(said().at(-1)!.answers).toMatchObject({ leftOut: [], words: [{ word: 'Elfenbein' }] })
  })

  it('lists what was left out to be put right by hand, and leads to whom it added', async () => {
    const { choose } = open(() => ready)
    await choose('Name\nOrla Vane\nAgnes Whitlock')
    await press('Import 1 person')
    await screen.findByText('Left out, to be put right by hand:')
    expect(screen.getByText(/Line 3: Agnes Whitlock/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'See the 1 without a class' }).getAttribute('href')).toBe(
      '/people?view=roster&who=waiting',
    )
  })
})
