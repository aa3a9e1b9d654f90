import { Button, Textarea } from '@mantine/core'
import { useState } from 'react'
import type { TicketView } from '../shared/types'
import type { Writer } from './ticketQueries'

/** Each contradiction in the record, with how a lead reads it. */
export function SettleDiscrepancies({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const [how, setHow] = useState<Record<string, string>>({})
  return (
    <ul className="stack" style={{ listStyle: 'none', padding: 0, margin: 0 }}>
      {ticket.discrepancies
        .filter(d => !d.settledBy)
        .map(d => (
          <li key={d.id}>
            <p style={{ margin: '0 0 8px' }}>
              <strong>◆ {d.sentence}</strong>
            </p>
            <Textarea
              label="How it is to be read"
              value={how[d.id] ?? ''}
              onChange={e => {
                const { value } = e.currentTarget
                setHow(h => ({ ...h, [d.id]: value }))
              }}
            />
            <Button
              mt={8}
              variant="default"
              loading={writer.busy}
              onClick={() => writer.write({ kind: 'discrepancy-settled', discrepancy: d.id, how: how[d.id] ?? '' })}
            >
              Settle it
            </Button>
          </li>
        ))}
    </ul>
  )
}
