import { Link } from 'react-router'
import { documentAddress } from '../reports'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import type { TicketView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { said } from '../shared/words'
import { Pictures, TakePhoto, TicketHead, useTicket, useTicketNumber, useWrite } from '../tickets'
import { holderName } from './holderName'
import { AskedOutside } from './outside/AskedOutside'
import { PartMoves } from './PartMoves'

/** The two drives of a swap: who holds each, and what has to happen until somebody may keep it. */
export function ReturnPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const writer = useWrite(number)
  if (!ticket.data) return <WaitingPage for="the parts" problem={ticket.error} />
  const view = ticket.data
  return (
    <main className="page">
      <TicketHead ticket={view} here="parts and returns" />
      <PartMoves ticket={view} writer={writer} />
      <Refused problem={writer.problem} />
      <section className="panel" aria-labelledby="holders">
        <h2 id="holders">Who holds what</h2>
        {view.held.length === 0 && <p>No drive has moved yet.</p>}
        {view.held.map(h => (
          <div key={h.serial} style={{ margin: '0 0 8px' }}>
            <p style={{ margin: 0 }}>
              <strong className="mono">{h.serial}</strong> {h.what}
              <br />
              {holderName(h.holder)}: {h.mayKeep ? '● may keep it' : '○ on the way'}
            </p>
            <Pictures ticket={view} photos={view.photos.filter(p => p.of === h.serial)} />
            <TakePhoto writer={writer} of={h.serial} label="Add a picture of it" />
          </div>
        ))}
      </section>
      <Returns ticket={view} />
      {view.supplies.length > 0 && (
        <section className="panel" aria-labelledby="used">
          <h2 id="used">Used up</h2>
          <ul style={{ margin: 0, paddingLeft: 20 }}>
            {view.supplies.map((says, nth) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two uses may read alike, and their order is theirs
              <li key={nth}>{says}</li>
            ))}
          </ul>
        </section>
      )}
      <AskedOutside ticket={view} />
      <section className="panel" aria-labelledby="moves">
        <h2 id="moves">Every hand-over</h2>
        <ol style={{ fontSize: 15, margin: 0 }}>
          {view.custody.map(m => (
            <li key={`${m.serial}${m.at}${m.to.kind}`}>
              <span className="mono">{m.serial}</span> to {holderName(m.to)}{' '}
              <span className="chalk">
                {clock(m.at, view.zone)}, {m.by}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </main>
  )
}

/** How the box stands that a carrier was asked to fetch with it. */
const boxOf = (ticket: TicketView, serial: string) => {
  const box = ticket.parcels.findLast(p => p.serials.includes(serial))
  return box ? `; ${box.stand}` : ''
}

function Returns({ ticket }: { ticket: TicketView }) {
  if (ticket.returns.length === 0) return null
  return (
    <section className="panel" aria-labelledby="returns">
      <h2 id="returns">Returns</h2>
      {ticket.returns.map(r => (
        <dl key={r.serial} className="facts">
          <dt>Drive</dt>
          <dd className="mono">{r.serial}</dd>
          <dt>Why</dt>
          <dd>{said(r.reason)}</dd>
          <dt>To</dt>
          <dd>{holderName(r.to)}</dd>
          <dt>Number</dt>
          <dd className="mono">{r.authorisation ?? 'none'}</dd>
          <dt>Due</dt>
          <dd>
            {r.dueBy ?? 'not said'}
            {r.lateCost && `; late, it costs ${r.lateCost}`}
          </dd>
          <dt>Stands</dt>
          <dd>
            {r.outcome
              ? `● ${said(r.outcome)}${r.outcomeSays ? `, ${r.outcomeSays}` : ''}`
              : r.arrivedAt
                ? `● arrived ${clock(r.arrivedAt, ticket.zone)}${r.found ? `; ${r.found}` : ''}`
                : r.sentAt
                  ? `◑ with ${r.carrier} ${r.tracking ?? ''}`
                  : `○ not sent yet${boxOf(ticket, r.serial)}`}
          </dd>
          {!r.arrivedAt && (
            <>
              <dt>Papers</dt>
              <dd>
                <a href={documentAddress(ticket.number, { kind: 'return-label', about: r.serial })} target="_blank" rel="noreferrer">
                  label of the box
                </a>{' '}
                · <Link to={`/tickets/${ticket.number}/documents`}>packing list and all others</Link>
              </dd>
            </>
          )}
        </dl>
      ))}
    </section>
  )
}
