import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactElement } from 'react'
import { describe, expect, it } from 'vitest'
import { answers, noor } from './heron-quay'
import { draw } from './render'
import { refusal, serve } from './server'

type Answers = Parameters<typeof serve>[0]

export interface EditedForm {
  /** "a class" */
  name: string
  at: string
  screen: ReactElement
  /** What is answered beside what the whole school answers. */
  answers?: Answers
  /** From the screen as it comes to the form. */
  open?: () => Promise<unknown>
  /** The label of a field of words, and what it says before anybody writes. */
  field: string
  before: string
  /** The same school after somebody else saved this; null for something new, which nobody else can have saved. */
  theirs: { answers: Answers; says: string } | null
  save: string
  /** Where it is sent, and the version it was begun from. */
  sent: string
  version: number | null
  /** What the server calls the field. */
  path: string
  /** False for what must not lie about in the browser. */
  survivesReload?: boolean
}

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const MINE = 'Noor’s'

/** What every form of the application promises to whoever writes in it. */
export function keepsEveryEdit(form: EditedForm) {
  const field = () => screen.getByLabelText<HTMLInputElement>(form.field)
  const open = async () => {
    const server = serve({ ...answers, ...form.answers, [form.sent]: {} })
    const drawn = draw(form.screen, { at: form.at, as: noor })
    await form.open?.()
    await screen.findByLabelText(form.field)
    return { ...server, ...drawn }
  }
  const write = async () => {
    await user.clear(field())
    await user.paste(MINE)
  }
  const save = () => user.click(screen.getByRole('button', { name: form.save }))
  const requests = (asked: { what: string; body: unknown }[]) => asked.filter(({ what }) => what === form.sent)

  describe(form.name, () => {
    it('is sent with the version it was begun from', async () => {
      const { asked } = await open()
      expect(field().value).toBe(form.before)
      await write()
      await save()
      await waitFor(() => expect(requests(asked)).toHaveLength(1))
      const body = requests(asked)[0]!.body as { version?: number }
      expect(JSON.stringify(body)).toContain(MINE)
      expect(body.version ?? null).toBe(form.version)
    })

    it('says beside its field what was refused, and keeps what was written', async () => {
      const { answer } = await open()
      answer[form.sent] = {
        status: 400,
        body: refusal('That cannot be.', { errors: { [form.path]: ['Say it shorter.'] } }),
      }
      await write()
      await save()
      await screen.findByText('Say it shorter.')
      await waitFor(() => expect(field().getAttribute('aria-invalid')).toBe('true'))
      expect(field().value).toBe(MINE)
    })

    it('keeps what was written while the server is away, and saves it when it is back', async () => {
      const { answer, asked } = await open()
      answer[form.sent] = 'away'
      await write()
      await save()
      await screen.findByText(/does not answer/)
      expect(field().value).toBe(MINE)
      answer[form.sent] = {}
      await save()
      await waitFor(() => expect(requests(asked)).toHaveLength(2))
      expect(JSON.stringify(requests(asked)[1]!.body)).toBe(JSON.stringify(requests(asked)[0]!.body))
    })

    it('asks before it is left with words in it', async () => {
      const { router } = await open()
      await write()
      await user.click(screen.getByRole('link', { name: 'Elsewhere' }))
      const question = await screen.findByRole('alertdialog')
      await user.click(within(question).getByRole('button', { name: 'Keep writing' }))
      await waitFor(() => expect(screen.queryByRole('alertdialog')).toBeNull())
      expect(field().value).toBe(MINE)
      expect(router.state.location.pathname).not.toBe('/elsewhere')
    })

    it(form.survivesReload === false ? 'leaves nothing in the browser' : 'is there after a reload', async () => {
      const { unmount } = await open()
      await write()
      const kept = () => Object.values(sessionStorage).some((text) => String(text).includes(MINE))
      await waitFor(() => expect(kept()).toBe(form.survivesReload !== false))
      unmount()
      await open()
      expect(field().value).toBe(form.survivesReload === false ? form.before : MINE)
    })

    if (form.theirs) {
      const { theirs } = form
      it('stays as it was begun when somebody else saves, and is not saved over theirs without being told', async () => {
        const { answer, asked, queries } = await open()
        await write()
        Object.assign(answer, theirs.answers)
        await queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' })
        await screen.findByText(/^Somebody else has saved this/)
        expect(field().value).toBe(MINE)
        answer[form.sent] = { status: 409, body: refusal('It was changed meanwhile.', { changes: ['Its name.'] }) }
        await save()
        await screen.findByText('Its name.')
        expect((requests(asked)[0]!.body as { version: number }).version).toBe(form.version)
        await user.click(screen.getByRole('button', { name: 'Show what is there now' }))
        await waitFor(() => expect(field().value).toBe(theirs.says))
      })

      it('is told by its own save that somebody was quicker, and can then be saved over theirs', async () => {
        const { answer, asked } = await open()
        await write()
        Object.assign(answer, theirs.answers)
        answer[form.sent] = { status: 409, body: refusal('It was changed meanwhile.', { changes: ['Its name.'] }) }
        await save()
        await user.click(await screen.findByRole('button', { name: /^Keep mine/ }))
        answer[form.sent] = {}
        await save()
        await waitFor(() => expect(requests(asked)).toHaveLength(2))
        expect(JSON.stringify(requests(asked)[1]!.body)).toContain(MINE)
        expect((requests(asked)[1]!.body as { version: number }).version).not.toBe(form.version)
      })
    }
  })
}
