import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '../api/client'
import { door } from '../shared/door'

export const todayQuery = () => queryOptions({ queryKey: ['today'], queryFn: () => answer(api.GET('/api/today')) })

/** What is left to do takes longer to find in a large school than what is next. */
export const leftToDoQuery = () =>
  queryOptions({ queryKey: ['today', 'left-to-do'], queryFn: () => answer(api.GET('/api/today/left-to-do')) })

export const movingInQuery = () =>
  queryOptions({ queryKey: ['moving-in'], queryFn: () => answer(api.GET('/api/moving-in')) })

/** Whether the way in is still shown to the head. */
export const putMovingInAside = door({
  key: ['today', 'put moving in aside'],
  send: (body: { putAside: boolean }) => answer(api.PUT('/api/moving-in', { body })),
  changes: ['moving-in', 'session'],
})
