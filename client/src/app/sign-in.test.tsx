import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { waiting } from '../shared/waiting'
import { sessionOf } from '../testing/heron-quay'
import { draw } from '../testing/render'
import { refusal, serve } from '../testing/server'
import { SignInScreen } from './SignInScreen'
import { WelcomeScreen } from './WelcomeScreen'

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null })
const press = async (name: string | RegExp) => user.click(await screen.findByRole('button', { name }))
const session = { 'GET /api/session': { body: sessionOf(null) } }

const way = '/welcome#0199c000000070008000000000000001.code'

describe('Coming in', () => {
  afterEach(() => waiting.forget('mark'))

  it('asks for the code after the password, and says when it does not fit', async () => {
    const server = serve({
      ...session,
      'POST /api/session/sign-in': { body: { secondFactor: true } },
      'POST /api/session/second-factor': { status: 401, body: refusal('This code does not let you in.') },
    })
    draw(<SignInScreen school="Heron Quay Tai Chi" isDemo={false} mails={false} />)
    await user.type(screen.getByLabelText('Email'), 'noor@heronquay.example')
    await user.type(screen.getByLabelText('Password'), 'lanterns over the quay')
    await press('Sign in')
    await user.type(await screen.findByLabelText('Code'), '123 456')
    await press('Sign in')
    await screen.findByText('This code does not let you in.')
    expect(server.asked.at(-1)!.body).toEqual({ code: '123 456' })
    await press('Begin again')
    expect(screen.getByLabelText<HTMLInputElement>('Password').value).toBe('')
  })

  it('says that marks wait for whoever tapped them', async () => {
    serve(session)
    await waiting.add({ id: 'mark', kind: 'nothing sends it', variables: {}, by: 'jonas', says: 'Imke R.: here' })
    draw(<SignInScreen school="Heron Quay Tai Chi" isDemo={false} mails={false} />)
    await screen.findByText(/1 mark is not sent yet/)
  })

  it('takes a password through a letter when it was written twice the same', async () => {
    const server = serve({
      ...session,
      'POST /api/session/letter': {
        body: {
          schoolName: 'Heron Quay Tai Chi',
          name: 'Runa Falk',
          email: 'runa@heronquay.example',
          kind: 'invitation',
        },
      },
      'POST /api/session/welcome': { body: { secondFactor: false } },
    })
    const { router } = draw(<WelcomeScreen school="Heron Quay Tai Chi" />, { at: way })
    await user.type(await screen.findByLabelText('Password, 12 characters or more'), 'a heron on one leg')
    await user.type(screen.getByLabelText('The same again'), 'a heron on one')
    await screen.findByText('The two are not the same yet.')
    await user.type(screen.getByLabelText('The same again'), ' leg')
    await press('Come in')
    await waitFor(() => expect(router.state.location.pathname).toBe('/'))
    expect(server.asked.find(({ what }) => what === 'POST /api/session/welcome')!.body).toEqual({
      account: '0199c000-0000-7000-8000-000000000001',
      code: 'code',
      password: 'a heron on one leg',
    })
  })

  it('leads on from a letter that no longer opens anything', async () => {
    serve({
      ...session,
      'POST /api/session/letter': { status: 409, body: refusal('This letter no longer opens anything.') },
    })
    const { router } = draw(<WelcomeScreen school="Heron Quay Tai Chi" />, { at: way })
    await screen.findByText('This letter no longer opens anything.')
    await press('Go to the sign-in')
    expect(router.state.location.pathname).toBe('/')
  })
})
