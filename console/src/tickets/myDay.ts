import type { TicketLine, Turn } from '../shared/types'

/** Sorts open tickets by whose turn Core says it is; within a group the most dangerous first, unknown before safe. */
export function byDay(tickets: readonly TicketLine[], turns: readonly Turn[]) {
  const sorted = tickets
    .map((ticket, i) => ({ ticket, turn: turns[i] ?? 'others' }))
    .sort((a, b) => urgency(a.ticket) - urgency(b.ticket) || a.ticket.number - b.ticket.number)
  const of = (turn: Turn) => sorted.filter(t => t.turn === turn).map(t => t.ticket)
  return { mine: of('yours'), anybodys: of('anybodys'), others: of('others') }
}

const urgency = (ticket: TicketLine) => ticket.margin ?? 0.5
