import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query'
import { answer, api, fetchFile, stream, type Schema } from '../api/client'
import { door } from '../shared/door'
import { makePasskey } from '../shared/passkeys'

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

export type SecondFactor = Schema['SecondFactorResponse']

export const secondFactorQuery = () =>
  queryOptions({ queryKey: ['second-factor'], queryFn: () => answer(api.GET('/api/account/second-factor')) })

const ownSignIn = ['session', 'account', 'second-factor', 'staff'] as const

/** Answers with what the telephone scans; nothing is asked for at sign-in before a first code has come back. */
export const beginAuthenticator = door({
  key: ['school', 'begin authenticator'],
  send: (body: { password: string }) => answer(api.POST('/api/account/second-factor/authenticator', { body })),
})

export const confirmAuthenticator = door({
  key: ['school', 'confirm authenticator'],
  send: (body: { code: string }) => answer(api.PUT('/api/account/second-factor/authenticator', { body })),
  changes: ownSignIn,
})

export const turnOffAuthenticator = door({
  key: ['school', 'turn off authenticator'],
  send: (body: { password: string }) => answer(api.POST('/api/account/second-factor/authenticator/off', { body })),
  changes: ownSignIn,
})

export const renewRecoveryCodes = door({
  key: ['school', 'renew recovery codes'],
  send: (body: { password: string }) => answer(api.POST('/api/account/second-factor/recovery-codes', { body })),
  changes: ['second-factor'],
})

/** The device is asked in between: it may say no, or nothing. */
export const addPasskey = door({
  key: ['school', 'add passkey'],
  send: async ({ password, name }: { password: string; name: string }) => {
    const { json } = await answer(api.POST('/api/account/second-factor/passkeys/options', { body: { password } }))
    const made = await makePasskey(json)
    await answer(api.POST('/api/account/second-factor/passkeys', { body: { json: made, name } }))
  },
  changes: ownSignIn,
})

export const removePasskey = door({
  key: ['school', 'remove passkey'],
  send: ({ id, password }: { id: string; password: string }) =>
    answer(
      api.POST('/api/account/second-factor/passkeys/{id}/removal', { params: { path: { id } }, body: { password } }),
    ),
  changes: ownSignIn,
})

export type Staff = Schema['StaffResponse']
export type Member = Schema['StaffMember']
export type StaffText = Schema['StaffText'] & { email: string }

export const staffQuery = () => queryOptions({ queryKey: ['staff'], queryFn: () => answer(api.GET('/api/staff')) })

/** Who teaches stands on many pages; what somebody may do, and where, hangs on it. */
const whoTeaches = ['staff', 'letters', 'journal', 'people', 'session', 'moving-in'] as const

/** Without a version somebody new is invited. */
export const saveStaff = door({
  key: ['school', 'save staff'],
  send: async ({ id, text, version }: { id: string; text: StaffText; version: number | null }) => {
    const { email, ...rest } = text
    if (version === null) await answer(api.POST('/api/staff', { body: { id, text: rest, email } }))
    else await answer(api.PUT('/api/staff/{id}', { params: { path: { id } }, body: { text: rest, email, version } }))
  },
  changes: whoTeaches,
})

/** What is done to somebody's sign-in, each by its own address. */
export const actOnSignIn = door({
  key: ['school', 'act on sign-in'],
  send: ({ id, act }: { id: string; act: keyof typeof acts }) => acts[act]({ params: { path: { id } } }),
  changes: whoTeaches,
})

type AboutMember = { params: { path: { id: string } } }

const acts = {
  write: (about: AboutMember) => answer(api.POST('/api/staff/{id}/letter', about)),
  lock: (about: AboutMember) => answer(api.PUT('/api/staff/{id}/lock', about)),
  unlock: (about: AboutMember) => answer(api.DELETE('/api/staff/{id}/lock', about)),
  close: (about: AboutMember) => answer(api.PUT('/api/staff/{id}/closing', about)),
  reopen: (about: AboutMember) => answer(api.DELETE('/api/staff/{id}/closing', about)),
  signOut: (about: AboutMember) => answer(api.DELETE('/api/staff/{id}/sign-ins', about)),
  dropSecondFactor: (about: AboutMember) => answer(api.DELETE('/api/staff/{id}/second-factor', about)),
}

export const saveSecondFactorRule = door({
  key: ['school', 'save rule of second factor'],
  send: (body: { secondFactorForHeads: boolean; version: number }) => answer(api.PUT('/api/staff/rule', { body })),
  changes: ['staff', 'school', 'conventions', 'teaching', 'journal'],
})

export const lettersQuery = () =>
  queryOptions({ queryKey: ['letters'], queryFn: () => answer(api.GET('/api/letters')) })

/** The newest sixty, and sixty more at a time. */
export const journalQuery = (find: string) =>
  infiniteQueryOptions({
    queryKey: ['journal', find],
    queryFn: ({ pageParam }) =>
      answer(
        api.GET('/api/journal', { params: { query: { find: find || undefined, after: pageParam ?? undefined } } }),
      ),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: keepPreviousData,
  })

/** The whole school as one open file. */
export const writeArchive = door({
  key: ['school', 'write archive'],
  send: ({ heard, signal }: { heard: (bytes: number, of: number) => void; signal: AbortSignal }) =>
    fetchFile('/api/archive', heard, signal),
})

/** Into a school that has nothing yet; whoever reads it signs in anew. */
export const readArchive = door({
  key: ['school', 'read archive'],
  send: ({
    file,
    heard,
    signal,
  }: {
    file: File
    heard: (progress: Schema['ArchiveProgress']) => void
    signal: AbortSignal
  }) => stream<Schema['ArchiveProgress']>('/api/archive', file, heard, signal),
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
