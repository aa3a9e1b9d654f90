import { type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query'

const key = ['signed-out']

/** Some answer said that nobody is signed in any more. */
export const noticeSignedOut = (client: QueryClient) => client.setQueryData(key, true)

/** Whether somebody who was in is not any more, and how to say that they are again. */
export function useSignedOut(): readonly [boolean, () => void] {
  const client = useQueryClient()
  const out = useQuery({ queryKey: key, queryFn: () => false, initialData: false, staleTime: Number.POSITIVE_INFINITY, enabled: false })
  return [out.data, () => client.setQueryData(key, false)]
}
