import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Schema } from '../api/client'

export type Form = Schema['FormResponse']
export type FormText = Schema['FormText']
export type Position = Schema['Position']
export type PostureText = Schema['PostureText']
export type Count = Schema['Count']
export type Side = Schema['Side']

export const useForms = () => useQuery({ queryKey: ['forms'], queryFn: () => answer(api.GET('/api/forms')) })

export const useForm = (id: string | undefined) =>
  useQuery({
    queryKey: ['form', id],
    enabled: id !== undefined,
    queryFn: () => answer(api.GET('/api/forms/{id}', { params: { path: { id: id! } } })),
  })

export const usePostures = () => useQuery({ queryKey: ['postures'], queryFn: () => answer(api.GET('/api/postures')) })

export const usePosture = (id: string | undefined, side?: Side) =>
  useQuery({
    queryKey: ['posture', id, side],
    enabled: id !== undefined,
    queryFn: () => answer(api.GET('/api/postures/{id}', { params: { path: { id: id! }, query: { side } } })),
  })

/** Whatever was made of postures and forms is asked for again. */
export function useRefreshMaterial() {
  const queries = useQueryClient()
  return () =>
    queries.invalidateQueries({
      predicate: ({ queryKey }) =>
        [
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
          'people',
          'plan',
        ].includes(queryKey[0] as string),
    })
}

/** Saves a form as a whole; the answer is what follows from it. */
export function useSaveForm(id: string | undefined) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ text, version }: { text: FormText; version: number }) =>
      answer(api.PUT('/api/forms/{id}', { params: { path: { id: id! } }, body: { text, version } })),
    onSuccess: (saved) => {
      queries.setQueryData(['form', id], saved)
      void queries.invalidateQueries({
        predicate: ({ queryKey }) => ['forms', 'compare', 'numbers', 'hall'].includes(queryKey[0] as string),
      })
    },
  })
}
