import type { TicketPaper } from '../shared/types'

/** Where one paper of a ticket is read. */
export const documentAddress = (ticket: number, paper: Pick<TicketPaper, 'kind' | 'about'>) =>
  `/api/tickets/${ticket}/documents/${paper.kind}${paper.about ? `?about=${encodeURIComponent(paper.about)}` : ''}`
