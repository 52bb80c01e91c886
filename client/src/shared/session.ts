import { queryOptions, useQuery } from '@tanstack/react-query'
import { createContext, useContext } from 'react'
import { answer, api, keepToken } from '../api/client'
import { writeAs } from '../ui/writing'
import { door } from './door'

/** Who is signed in, where, and what day it is there. */
export const sessionQuery = () =>
  queryOptions({
    queryKey: ['session'],
    queryFn: async () => {
      const session = await answer(api.GET('/api/session'))
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
