import { Link, useParams } from 'react-router'
import { clock } from '../shared/time'
import type { PartLine } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { size, ticketName } from '../shared/words'
import { useDrive } from './applianceQueries'

const signs = { seen: '▭', moved: '→', wiped: '∅' } as const

/** A drive's whole life on one page: bays, machines, hands, wipes. */
export function DrivePage() {
  const drive = useDrive(useParams().serial ?? '')
  if (!drive.data) return <WaitingPage for="the drive" problem={drive.error} />
  const { serial, listed, events, places, line, warranty } = drive.data
  return (
    <main className="page">
      <h1 className="mono">{serial}</h1>
      {listed && (
        <p style={{ margin: 0 }}>
          {listed.model}, {size(listed.bytes)}
          {listed.hours ? `, ${listed.hours.toLocaleString('en')} hours` : ''}
          {listed.usedIn ? `, came out of ${listed.usedIn}` : ''}
        </p>
      )}
      {warranty && <p style={{ margin: 0 }}>Warranty: {warranty}.</p>}
      <section className={places.length > 1 ? 'panel danger' : 'panel now'} aria-labelledby="now">
        <h2 id="now">{places.length > 1 ? '◆ In two places, by the records' : 'Now'}</h2>
        {places.length === 0 && 'Nobody has recorded where it is.'}
        {places.map(place => (
          <p key={place} style={{ margin: 0 }}>
            {place}
          </p>
        ))}
      </section>
      <section className="panel" aria-labelledby="life">
        <h2 id="life">Its life</h2>
        {events.length === 0 && <p style={{ margin: 0 }}>No ticket has met it yet.</p>}
        <ol className="life">
          {events.map((event, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the past does not change its order
            <li key={i}>
              <span aria-hidden="true">{signs[event.kind ?? 'seen']}</span>
              <span>
                {event.sentence}{' '}
                <span className="chalk">
                  {clock(event.at, null)}, {event.by}, <Link to={`/tickets/${event.ticket}`}>{ticketName(event.ticket)}</Link>
                </span>
              </span>
            </li>
          ))}
        </ol>
      </section>
      {line && line.movements.length > 0 && <Custody line={line} />}
    </main>
  )
}

/** Through whose hands it went, across all tickets: the ledger's line. */
function Custody({ line }: { line: PartLine }) {
  return (
    <section className="panel" aria-labelledby="hands">
      <h2 id="hands">Through whose hands</h2>
      <ol style={{ margin: 0, fontSize: 15 }}>
        {line.movements.map((m, nth) => (
          <li key={m.id}>
            {line.told[nth]}{' '}
            <span className="chalk">
              {clock(m.at, null)}, {m.by}
              {m.ticket ? (
                <>
                  , <Link to={`/tickets/${m.ticket}`}>{ticketName(m.ticket)}</Link>
                </>
              ) : null}
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}
