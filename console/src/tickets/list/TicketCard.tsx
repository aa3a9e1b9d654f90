import { memo } from 'react'
import { Link } from 'react-router'
import type { TicketLine } from '../../shared/types'
import { said, ticketName } from '../../shared/words'
import './ticketCard.css'

/** One ticket in a list: which, how dangerous, what next. The whole card is the link. */
export const TicketCard = memo(function TicketCard({ ticket }: { ticket: TicketLine }) {
  const grave = ticket.margin !== null && ticket.margin <= 0
  return (
    <Link to={`/tickets/${ticket.number}`} className={grave ? 'panel danger card' : 'panel card'}>
      <span className="card-top">
        <strong>
          <span className="mono">{ticketName(ticket.number)}</span> {ticket.symptom}
        </strong>
        <Margin margin={ticket.margin} />
      </span>
      <span className="chalk">
        <span className="mono">{ticket.asset}</span> {ticket.site}
        {ticket.bay ? `, bay ${ticket.bay}` : ''} · {ticket.holdReason ? `on hold: ${ticket.holdReason}` : said(ticket.stage)}
        {ticket.escalated ? ' · escalated' : ''} · {ticket.engineer ?? 'nobody'}
      </span>
      {!ticket.holdReason && (
        <span>
          <strong>{ticket.next.who}:</strong> {ticket.next.say}
        </span>
      )}
    </Link>
  )
})

function Margin({ margin }: { margin: number | null }) {
  if (margin === null) return <span className="chalk">◇ not known</span>
  if (margin < 0) return <span className="brick">■ data lost</span>
  return margin === 0 ? <span className="brick">■ no margin</span> : <span>▬ margin {margin}</span>
}
