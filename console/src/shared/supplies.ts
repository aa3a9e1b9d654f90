import { useQuery } from '@tanstack/react-query'
import { api, unwrap } from './api'

/** What has no serial and is counted, with how many are where. */
export const useSupplies = () =>
  useQuery({
    queryKey: ['supplies'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/supplies', { signal })),
  })
