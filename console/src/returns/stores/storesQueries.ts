import { useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../../shared/api'

export const useStores = (depot: string) =>
  useQuery({
    queryKey: ['stores', depot],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/stores', { params: { query: depot ? { depot } : {} }, signal })),
    placeholderData: earlier => earlier,
  })
