import { queryOptions, useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../shared/api'

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: async ({ signal }) => unwrap(await api.GET('/api/me', { signal })),
  staleTime: 60_000,
})
export const useMe = () => useQuery(meQuery)

export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: async ({ signal }) => unwrap(await api.GET('/api/people', { signal })), staleTime: 60_000 })
