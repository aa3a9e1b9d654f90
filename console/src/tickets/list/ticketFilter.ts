import { useSearchParams } from 'react-router'

/** What is asked of the list of tickets, as it stands in the address: so the way back, and a link that is sent, show the same. */
export const filterNames = ['find', 'stage', 'danger', 'site', 'customer', 'engineer', 'overdue', 'order', 'ended'] as const
export type FilterName = (typeof filterNames)[number]
export type TicketFilter = Partial<Record<FilterName, string>>

/** What the address asks for; nothing of it that no list knows. */
export const filterOf = (params: URLSearchParams): TicketFilter =>
  Object.fromEntries(filterNames.flatMap(name => (params.get(name)?.trim() ? [[name, params.get(name)]] : [])))

/** The query as the service takes it: an address is typed by people, and what is no yes or no is left to the service to refuse. */
export const queryOf = (filter: TicketFilter) => ({
  ...filter,
  overdue: filter.overdue === 'true' ? true : undefined,
  // A search goes through what is closed as well; a filter is about what is open unless somebody says otherwise.
  ended: filter.ended === 'any' || (filter.find && !filter.ended) ? undefined : filter.ended === 'true',
})

export function useTicketFilter(): [TicketFilter, (name: FilterName, value: string) => void, () => void] {
  const [params, setParams] = useSearchParams()
  const set = (name: FilterName, value: string) =>
    setParams(
      now => {
        const next = new URLSearchParams(now)
        if (value) next.set(name, value)
        else next.delete(name)
        return next
      },
      { replace: true },
    )
  return [filterOf(params), set, () => setParams({}, { replace: true })]
}
