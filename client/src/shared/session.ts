import { queryOptions, useQuery } from '@tanstack/react-query'
import { createContext, useContext } from 'react'
import { answer, api, keepToken } from '../api/client'
import { writeAs } from '../ui/writing'
import { clock } from './clock'
import { door } from './door'
import { orKept } from './queries'
import { SESSION } from './kept-name'
import { answerWithPasskey } from './passkeys'

/** Who is signed in, where, and what day it is there. */
export const sessionQuery = () =>
  queryOptions({
    queryKey: ['session'],
    queryFn: async ({ client, queryKey }) => {
      const ask = async () => {
        const fresh = await answer(api.GET('/api/session'))
        clock.set(fresh)
        return fresh
      }
      const session = await orKept(SESSION, ask, client.getQueryData(queryKey) === undefined)
      keepToken(session.token)
      writeAs(session)
      return session
    },
    staleTime: Infinity,
  })

export const signIn = door({
  key: ['session', 'sign in'],
  send: (body: { email: string; password: string }) => answer(api.POST('/api/session/sign-in', { body })),
  changes: ['session'],
})

/** The second step, for whoever has just given their password. */
export const signInWithCode = door({
  key: ['session', 'sign in with code'],
  send: (body: { code: string }) => answer(api.POST('/api/session/second-factor', { body })),
  changes: ['session'],
})

export const signInWithPasskey = door({
  key: ['session', 'sign in with passkey'],
  send: async () => {
    const { json } = await answer(api.POST('/api/session/passkey/options'))
    await answer(api.POST('/api/session/passkey', { body: { json: await answerWithPasskey(json) } }))
  },
  changes: ['session'],
})

export interface WayIn {
  account: string
  code: string
}

/** Whose letter it is; a way in that has closed is refused. */
export const letterQuery = (way: WayIn) =>
  queryOptions({
    queryKey: ['letter', way.account, way.code],
    queryFn: () => answer(api.POST('/api/session/letter', { body: way })),
    retry: false,
    staleTime: Infinity,
  })

export const welcome = door({
  key: ['session', 'welcome'],
  send: (body: WayIn & { password: string }) => answer(api.POST('/api/session/welcome', { body })),
  changes: ['session'],
})

export const askForLetter = door({
  key: ['session', 'ask for letter'],
  send: (body: { email: string }) => answer(api.POST('/api/session/forgotten', { body })),
})

/** At the address where the demo was; whoever begins it signs in there as nobody the demo knows. */
export const beginOwnSchool = door({
  key: ['session', 'begin own school'],
  send: async (body: { name: string; email: string; password: string }) => {
    await answer(api.POST('/api/own-school', { body }))
    keepToken((await answer(api.GET('/api/session'))).token)
    await answer(api.POST('/api/session/sign-in', { body: { email: body.email, password: body.password } }))
  },
  changes: ['session'],
})

export const removeDemo = door({
  key: ['session', 'remove demo'],
  send: () => answer(api.DELETE('/api/demo')),
  changes: ['session'],
})

export const signOut = door({
  key: ['session', 'sign out'],
  send: () => answer(api.POST('/api/session/sign-out')),
  changes: ['session'],
})

export const useSession = () => useQuery(sessionQuery())

type Session = NonNullable<ReturnType<typeof useSession>['data']>

/** Whoever is signed in, with what everybody at this screen may know. */
export interface Signed extends Session {
  person: NonNullable<Session['person']>
  isHead: boolean
}

/** Given by the house to everything behind the sign-in: it changes with what is drawn, never before it. */
export const SignedIn = createContext<Signed | null>(null)

export const signedAs = (session: Session, person: Signed['person']): Signed => ({
  ...session,
  person,
  isHead: person.role === 'head',
})

/** For screens behind the sign-in, where there always is one. */
export function useSignedIn(): Signed {
  const signed = useContext(SignedIn)
  if (!signed) throw new Error('This screen is only shown to somebody who is signed in.')
  return signed
}
