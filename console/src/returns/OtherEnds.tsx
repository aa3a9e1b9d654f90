import { Button } from '@mantine/core'
import { useState } from 'react'
import type { OfferedMove, TicketView } from '../shared/types'
import { MoveForm, type Writer } from '../tickets'

type Props = { title: string; ticket: TicketView; moves: readonly OfferedMove[]; writer: Writer }

/** Kept, destroyed, back over the counter, lost: for each drive that is on the way, one button each, out of the way of the box it usually goes in. */
export function OtherEnds({ title, ticket, moves, writer }: Props) {
  const serials = [...new Set(moves.map(m => m.about ?? ''))]
  return serials.map(serial => (
    <EndsOfOne
      key={serial}
      title={title}
      serial={serial}
      ticket={ticket}
      moves={moves.filter(m => (m.about ?? '') === serial)}
      writer={writer}
    />
  ))
}

function EndsOfOne({ title, serial, ticket, moves, writer }: Props & { serial: string }) {
  const [open, setOpen] = useState<string | null>(null)
  const opened = moves.find(m => m.say === open)
  return (
    <section className="panel stack" aria-label={`${title} ${serial}`}>
      <h2>
        {title} <span className="mono">{serial}</span>
      </h2>
      <div className="row">
        {moves.map(move => (
          <Button
            key={move.say}
            variant="default"
            aria-expanded={open === move.say}
            onClick={() => setOpen(open === move.say ? null : move.say)}
          >
            {move.say}
          </Button>
        ))}
      </div>
      {opened && <MoveForm key={opened.say} ticket={ticket} move={opened} writer={writer} done={() => setOpen(null)} autoFocus />}
    </section>
  )
}
