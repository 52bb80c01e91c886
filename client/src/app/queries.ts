import { QueryClient } from '@tanstack/react-query'
import { Problem } from '../api/problem'

/** A server or database that is away is asked again; a refusal is not. */
const away = (error: unknown) => error instanceof Problem && (error.status === 0 || error.status === 503)

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => away(error) && count < 5,
      retryDelay: (count) => Math.min(500 * 2 ** count, 4000),
      staleTime: 5_000,
    },
  },
})
