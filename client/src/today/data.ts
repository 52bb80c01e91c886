import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '../api/client'

export const todayQuery = () => queryOptions({ queryKey: ['today'], queryFn: () => answer(api.GET('/api/today')) })
