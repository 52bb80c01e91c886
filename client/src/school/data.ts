import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { door } from '../shared/door'

export type Ways = Schema['Conventions']
export type Teaching = Schema['Teaching']
export type Term = Schema['TermResponse']
export type TermText = Pick<Term, 'name' | 'start' | 'end' | 'closures' | 'testDays'>

export type SchoolText = Schema['SchoolText']
export type OwnAccount = Schema['AccountResponse']

export const schoolQuery = () => queryOptions({ queryKey: ['school'], queryFn: () => answer(api.GET('/api/school')) })

/** Its name and day stand on every page. */
export const saveSchool = door({
  key: ['school', 'save school'],
  send: (body: { text: SchoolText; version: number }) => answer(api.PUT('/api/school', { body })),
  keeps: (saved) => [[['school'], saved]],
  // Ways and teaching are parts of the same thing and share its version.
  changes: ['session', 'school', 'conventions', 'teaching', 'moving-in', 'today', 'people', 'lessons'],
})

export const accountQuery = () =>
  queryOptions({ queryKey: ['account'], queryFn: () => answer(api.GET('/api/account')) })

/** Ends every other sign-in. */
export const changePassword = door({
  key: ['school', 'change password'],
  send: (body: { current: string; wanted: string }) => answer(api.PUT('/api/account/password', { body })),
  changes: ['session', 'account', 'moving-in'],
})

export const endSignIn = door({
  key: ['school', 'end sign-in'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/account/sign-ins/{id}', { params: { path: { id } } })),
  changes: ['account'],
})

export const endOtherSignIns = door({
  key: ['school', 'end other sign-ins'],
  send: () => answer(api.DELETE('/api/account/sign-ins')),
  changes: ['account'],
})

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
  changes: ['teaching', 'school', 'plan', 'today', 'assignment-check', 'compare', 'conventions'],
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
