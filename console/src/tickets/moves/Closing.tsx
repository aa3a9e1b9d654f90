import { Link } from 'react-router'
import { clock } from '../../shared/time'
import type { TicketView } from '../../shared/types'

/** What stands between this ticket and its closing, each by name. Shown once the new drive is in. */
export function Closing({ ticket }: { ticket: TicketView }) {
  if (!ticket.swap.inSerial) return null
  return (
    <section className="panel" aria-labelledby="closing">
      <h2 id="closing">To close it</h2>
      <ul style={{ listStyle: 'none', margin: 0, padding: 0 }}>
        {ticket.closing.map(condition => (
          <li key={condition.name}>
            <span aria-hidden="true">{condition.met ? '✓' : '○'} </span>
            <strong>{condition.name}</strong>
            {condition.met ? <span className="chalk"> is so</span> : `: ${condition.sentence}`}
          </li>
        ))}
      </ul>
      {ticket.moves.some(m => m.move === 'sign-off' && !m.whyNot) && (
        <p style={{ marginBottom: 0 }}>
          <Link to={`/tickets/${ticket.number}/sign`}>Have the customer sign on this screen</Link>
        </p>
      )}
      {ticket.signed && (
        <p style={{ marginBottom: 0 }}>
          Signed by {ticket.signed.name}, {clock(ticket.signed.at, ticket.zone)}:{' '}
          <Link to={`/tickets/${ticket.number}/sign`}>what was signed</Link>
        </p>
      )}
    </section>
  )
}
