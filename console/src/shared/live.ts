import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'

export type Contact = 'connecting' | 'live' | 'lost'

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
      const entry = JSON.parse(event.data) as { ticket: number }
      // Whoever writes asks for the ticket when the write is over; asking twice is twice the work for a phone.
      if (client.isMutating({ mutationKey: ['tickets', entry.ticket] }) === 0)
        void client.invalidateQueries({ queryKey: ['tickets', entry.ticket] })
      void client.invalidateQueries({ queryKey: ['tickets', 'list'] })
    })
    return () => stream.close()
  }, [client])
  return contact
}
