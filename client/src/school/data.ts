import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { door } from '../shared/door'

export type Ways = Schema['Conventions']
export type Teaching = Schema['Teaching']
export type Term = Schema['TermResponse']
export type TermText = Pick<Term, 'name' | 'start' | 'end' | 'closures' | 'testDays'>

export const teachingQuery = () =>
  queryOptions({ queryKey: ['teaching'], queryFn: () => answer(api.GET('/api/teaching')) })

/** In force everywhere at once. */
export const saveConventions = door({
  key: ['school', 'save conventions'],
  send: (body: { ways: Ways; version: number }) => answer(api.PUT('/api/conventions', { body })),
  keeps: (saved) => [[['conventions'], saved]],
  changes: 'everything',
})

export const saveTeaching = door({
  key: ['school', 'save teaching'],
  send: (body: { teaching: Teaching; version: number }) => answer(api.PUT('/api/teaching', { body })),
  keeps: (saved) => [[['teaching'], saved]],
  changes: ['teaching', 'plan', 'today', 'assignment-check', 'compare', 'conventions'],
})

/** Without a version it is new. */
export const saveTerm = door({
  key: ['school', 'save term'],
  send: async ({ id, text, version }: { id: string; text: TermText; version: number | null }) => {
    if (version === null) await answer(api.POST('/api/terms', { body: { ...text, id } }))
    else await answer(api.PUT('/api/terms/{id}', { params: { path: { id } }, body: { ...text, version } }))
  },
  changes: ['terms', 'plan', 'today', 'lessons', 'assignments'],
})
