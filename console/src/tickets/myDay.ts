import type { Person, TicketLine } from '../shared/types'

/** Sorts open tickets by who has to move next; within a group the most dangerous first, unknown before safe. */
export function byDay(tickets: readonly TicketLine[], me: Person) {
  const waitsForMe = (t: TicketLine) =>
    t.next.who === me.name || (t.next.who !== 'dispatcher' && (me.roles as string[]).includes(t.next.who))
  const sorted = [...tickets].sort((a, b) => urgency(a) - urgency(b) || a.number - b.number)
  return {
    mine: sorted.filter(t => waitsForMe(t) && !t.holdReason),
    anybodys: sorted.filter(t => !waitsForMe(t) && t.next.who === 'dispatcher' && !t.holdReason),
    others: sorted.filter(t => t.holdReason || (!waitsForMe(t) && t.next.who !== 'dispatcher')),
  }
}

const urgency = (ticket: TicketLine) => ticket.margin ?? 0.5
