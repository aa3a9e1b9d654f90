import type { MoveKind } from '../../shared/types'

const pages: Partial<Record<MoveKind, string>> = {
  'type-snapshot': 'snapshot',
  'follow-run': 'run',
  'reserve-part': 'bring',
  'issue-part': 'return',
  'open-return': 'return',
  'send-return': 'return',
  'book-in': 'return',
  'give-up-part': 'return',
  'record-wipe': 'return',
  'keep-drive': 'return',
  'destroy-drive': 'return',
  'take-back-part': 'return',
  'inspect-return': 'return',
  'settle-return': 'return',
  'write-off': 'return',
  'mail-paper': 'documents',
  'take-reading': 'rebuild',
  'type-reading': 'rebuild',
  'take-back-reading': 'rebuild',
  'choose-rebuild': 'rebuild',
}

/** The page of a ticket on which a move has its place. */
export const pageOf = (ticket: number, move: MoveKind): string => `/tickets/${ticket}/${pages[move] ?? ''}`

export const hasPage = (move: MoveKind): boolean => move in pages
