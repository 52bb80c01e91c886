import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'

export type Side = Schema['Side']

export const formsQuery = () => queryOptions({ queryKey: ['forms'], queryFn: () => answer(api.GET('/api/forms')) })

export const formQuery = (id: string | undefined) =>
  queryOptions({
    queryKey: ['form', id],
    enabled: Boolean(id),
    queryFn: () => answer(api.GET('/api/forms/{id}', { params: { path: { id: id! } } })),
  })

export const posturesQuery = () =>
  queryOptions({ queryKey: ['postures'], queryFn: () => answer(api.GET('/api/postures')) })

export const postureQuery = (id: string | undefined, side?: Side) =>
  queryOptions({
    queryKey: ['posture', id, side],
    enabled: Boolean(id),
    queryFn: () => answer(api.GET('/api/postures/{id}', { params: { path: { id: id! }, query: { side } } })),
  })

export const principlesQuery = () =>
  queryOptions({ queryKey: ['principles'], queryFn: () => answer(api.GET('/api/principles')) })
