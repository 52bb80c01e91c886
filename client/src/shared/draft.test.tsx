import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { Problem } from '../api/problem'
import { draw } from '../testing/render'
import { fieldPath, useDraft } from './draft'
import { leave } from './leaving'
import { DraftProblem, DraftRows, NumberInput, SaveBar, TextField } from './fields'

interface Text {
  name: string
  minutes: number
  hours: { to: string }[]
}

interface Kept {
  text: Text
  version: number
}

const first: Kept = { text: { name: 'Tuesday evening', minutes: 90, hours: [] }, version: 7 }

/** A class as its form shows it, and what somebody else saves meanwhile. */
function Form({
  save,
  theirs = { text: { ...first.text, name: 'Tuesday, theirs' }, version: 8 },
}: {
  save: (text: Text, version: number | null) => Promise<unknown>
  theirs?: Kept
}) {
  const [kept, setKept] = useState(first)
  const draft = useDraft<Text>({ about: ['class', 'one'], what: 'the class Tuesday evening', ...kept })
  return (
    <form noValidate onSubmit={draft.submit(save)}>
      <TextField draft={draft} name="name" label="Name" />
      <NumberInput draft={draft} name="minutes" label="Minutes" />
      <DraftRows draft={draft} name="hours" label="Open" add="Add hours" make={() => ({ to: '21' })}>
        {(_, at) => <TextField draft={draft} name={`hours.${at}.to`} label={`To ${at + 1}`} />}
      </DraftRows>
      <DraftProblem draft={draft} shown={(field) => /^(name|minutes|hours)/.test(field)} />
      <SaveBar draft={draft} save="Save the class" />
      <p>{draft.dirty ? 'not saved' : 'saved'}</p>
      <button type="button" onClick={() => setKept(theirs)}>
        somebody else saves
      </button>
    </form>
  )
}

const name = () => screen.getByLabelText<HTMLInputElement>('Name')
const type = async (text: string) => {
  await userEvent.clear(name())
  await userEvent.type(name(), text)
}

describe('a draft', () => {
  it('follows what is kept while nobody has touched it', async () => {
    draw(<Form save={vi.fn()} />)
    await userEvent.click(screen.getByText('somebody else saves'))
    await waitFor(() => expect(name().value).toBe('Tuesday, theirs'))
    expect(screen.getByText('saved')).toBeTruthy()
  })

  it('keeps its words and the version they were begun from, however much is read meanwhile', async () => {
    const save = vi.fn(() => Promise.reject(new Problem(409, 'The class was changed.', {}, ['name'])))
    draw(<Form save={save} />)
    await type('Mine')
    await userEvent.click(screen.getByText('somebody else saves'))
    expect(name().value).toBe('Mine')
    expect(screen.getByRole('alert').textContent).toContain('Somebody else has saved this')
    await userEvent.click(screen.getByText('Save the class'))
    await waitFor(() => expect(save).toHaveBeenCalledWith({ ...first.text, name: 'Mine' }, 7))
    expect((await screen.findByRole('alert')).textContent).toContain('The class was changed.')
    expect(name().value).toBe('Mine')
  })

  it('is saved over theirs only when that is said', async () => {
    const save = vi.fn(() => Promise.resolve())
    draw(<Form save={save} />)
    await type('Mine')
    await userEvent.click(screen.getByText('somebody else saves'))
    await userEvent.click(screen.getByText('Keep mine, to save it over theirs'))
    await userEvent.click(screen.getByText('Save the class'))
    await waitFor(() => expect(save).toHaveBeenCalledWith({ ...first.text, name: 'Mine' }, 8))
  })

  it('gives way to theirs only when that is said', async () => {
    draw(<Form save={vi.fn()} />)
    await type('Mine')
    await userEvent.click(screen.getByText('somebody else saves'))
    await userEvent.click(screen.getByText('Show what is there now'))
    await waitFor(() => expect(name().value).toBe('Tuesday, theirs'))
  })

  it('is not dirty because the server writes the same in another order', async () => {
    const other = { hours: [], minutes: 90, name: 'Mine' }
    draw(<Form save={() => Promise.resolve()} theirs={{ text: other, version: 8 }} />)
    await type('Mine')
    await userEvent.click(screen.getByText('Save the class'))
    await userEvent.click(screen.getByText('somebody else saves'))
    await screen.findByText('saved')
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('is the very same in every part that a key did not touch', async () => {
    const hours = new Set<unknown>()
    function Watched() {
      const draft = useDraft<Text>({
        about: ['class', 'watched'],
        what: 'the class',
        text: { ...first.text, hours: [{ to: '21' }] },
        version: 7,
      })
      hours.add(draft.text.hours)
      return (
        <>
          <TextField draft={draft} name="name" label="Name" />
          <button type="button" onClick={() => draft.change({ minutes: 60 })}>
            shorter
          </button>
        </>
      )
    }
    draw(<Watched />)
    await type('Thursday')
    await userEvent.click(screen.getByText('shorter'))
    expect(name().value).toBe('Thursday')
    expect(hours.size).toBe(1)
  })

  it('is not dirty when it reads again as it was', async () => {
    draw(<Form save={vi.fn()} />)
    await userEvent.type(name(), 'x')
    expect(screen.getByText('not saved')).toBeTruthy()
    await userEvent.type(name(), '{Backspace}')
    await screen.findByText('saved')
  })

  it('lets a number be emptied, takes a comma, and asks for it before anything is sent', async () => {
    const save = vi.fn(() => Promise.resolve())
    draw(<Form save={save} />)
    const minutes = screen.getByLabelText<HTMLInputElement>('Minutes')
    await userEvent.clear(minutes)
    expect(minutes.value).toBe('')
    await userEvent.click(screen.getByText('Save the class'))
    expect((await screen.findByRole('alert')).textContent).toBe('Give a number.')
    expect(save).not.toHaveBeenCalled()
    await userEvent.type(minutes, '82,5')
    await userEvent.click(screen.getByText('Save the class'))
    await waitFor(() => expect(save).toHaveBeenCalledWith({ ...first.text, minutes: 82.5 }, 7))
  })

  it('puts what is wrong beside its field, and by itself what belongs to none', async () => {
    const refused = new Problem(
      400,
      'Nothing was saved.',
      { name: ['Taken.'], 'hours[1].to': ['Too late.'], hall: ['Too small.'] },
      [],
    )
    draw(<Form save={() => Promise.reject(refused)} />)
    await userEvent.click(screen.getByText('Add hours'))
    await userEvent.click(screen.getByText('Add hours'))
    await userEvent.click(screen.getByText('Save the class'))
    await screen.findByText('Taken.')
    expect(name().getAttribute('aria-invalid')).toBe('true')
    expect(screen.getByLabelText('To 2').getAttribute('aria-invalid')).toBe('true')
    expect(screen.getByLabelText('To 1').getAttribute('aria-invalid')).toBe('false')
    expect(screen.getByText('Too small.')).toBeTruthy()
    expect(screen.getAllByText('Taken.')).toHaveLength(1)
  })

  it('keeps what is typed in a row when another is taken out or moved', async () => {
    draw(<Form save={vi.fn()} />)
    for (const to of ['18', '19', '20']) {
      await userEvent.click(screen.getByText('Add hours'))
      const rows = screen.getAllByLabelText<HTMLInputElement>(/^To/)
      await userEvent.clear(rows.at(-1)!)
      await userEvent.type(rows.at(-1)!, to)
    }
    await userEvent.click(screen.getByLabelText('Take out 1 of Open'))
    await userEvent.click(screen.getByLabelText('Move up 2 of Open'))
    expect(screen.getAllByLabelText<HTMLInputElement>(/^To/).map((row) => row.value)).toEqual(['20', '19'])
  })

  it('survives a reload, and is gone when it is saved', async () => {
    const save = vi.fn(() => Promise.resolve())
    const before = draw(<Form save={save} />)
    await type('Half a na')
    before.unmount()
    draw(<Form save={save} />)
    expect(name().value).toBe('Half a na')
    expect(screen.getByText('not saved')).toBeTruthy()
    await userEvent.click(screen.getByText('Save the class'))
    await waitFor(() => expect(save).toHaveBeenCalled())
    expect(sessionStorage.length).toBe(0)
  })

  it('asks before it is left, and stays or goes as it is told', async () => {
    const { router } = draw(<Form save={vi.fn()} />)
    await type('Mine')
    await userEvent.click(screen.getByText('Elsewhere'))
    expect((await screen.findByRole('alertdialog')).textContent).toContain(
      'You have not saved the class Tuesday evening.',
    )
    await userEvent.click(screen.getByText('Keep writing'))
    expect(router.state.location.pathname).toBe('/here')
    expect(name().value).toBe('Mine')
    await userEvent.click(screen.getByText('Elsewhere'))
    await userEvent.click(await screen.findByRole('button', { name: 'Leave without saving' }))
    await waitFor(() => expect(router.state.location.pathname).toBe('/elsewhere'))
  })

  it('is not written in while it is saved, and whoever goes meanwhile goes when it is there, without being asked', async () => {
    let saved = () => {}
    const save = vi.fn(() => new Promise<void>((done) => (saved = done)))
    const { router } = draw(<Form save={save} />)
    await type('Mine')
    await userEvent.click(screen.getByText('Save the class'))
    await userEvent.type(name(), ' and more')
    expect(name().value).toBe('Mine')
    await userEvent.click(screen.getByText('Elsewhere'))
    expect(router.state.location.pathname).toBe('/here')
    expect(screen.queryByRole('alertdialog')).toBeNull()
    saved()
    await waitFor(() => expect(router.state.location.pathname).toBe('/elsewhere'))
  })

  it('can be written in again no sooner than it shows what is kept', async () => {
    let landed = () => {}
    draw(<Form save={() => new Promise<void>((done) => (landed = done))} />)
    await type('Mine')
    await userEvent.click(screen.getByText('Save the class'))
    await waitFor(() => expect(name().readOnly).toBe(true))
    // What follows from a save is read before the save is over.
    await userEvent.click(screen.getByText('somebody else saves'))
    const writable: string[] = []
    const watching = new MutationObserver(() => !name().readOnly && writable.push(name().value))
    watching.observe(name(), { attributes: true })
    landed()
    await waitFor(() => expect(name().value).toBe('Tuesday, theirs'))
    watching.disconnect()
    expect(writable[0]).toBe('Tuesday, theirs')
  })

  it('asks after all whoever wanted to go while it was saved, when that is refused', async () => {
    let refuse: (error: Error) => void = vi.fn()
    const save = () => new Promise((_, refused) => (refuse = refused))
    const { router } = draw(<Form save={save} />)
    await type('Mine')
    await userEvent.click(screen.getByText('Save the class'))
    await userEvent.click(screen.getByText('Elsewhere'))
    refuse(new Problem(0, 'The server is away.', {}, []))
    await userEvent.click(await screen.findByText('Keep writing'))
    expect(router.state.location.pathname).toBe('/here')
    expect(name().value).toBe('Mine')
    expect(screen.getByText('The server is away.')).toBeTruthy()
  })

  it('does not ask when there is nothing to lose', async () => {
    const { router } = draw(<Form save={vi.fn()} />)
    await userEvent.click(screen.getByText('Elsewhere'))
    await waitFor(() => expect(router.state.location.pathname).toBe('/elsewhere'))
    expect(screen.queryByRole('alertdialog')).toBeNull()
  })
})

it('finds a field by the path the server calls it', () => {
  expect(fieldPath('patterns[2].passes[0].name')).toBe('patterns.2.passes.0.name')
})

it('of something new is another thing once it has been saved, also where the form stays, and the same until then', async () => {
  const answers: { saved: () => void; refused: (why: Problem) => void }[] = []
  const save = vi.fn<(id: string) => Promise<void>>(
    () => new Promise((saved, refused) => answers.push({ saved, refused })),
  )
  const close = vi.fn()
  function Added() {
    const draft = useDraft({ about: ['cohort', 'new'], what: 'the new cohort', text: { name: '' }, version: null })
    return (
      <form noValidate onSubmit={draft.submit(() => save(draft.made), close)}>
        <TextField draft={draft} name="name" label="Name" />
        <DraftProblem draft={draft} shown={() => false} />
        <SaveBar draft={draft} save="Add the cohort" />
      </form>
    )
  }
  draw(<Added />)
  const add = () => userEvent.click(screen.getByRole('button', { name: 'Add the cohort' }))
  await type('Fern')
  await add()
  answers[0]!.refused(new Problem(0, 'The server does not answer.', {}, []))
  await screen.findByText('The server does not answer.')
  await add()
  // Whoever opens the same form while it is saved finds it still there.
  leave(() => undefined)
  answers[1]!.saved()
  await waitFor(() => expect(name().value).toBe(''))
  expect(close).not.toHaveBeenCalled()
  await type('Copper')
  await add()
  const [first, again, next] = save.mock.calls.map(([id]) => id)
  expect(again).toBe(first)
  expect(next).not.toBe(first)
})
