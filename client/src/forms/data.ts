import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'
import { door } from '../shared/door'
import type { Kind } from '../shared/queries'

export type Form = Schema['FormResponse']
export type FormText = Schema['FormText']
export type Position = Schema['Position']
export type PostureText = Schema['PostureText']
export type Count = Schema['Count']

/** Parts of a posture that are written anew, or what becomes of it as it stands. */
export type ChangePosture = (part: Partial<PostureText> | ((text: PostureText) => Partial<PostureText>)) => void
export type { Side } from '../shared/material'

/** Whatever is made of postures and forms. */
const material: readonly Kind[] = [
  'forms',
  'form',
  'postures',
  'posture',
  'links',
  'principles',
  'compare',
  'numbers',
  'hall',
  'coverage',
  'safety',
  'assignment-check',
  'assignments',
  'plan',
]

export const linksQuery = () => queryOptions({ queryKey: ['links'], queryFn: () => answer(api.GET('/api/links')) })

export const effortQuery = (id: string, side: Schema['Side']) =>
  queryOptions({
    queryKey: ['effort', id, side],
    queryFn: () => answer(api.GET('/api/postures/{id}/effort', { params: { path: { id }, query: { side } } })),
  })

export const numbersQuery = (form: Form, switches: Schema['NumberingSwitches'] | undefined) =>
  queryOptions({
    queryKey: ['numbers', form.id, form.version, switches],
    enabled: switches !== undefined,
    queryFn: () => answer(api.GET('/api/forms/{id}/numbers', { params: { path: { id: form.id }, query: switches! } })),
  })

export const compareQuery = (form: Form, kind: 'form' | 'cohort', id: string) =>
  queryOptions({
    queryKey: ['compare', form.id, form.version, kind, id],
    enabled: Boolean(id),
    queryFn: () =>
      answer(
        api.GET('/api/forms/{id}/compare', {
          params: { path: { id: form.id }, query: kind === 'form' ? { withForm: id } : { withCohort: id } },
        }),
      ),
  })

export const hallFitQuery = (form: Form, body: Schema['HallFitHallRequest'], enabled: boolean) =>
  queryOptions({
    queryKey: ['hall', form.id, form.version, body],
    enabled,
    queryFn: () => answer(api.POST('/api/forms/{id}/hall', { params: { path: { id: form.id } }, body })),
    placeholderData: (before) => before,
  })

/** Saves a form as a whole; the answer is what follows from it. */
export const saveForm = door({
  key: ['forms', 'save form'],
  send: ({ id, text, version }: { id: string; text: FormText; version: number }) =>
    answer(api.PUT('/api/forms/{id}', { params: { path: { id } }, body: { text, version } })),
  keeps: (saved, { id }) => [[['form', id], saved]],
  changes: ['forms', 'compare', 'numbers', 'hall', 'assignments', 'plan', 'coverage', 'assignment-check'],
})

export const addForm = door({
  key: ['forms', 'add form'],
  send: (body: { id: string; text: FormText }) => answer(api.POST('/api/forms', { body })),
  changes: material,
})

export const removeForm = door({
  key: ['forms', 'remove form'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/forms/{id}', { params: { path: { id } } })),
  changes: material,
})

export const savePosture = door({
  key: ['forms', 'save posture'],
  send: ({ id, text, version }: { id: string; text: PostureText; version: number }) =>
    answer(api.PUT('/api/postures/{id}', { params: { path: { id } }, body: { text, version } })),
  keeps: (saved, { id }) => [[['posture', id, undefined], saved]],
  changes: material,
})

export const addPosture = door({
  key: ['forms', 'add posture'],
  send: (body: { id: string; text: PostureText }) => answer(api.POST('/api/postures', { body })),
  changes: material,
})

export const removePosture = door({
  key: ['forms', 'remove posture'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/postures/{id}', { params: { path: { id } } })),
  changes: material,
})

/** Without a version it is new. */
export const savePrinciple = door({
  key: ['forms', 'save principle'],
  send: ({ id, ...body }: { id: string; text: Schema['PrincipleText']; version: number | null }) =>
    answer(api.PUT('/api/principles/{id}', { params: { path: { id } }, body })),
  changes: material,
})

export const removePrinciple = door({
  key: ['forms', 'remove principle'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/principles/{id}', { params: { path: { id } } })),
  changes: material,
})

/** Without a version it is new. */
export const saveLink = door({
  key: ['forms', 'save link'],
  send: ({ id, ...body }: { id: string; text: Schema['LinkText']; version: number | null }) =>
    answer(api.PUT('/api/links/{id}', { params: { path: { id } }, body })),
  changes: material,
})

export const removeLink = door({
  key: ['forms', 'remove link'],
  send: ({ id }: { id: string }) => answer(api.DELETE('/api/links/{id}', { params: { path: { id } } })),
  changes: material,
})

export const takeStarter = door({
  key: ['forms', 'take the starter catalogue'],
  send: () => answer(api.POST('/api/library/starter')),
  changes: material,
})

/** What a file would do; nothing is done. */
export const lookAtLibrary = door({
  key: ['forms', 'look at a file'],
  send: ({ file }: { file: string }) => answer(api.POST('/api/library/preview', { body: { file } })),
})

export const importLibrary = door({
  key: ['forms', 'take a file in'],
  send: (body: { file: string; choices: Record<string, Schema['ImportChoice']> }) =>
    answer(api.POST('/api/library/import', { body })),
  changes: material,
})

/** The counts with one of them in small pictures, or none: they show how it ends then. */
export const withPicture = (counts: Count[], index: number, pictured: boolean): Count[] =>
  counts.map((count, place) => ({ ...count, pictured: pictured && place === index }))
