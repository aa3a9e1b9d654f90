import { clock } from '../../shared/time'
import type { TicketView } from '../../shared/types'

/** How boxes stand that carriers were asked to fetch, and what makers said: as they told it, with its time. */
export function AskedOutside({ ticket }: { ticket: TicketView }) {
  if (ticket.parcels.length === 0 && ticket.claims.length === 0 && ticket.warranties.length === 0) return null
  return (
    <section className="panel" aria-labelledby="outside">
      <h2 id="outside">What carriers and makers say</h2>
      {ticket.warranties.map(says => (
        <p key={says} className="part-line" style={{ margin: 0 }}>
          {says}
        </p>
      ))}
      {ticket.claims.map(claim => (
        <p key={claim.asked} className="part-line" style={{ margin: 0 }}>
          {claim.stand} <span className="chalk">{clock(claim.at, ticket.zone)}</span>
        </p>
      ))}
      {ticket.parcels.map(parcel => (
        <div key={parcel.asked} className="part-line">
          Box with <span className="mono">{parcel.serials.join(', ')}</span>: {parcel.stand}
          {parcel.said.length > 0 && (
            <ol style={{ fontSize: 15, margin: 0 }}>
              {parcel.said.map(s => (
                <li key={`${s.at}${s.told}`}>
                  {s.told} <span className="chalk">{clock(s.at, ticket.zone)}</span>
                </li>
              ))}
            </ol>
          )}
        </div>
      ))}
    </section>
  )
}
