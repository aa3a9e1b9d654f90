import type { TicketView } from '../shared/types'

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
    </section>
  )
}
