import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, unwrap } from '../../shared/api'
import { clock } from '../../shared/time'
import { ticketName } from '../../shared/words'

/** An engineer's stops in a good order, and where their calendar can subscribe. */
export function DayStops({ engineer }: { engineer: string }) {
  const day = useQuery({
    queryKey: ['tickets', 'list', 'day', engineer],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/days/{engineer}', { params: { path: { engineer } }, signal })),
  })
  if (!day.data || day.data.stops.length === 0) return null
  return (
    <details className="panel">
      <summary>Your {day.data.stops.length} stops, in a good order</summary>
      <ol style={{ margin: '8px 0 0', paddingLeft: 28 }}>
        {day.data.stops.map(({ ticket, kmFromBefore }) => (
          <li key={ticket.number}>
            {ticket.visitFrom ? <strong>{clock(ticket.visitFrom, null)}</strong> : <span className="chalk">no time yet</span>} {ticket.site}
            {kmFromBefore !== null ? <span className="chalk"> ({kmFromBefore} km)</span> : ''} ·{' '}
            <Link to={`/tickets/${ticket.number}`} className="mono">
              {ticketName(ticket.number)}
            </Link>
          </li>
        ))}
      </ol>
      {day.data.calendar && (
        <p style={{ margin: '8px 0 0' }}>
          <a href={day.data.calendar}>Your visits as a calendar feed</a> <span className="chalk">(the address is its own key)</span>
        </p>
      )}
    </details>
  )
}
