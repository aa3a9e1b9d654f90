import { Button } from '@mantine/core'
import { useState } from 'react'
import { Refused } from '../../shared/Refused'
import type { TicketView } from '../../shared/types'
import { MoveForm } from '../moves/MoveForm'
import { useCorrections, useWrite } from '../ticketQueries'

/** The ways to put one entry of the journal right: it stays there as it was written. */
export function PutRight({ ticket, seq, done }: { ticket: TicketView; seq: number; done: () => void }) {
  const ways = useCorrections(ticket.number, seq)
  const writer = useWrite(ticket.number)
  const [chosen, setChosen] = useState<string | null>(null)
  const may = ways.data?.filter(w => !w.whyNot) ?? []
  const way = may.find(w => w.move === chosen)
  return (
    <div className="stack put-right-ways">
      <div className="row">
        {may.map(w => (
          <Button
            key={w.move}
            size="compact-md"
            variant="default"
            aria-expanded={w.move === chosen}
            onClick={() => setChosen(w.move === chosen ? null : w.move)}
          >
            {w.say}
          </Button>
        ))}
      </div>
      {way && <MoveForm key={way.move} ticket={ticket} move={way} writer={writer} done={done} autoFocus />}
      {ways.data
        ?.filter(w => w.whyNot)
        .map(w => (
          <p key={w.move} className="chalk">
            {w.say}: {w.whyNot}
          </p>
        ))}
      <Refused problem={ways.error ?? writer.problem} />
    </div>
  )
}
