import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, isOutOfContact, unwrap } from '../shared/api'

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: async ({ signal }) => unwrap(await api.GET('/api/me', { signal })),
  staleTime: 60_000,
  // Nothing listens for news before one knows whose page it is: what was opened while the service was away asks again by itself.
  refetchInterval: ({ state }) => (state.data === undefined && state.error && isOutOfContact(state.error) ? 3_000 : false),
})
export const useMe = () => useQuery(meQuery)

/** What is offered at the door beside name and password; it changes with a start of the service alone. */
export const useSignInWays = () =>
  useQuery({
    queryKey: ['sign-in-ways'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/sign-in', { signal })),
    staleTime: Number.POSITIVE_INFINITY,
  })

const everybodyQuery = queryOptions({
  queryKey: ['people'],
  queryFn: async ({ signal }) => unwrap(await api.GET('/api/people', { signal })),
  staleTime: 60_000,
})

/** Everybody there ever was; those who may not come in any more are marked. */
export const useEverybody = () => useQuery(everybodyQuery)

/** Those who may come in: whoever else is named, nothing waits for. */
export const usePeople = () =>
  useQuery({ ...everybodyQuery, select: all => ({ ...all, people: all.people.filter(person => !person.disabledAt) }) })

export const useHolds = (name: string, wanted: boolean) =>
  useQuery({
    queryKey: ['people', name, 'holds'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/people/{name}/holds', { params: { path: { name } }, signal })),
    enabled: wanted,
  })

export const useComingsIn = (name: string) =>
  useQuery({
    queryKey: ['people', name, 'comings-in'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/people/{name}/comings-in', { params: { path: { name } }, signal })),
    refetchInterval: 30_000,
  })

/** Something changed about people: every list of them is asked for anew. */
export function usePeopleChange<Ask, Answer>(change: (ask: Ask) => Promise<Answer>, then?: (answer: Answer) => unknown) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: async answer => {
      await client.invalidateQueries({ queryKey: ['people'] })
      await client.invalidateQueries({ queryKey: ['me'] })
      then?.(answer)
    },
  })
}
