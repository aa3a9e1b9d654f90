import { Link } from 'react-router'
import { clock } from '../shared/time'
import type { TicketView } from '../shared/types'
import { said } from '../shared/words'

/** How bad it is, in a sentence, with a word and a shape for how much is left. */
export function DangerPanel({ ticket }: { ticket: TicketView }) {
  const { margin, atWorst, sentence, suspects, doubts, seen } = ticket.danger
  const grave = margin !== null && margin <= 0
  return (
    <section className={grave ? 'panel danger' : 'panel'} aria-labelledby="danger">
      <h2 id="danger" className={grave ? 'brick' : undefined}>
        {margin === null
          ? '◇ Danger not known yet'
          : margin < 0
            ? '■ Data is lost'
            : margin === 0
              ? '■ No margin left'
              : `▬ Margin ${margin}`}
      </h2>
      <p style={{ margin: 0 }}>{sentence}</p>
      {seen && (
        <p className="chalk" style={{ margin: '2px 0 0' }}>
          Seen {clock(seen.at, ticket.zone)} by {seen.by}
          {seen.on != null && (
            <>
              {' '}
              on <Link to={`/tickets/${seen.on}`}>T-{seen.on}</Link>
            </>
          )}
        </p>
      )}
      {atWorst !== null && margin !== null && atWorst < margin && (
        <p style={{ margin: '4px 0 0' }} className="brick">
          At worst, if the suspects below fail as well: {atWorst < 0 ? 'data is lost' : `margin ${atWorst}`}.
        </p>
      )}
      {doubts?.map(doubt => (
        <p key={doubt} style={{ margin: '4px 0 0' }} className="ochre">
          ▲ {doubt}
        </p>
      ))}
      {suspects.length > 0 && (
        <ol style={{ margin: '8px 0 0', paddingLeft: 24 }} className="ochre" aria-label="Suspects, the worst first">
          {suspects.map(suspect => (
            <li key={suspect.bay}>{suspect.sentence}</li>
          ))}
        </ol>
      )}
      <Exposure ticket={ticket} />
      <Chances ticket={ticket} />
    </section>
  )
}

function Exposure({ ticket: { exposure } }: { ticket: TicketView }) {
  if (!exposure) return null
  return (
    <p style={{ margin: '8px 0 0' }}>
      Exposed for <strong>{exposure.lasted}</strong>
      <span className="chalk">
        {' '}
        ({exposure.stretches.map(s => `${said(s.part)} ${s.lasted}`).join(', ')}
        {exposure.until ? '' : ', and going on'})
      </span>
    </p>
  )
}

/** Estimates: shown with how they were reckoned, so that nobody takes them for more. */
function Chances({ ticket: { chances } }: { ticket: TicketView }) {
  if (!chances) return null
  return (
    <details style={{ marginTop: 8 }}>
      <summary>
        While it rebuilds: data lost to failing drives {chances.drivesFail.told}, to an unreadable sector {chances.unreadable.told}
      </summary>
      <p className="chalk" style={{ margin: '8px 0 0', fontSize: 15 }}>
        Estimates. The rebuild takes {chances.hoursLow.toFixed(1)} to {chances.hoursHigh.toFixed(1)} hours.
      </p>
      {[chances.drivesFail, chances.unreadable].map(chance => (
        <p key={chance.formula} className="chalk" style={{ margin: '4px 0 0', fontSize: 15 }}>
          <span className="mono">{chance.formula}</span>: {chance.inputs.join('; ')}
        </p>
      ))}
    </details>
  )
}
