import { useMutation, useQuery } from '@tanstack/react-query'
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { answer, api } from '../api/client'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { connection } from './connection'
import { door } from './door'
import { Opening } from './Opening'
import { formsQuery } from './material'
import { sessionOf } from '../testing/heron-quay'
import { sessionQuery } from './session'

const rename = door({
  key: ['forms', 'rename'],
  send: ({ name }: { name: string }) => answer(api.POST('/api/forms', { body: { name } as never })),
  changes: ['forms'],
})

function Forms() {
  const forms = useQuery(formsQuery())
  const save = useMutation(rename)
  if (!forms.data) return <Opening of={[forms]} what="Opening the forms" />
  return (
    <>
      <p>{forms.data.map((form) => form.name).join(', ')}</p>
      <button type="button" onClick={() => void forms.refetch()}>
        again
      </button>
      <button type="button" onClick={() => save.mutate({ name: 'Lamp Form' })}>
        rename
      </button>
      <p>{save.isSuccess && 'renamed'}</p>
    </>
  )
}

describe('a room’s door', () => {
  it('asks again for everything a change touches, and is not through before that', async () => {
    const server = serve({
      'GET /api/forms': { body: [{ name: 'Lantern Form' }] },
      'POST /api/forms': { body: {} },
    })
    draw(<Forms />)
    await screen.findByText('Lantern Form')
    server.answer['GET /api/forms'] = { body: [{ name: 'Lamp Form' }] }
    await userEvent.click(screen.getByText('rename'))
    await screen.findByText('renamed')
    expect(screen.getByText('Lamp Form')).toBeTruthy()
  })
})

describe('a change that lands before the first answer has come', () => {
  it('is in what is shown', async () => {
    let come = () => {}
    const first = new Promise<void>((done) => (come = done))
    const server = serve({
      'GET /api/forms': () => first.then(() => ({ body: [{ name: 'Lantern Form' }] })),
      'POST /api/forms': { body: {} },
    })
    const { queries } = draw(<Forms />)
    await waitFor(() => expect(server.asked).toHaveLength(1))
    const landed = queries.getMutationCache().build(queries, rename).execute({ name: 'Lamp Form' })
    await waitFor(() => expect(server.asked).toHaveLength(2))
    server.answer['GET /api/forms'] = { body: [{ name: 'Lamp Form' }] }
    come()
    await landed
    await screen.findByText('Lamp Form')
  })
})

describe('what is on the screen', () => {
  it('stays when it cannot be asked for again, and the page says that it may be old', async () => {
    const server = serve({ 'GET /api/forms': { body: [{ name: 'Lantern Form' }] } })
    draw(<Forms />)
    await screen.findByText('Lantern Form')
    server.answer['GET /api/forms'] = 'away'
    await userEvent.click(screen.getByText('again'))
    await waitFor(() => expect(connection.isAway()).toBe(true))
    expect(screen.getByText('Lantern Form')).toBeTruthy()
    server.answer['GET /api/forms'] = { body: [{ name: 'Lantern Form' }] }
    await userEvent.click(screen.getByText('again'))
    await waitFor(() => expect(connection.isAway()).toBe(false))
  })

  it('says why when there is nothing yet, and tries again when asked', async () => {
    const server = serve({ 'GET /api/forms': { status: 404, body: refusal('There is no such form.') } })
    draw(<Forms />)
    await screen.findByText('There is no such form.')
    server.answer['GET /api/forms'] = { body: [{ name: 'Lantern Form' }] }
    await userEvent.click(screen.getByText('Try again'))
    await screen.findByText('Lantern Form')
  })
})

it('whoever is no longer signed in is asked to sign in, not to try again', async () => {
  const session = { ...sessionOf(null), token: 'new' }
  const { asked } = serve({ 'GET /api/forms': { status: 401 }, 'GET /api/session': { body: session } })
  const { queries } = draw(<Forms />)
  queries.setQueryData(sessionQuery().queryKey, { person: { id: 'noor', name: 'Noor', role: 'head' } } as never)
  await waitFor(() => expect(queries.getQueryData(sessionQuery().queryKey)?.person).toBeNull())
  // And the token of before is not used for signing in.
  function Session() {
    return <p>{useQuery(sessionQuery()).data?.token}</p>
  }
  draw(<Session />)
  await screen.findByText('new')
  expect(asked.map(({ what }) => what)).toContain('GET /api/session')
})
