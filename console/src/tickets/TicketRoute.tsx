import { Outlet, useParams } from 'react-router'
import { ticketNumber } from './ticketQueries'

/** Lets only ticket numbers through to the pages of a ticket. */
export function TicketRoute() {
  const { number } = useParams()
  if (ticketNumber(number) !== null) return <Outlet />
  return (
    <main className="page">
      <p role="alert" className="panel">
        '{number}' is not a ticket number; write T-1042 or 1042.
      </p>
    </main>
  )
}
