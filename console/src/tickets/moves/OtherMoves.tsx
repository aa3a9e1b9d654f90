import { Button } from '@mantine/core'
import { useState } from 'react'
import { Refused } from '../../shared/Refused'
import type { MoveKind, OfferedMove, TicketView } from '../../shared/types'
import { useWrite } from '../ticketQueries'
import { MoveForm } from './MoveForm'

// These stand where they belong: at the step, with the parts, beside the drives, at the rebuild.
const elsewhere = new Set<MoveKind>([
  'pass-step',
  'overrule-step',
  'take-back-step',
  'reserve-part',
  'issue-part',
  'open-return',
  'send-return',
  'book-in',
  'give-up-part',
  'record-wipe',
  'keep-drive',
  'destroy-drive',
  'take-back-part',
  'inspect-return',
  'settle-return',
  'write-off',
  'use-supplies',
  'mail-paper',
  'choose-drives',
  'take-reading',
  'type-reading',
  'take-back-reading',
  'choose-rebuild',
])

/** Everything else that may be done now, out of the way of the next thing; and what may not, with why. */
export function OtherMoves({ ticket }: { ticket: TicketView }) {
  const writer = useWrite(ticket.number)
  const [open, setOpen] = useState<string | null>(null)
  const here = ticket.moves.filter(m => !elsewhere.has(m.move) && m.move !== ticket.next.move)
  const may = here.filter(m => !m.whyNot)
  const not = here.filter(m => m.whyNot)
  const opened = may.find(m => keyOf(m) === open)
  return (
    <section className="panel" aria-label="Other things to do">
      <div className="row">
        {may.map(move =>
          move.fields.length === 0 ? (
            <MoveForm key={keyOf(move)} ticket={ticket} move={move} writer={writer} variant="default" />
          ) : (
            <Button
              key={keyOf(move)}
              variant="default"
              aria-expanded={open === keyOf(move)}
              onClick={() => setOpen(open === keyOf(move) ? null : keyOf(move))}
            >
              {move.say}
            </Button>
          ),
        )}
      </div>
      {opened && (
        <div style={{ marginTop: 12 }}>
          <MoveForm key={open} ticket={ticket} move={opened} writer={writer} done={() => setOpen(null)} autoFocus />
        </div>
      )}
      <Refused problem={writer.problem} />
      {not.length > 0 && (
        <details style={{ marginTop: 12 }}>
          <summary className="chalk">Not now, and why</summary>
          <ul style={{ margin: '8px 0 0', paddingLeft: 20 }}>
            {not.map(move => (
              <li key={keyOf(move)}>
                {move.say}: <span className="chalk">{move.whyNot}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

const keyOf = (move: OfferedMove) => `${move.move} ${move.about ?? ''} ${move.say}`
