import type { TicketView } from '../shared/types'

/** The one filled button of the ticket page: what it does follows from where the ticket stands. */
export type Move =
  | 'resume'
  | 'answer'
  | 'take'
  | 'snapshot'
  | 'part'
  | 'arrive'
  | 'start-run'
  | 'run'
  | 'settle'
  | 'return'
  | 'sign-off'
  | 'close'
  | 'nothing'

/** The same order in which the service derives whose turn it is and why. */
export function nextMove(ticket: TicketView): Move {
  if (ticket.endedAt) return 'nothing'
  if (ticket.holdReason) return 'resume'
  if (ticket.help && ticket.help.goAhead == null) return 'answer'
  if (!ticket.engineer) return 'take'
  if (!ticket.run) return beforeTheRun(ticket)
  if (ticket.run.current) return 'run'
  if (ticket.discrepancies.some(d => !d.settledBy)) return 'settle'
  if (ticket.next.room === 'returns') return 'return'
  return ticket.signedOffBy ? 'close' : 'sign-off'
}

function beforeTheRun(ticket: TicketView): Move {
  if (!ticket.latest) return 'snapshot'
  if (!ticket.part?.issuedTo) return 'part'
  return ticket.arrivedAt ? 'start-run' : 'arrive'
}
