import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, keepToken } from '../api/client'
import { door } from './door'

/** Who is signed in, where, and what day it is there. */
export const sessionQuery = () =>
  queryOptions({
    queryKey: ['session'],
    queryFn: async () => {
      const session = await answer(api.GET('/api/session'))
      keepToken(session.token)
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

/** For screens behind the sign-in, where there always is one. */
export function useSignedIn() {
  const { data } = useSession()
  if (!data?.person) throw new Error('This screen is only shown to somebody who is signed in.')
  return { ...data, person: data.person, isHead: data.person.role === 'head' }
}
