import { Link } from 'react-router'
import type { TicketView } from '../shared/types'
import { said, ticketName } from '../shared/words'

/** Which ticket, and where one is; the name leads back to it. */
export function TicketHead({ ticket, here }: { ticket: TicketView; here?: string }) {
  const { report } = ticket
  return (
    <header style={{ marginBottom: 12 }}>
      <h1>
        {here ? (
          <>
            <Link to={`/tickets/${ticket.number}`} className="mono">
              {ticketName(ticket.number)}
            </Link>{' '}
            {here}
          </>
        ) : (
          <>
            <span className="mono">{ticketName(ticket.number)}</span> {report.symptom}
          </>
        )}
      </h1>
      <p className="chalk" style={{ margin: 0 }}>
        <strong>{said(ticket.stage)}</strong>
        {ticket.holdReason ? ', on hold' : ''} · <span className="mono">{report.asset}</span> {report.model} · {report.site},{' '}
        {ticket.location}
      </p>
    </header>
  )
}
