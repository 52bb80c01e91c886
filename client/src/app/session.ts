import { useQuery } from '@tanstack/react-query'
import { answer, api, keepToken } from '../api/client'

/** Who is signed in, where, and what day it is there. */
export function useSession() {
  return useQuery({
    queryKey: ['session'],
    queryFn: async () => {
      const session = await answer(api.GET('/api/session'))
      keepToken(session.token)
      return session
    },
    staleTime: Infinity,
  })
}

/** For screens behind the sign-in, where there always is one. */
export function useSignedIn() {
  const { data } = useSession()
  if (!data?.person) throw new Error('This screen is only shown to somebody who is signed in.')
  return { ...data, person: data.person, isHead: data.person.role === 'head' }
}
