import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'

export type Contact = 'connecting' | 'live' | 'lost'

const heard = (ticket: number) => ['heard', ticket]

/** The live stream has told of an entry that the ticket, as it was last fetched, has not. */
export function isBehind(client: QueryClient, ticket: number): boolean {
  const head = client.getQueryData<{ head: number }>(['tickets', ticket])?.head ?? 0
  return head < (client.getQueryData<number>(heard(ticket)) ?? 0)
}

/** Follows the journal as it grows. The browser says where it was when it comes back, so nothing is missed. */
export function useLive(): Contact {
  const client = useQueryClient()
  const [contact, setContact] = useState<Contact>('connecting')
  useEffect(() => {
    const stream = new EventSource('/api/live')
    stream.onopen = () => setContact('live')
    stream.onerror = () => setContact('lost')
    stream.addEventListener('still-here', () => setContact('live'))
    stream.addEventListener('entry', event => {
      const entry = JSON.parse(event.data) as { ticket: number; seq: number }
      client.setQueryData(heard(entry.ticket), entry.seq)
      // Whoever writes asks for the ticket when the write is over; asking twice is twice the work for a phone.
      if (client.isMutating({ mutationKey: ['tickets', entry.ticket] }) === 0 && isBehind(client, entry.ticket))
        void client.invalidateQueries({ queryKey: ['tickets', entry.ticket] })
      void client.invalidateQueries({ queryKey: ['tickets', 'list'] })
    })
    return () => stream.close()
  }, [client])
  return contact
}
