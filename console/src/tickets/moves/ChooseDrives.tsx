import { Button, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { Refused } from '../../shared/Refused'
import type { TicketView } from '../../shared/types'
import { useWrite } from '../ticketQueries'
import { moved } from './moved'

/** Which drives of the array this ticket swaps, in order. The worst first is proposed; a person chooses, until one has been moved. */
export function ChooseDrives({ ticket }: { ticket: TicketView }) {
  const writer = useWrite(ticket.number)
  const held = (ticket.latest?.bays ?? []).filter(b => b.serial)
  const labelOf = (serial: string) => held.find(b => b.serial === serial)?.label
  const before = ticket.chosen.length > 0 ? ticket.chosen.map(labelOf).filter(l => l !== undefined) : ticket.inTurn.map(d => d.bay)
  const [order, setOrder] = useState<string[] | null>(null)
  if (ticket.endedAt || ticket.inTurn.length === 0 || (ticket.inTurn.length === 1 && ticket.chosen.length === 0)) return null
  const bays = order ?? before
  const serialOf = (label: string) => held.find(b => b.label === label)?.serial ?? ''
  const others = held.filter(b => !bays.includes(b.label))
  const whyNot = ticket.moves.find(m => m.move === 'choose-drives')?.whyNot
  const isKept = ticket.chosen.length > 0 && ticket.chosen.join() === bays.map(serialOf).join()
  return (
    <section className="panel" aria-labelledby="drives-in-turn">
      <h2 id="drives-in-turn">Drives, the worst first</h2>
      <ol className="in-turn">
        {bays.map((bay, i) => (
          <DriveInTurn
            key={bay}
            why={ticket.inTurn.find(d => d.bay === bay)?.why ?? `Bay ${bay} (${serialOf(bay)}): nothing speaks against it.`}
            bay={bay}
            isFirst={i === 0}
            isFixed={Boolean(whyNot)}
            earlier={() => setOrder(moved(bays, i, i - 1))}
            leaveOut={() => setOrder(bays.filter(b => b !== bay))}
          />
        ))}
      </ol>
      {whyNot ? (
        <p className="chalk" style={{ margin: 0 }}>
          {whyNot}
        </p>
      ) : (
        <div className="row" style={{ alignItems: 'flex-end' }}>
          <NativeSelect
            label="Another one"
            value=""
            onChange={e => e.currentTarget.value && setOrder([...bays, e.currentTarget.value])}
            data={[{ value: '', label: 'none' }, ...others.map(b => ({ value: b.label, label: `Bay ${b.label} ${b.serial}` }))]}
          />
          {isKept ? (
            <p className="chalk">Chosen, in this order.</p>
          ) : (
            <Button
              loading={writer.busy}
              disabled={bays.length === 0}
              onClick={async () => {
                if (await writer.write({ kind: 'drives-chosen', serials: bays.map(serialOf) })) setOrder(null)
              }}
            >
              {bays.length === 1 ? 'Swap this one only' : `Swap these ${bays.length}, in this order`}
            </Button>
          )}
        </div>
      )}
      <Refused problem={writer.problem} />
    </section>
  )
}

type InTurn = { why: string; bay: string; isFirst: boolean; isFixed: boolean; earlier: () => void; leaveOut: () => void }

function DriveInTurn({ why, bay, isFirst, isFixed, earlier, leaveOut }: InTurn) {
  return (
    <li>
      <span>{why}</span>
      {!isFixed && (
        <>
          <Button variant="default" disabled={isFirst} aria-label={`Bay ${bay} earlier`} onClick={earlier}>
            Earlier
          </Button>
          <Button variant="default" aria-label={`Leave bay ${bay} out`} onClick={leaveOut}>
            Leave out
          </Button>
        </>
      )}
    </li>
  )
}
