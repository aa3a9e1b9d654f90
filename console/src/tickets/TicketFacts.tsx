import { Link } from 'react-router'
import { clock } from '../shared/time'
import type { TicketView } from '../shared/types'
import { said, ticketName } from '../shared/words'
import { Pictures } from './story/Pictures'

/** What is known, each fact once. */
export function TicketFacts({ ticket }: Known) {
  return (
    <section className="panel" aria-labelledby="facts">
      <h2 id="facts">What is known</h2>
      <p style={{ margin: '0 0 8px' }}>
        <Link to={`/machines/${ticket.report.asset}`} className="mono">
          {ticket.report.asset}
        </Link>{' '}
        {ticket.report.model}
      </p>
      <dl className="facts">
        <Reported ticket={ticket} />
        <Planned ticket={ticket} />
        <Parts ticket={ticket} />
        <Moved ticket={ticket} />
        <Papers ticket={ticket} />
        <Ends ticket={ticket} />
      </dl>
    </section>
  )
}

type Known = { ticket: TicketView }

/** What was seen, by whom, and what speaks for or against which drive. */
function Reported({ ticket: { report, receivedAt, evidence, access, customer, endedAt, zone } }: Known) {
  return (
    <>
      <Fact name="Reported">
        {report.symptom}
        {report.bay ? ` · bay ${report.bay}` : ''}
        {report.serial ? ' · ' : ''}
        {report.serial && <span className="mono">{report.serial}</span>}
      </Fact>
      <Fact name="Received">{clock(receivedAt, zone)}</Fact>
      {access && !endedAt && <Fact name="Getting in">{access}</Fact>}
      {!endedAt &&
        customer.map(line => (
          <Fact key={line.says} name={line.about}>
            {line.says}
          </Fact>
        ))}
      {evidence.map((e, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: evidence has no id and is never reordered
        <Fact key={i} name="Evidence">
          {e.text}{' '}
          <span className="chalk">
            ({said(e.kind)}
            {e.count ? `, ${e.count} times` : ''}
            {e.step ? `, explained by the step ${e.step}` : ''})
          </span>
        </Fact>
      ))}
    </>
  )
}

/** What was promised, when somebody comes, and whether there is a backup. */
function Planned({ ticket }: Known) {
  const { zone } = ticket
  return (
    <>
      {ticket.deadlines
        .filter(d => !d.metAt && !ticket.endedAt)
        .map(d => (
          <Fact key={`${d.kind}${d.about}`} name={d.about ? 'Due back' : 'Promised'}>
            {d.about ?? said(d.kind ?? 'restore')} by {d.at ? clock(d.at, zone) : 'when the hold is lifted'}
            {d.stopped ? ', its clock stands still' : ''}
          </Fact>
        ))}
      {ticket.visit && (
        <Fact name="Visit">
          {clock(ticket.visit.from, zone)} to {clock(ticket.visit.to, zone)}
        </Fact>
      )}
      <Fact name="Engineer">{ticket.engineer ?? 'nobody yet'}</Fact>
      {ticket.links.map(link => (
        <Fact key={`${link.how}${link.ticket}`} name="Link">
          {said(link.how)} <Link to={`/tickets/${link.ticket}`}>{ticketName(link.ticket)}</Link>
        </Fact>
      ))}
      {!ticket.endedAt &&
        ticket.beside.map(other => (
          <Fact key={other.number} name="Open beside it">
            <Link to={`/tickets/${other.number}`}>{ticketName(other.number)}</Link> {other.symptom}
            {other.bay ? `, bay ${other.bay}` : ''}
          </Fact>
        ))}
      <AtTheSite ticket={ticket} />
      {ticket.agreed && <Fact name="Agreed">{ticket.agreed}</Fact>}
      {ticket.backup && (
        <Fact name="Backup">
          {ticket.backup}
          {ticket.backupDetail ? `: ${ticket.backupDetail}` : ''}
        </Fact>
      )}
    </>
  )
}

/** Who was there, and what became of the machine and what stands around it. */
function AtTheSite({ ticket }: Known) {
  const { zone } = ticket
  return (
    <>
      {ticket.siteVisits.map(visit => (
        <Fact key={visit.engineer + visit.arrivedAt} name="On site">
          {visit.engineer}, {clock(visit.arrivedAt, zone)}
          {visit.leftAt && ` to ${clock(visit.leftAt, zone)}: ${said(visit.ended ?? 'done')}`}
          {!visit.leftAt && (visit.ended ? '; when they left is not on record' : ', there now')}
          {visit.learnt && `. ${visit.learnt}`}
        </Fact>
      ))}
      {ticket.aside.map(what => (
        <Fact key={what} name="Moved aside">
          {what}, not back yet
        </Fact>
      ))}
      {ticket.power.map(line => (
        <Fact key={line} name="Power">
          {line}
        </Fact>
      ))}
      {ticket.space.map(line => (
        <Fact key={line} name="Space">
          {line}
        </Fact>
      ))}
    </>
  )
}

/** Each replacement that was set aside, and where it is. */
function Parts({ ticket }: Known) {
  const here = `/tickets/${ticket.number}`
  const replacements = ticket.replacements ?? []
  return (
    <Fact name="Replacement">
      {ticket.parts.length === 0 && 'none reserved '}
      {replacements.map(part => (
        <span key={part.serial} style={{ display: 'block' }}>
          <span className="mono">{part.serial}</span> {part.model}, {part.is}
        </span>
      ))}
      <Link to={`${here}/bring`}>What to bring</Link> · <Link to={`${here}/return`}>Parts and returns</Link>
    </Fact>
  )
}

/** Which drives went where, and which nearly did. */
function Moved({ ticket }: Known) {
  const swaps = [...ticket.earlierSwaps, ticket.swap]
  return (
    <>
      {swaps
        .filter(s => s.outSerial)
        .map(s => (
          <Fact key={s.outSerial} name="Came out">
            <span className="mono">{s.outSerial}</span> from bay {s.bay}
          </Fact>
        ))}
      {swaps
        .filter(s => s.inSerial)
        .map(s => (
          <Fact key={s.inSerial} name="Went in">
            <span className="mono">{s.inSerial}</span>
          </Fact>
        ))}
      {swaps
        .flatMap(s => s.nearMisses)
        .map(miss => (
          <Fact key={miss.at} name={miss.onPurpose ? 'Trial pull' : 'Near miss'}>
            <span className="mono">{miss.serial}</span> was pulled from bay {miss.bay} and went straight back
            {miss.onPurpose && `, on purpose, allowed by ${miss.onPurpose}`}
            {miss.notSo && <strong> · that was not so ({miss.notSo})</strong>}
          </Fact>
        ))}
    </>
  )
}

/** What can be read, printed or looked at. */
function Papers({ ticket }: Known) {
  const here = `/tickets/${ticket.number}`
  return (
    <>
      {ticket.run && (
        <Fact name="Run sheet">
          {ticket.run.sheet.title} · <a href={`/api/tickets/${ticket.number}/sheet.pdf`}>on paper</a> ·{' '}
          <Link to={`${here}/paper`}>enter from paper</Link>
        </Fact>
      )}
      <Fact name="Documents">
        <Link to={`${here}/documents`}>labels, notes, certificates and all other papers</Link>
      </Fact>
      {ticket.arrivedAt && (
        <Fact name="Service report">
          <a href={`/api/tickets/${ticket.number}/report.pdf`}>{ticket.endedAt ? 'as it ended' : 'so far'}</a>
        </Fact>
      )}
      {ticket.advice.length > 0 && (
        <Fact name="Advised">
          {ticket.advice.map(a => (
            <div key={a.text}>
              {a.text} <span className="chalk">{a.decision ?? 'not decided yet'}</span>
            </div>
          ))}
          <a href={`/api/tickets/${ticket.number}/proposal.pdf`}>the proposal, on paper</a>
        </Fact>
      )}
      {ticket.photos.length > 0 && (
        <Fact name="Pictures">
          <Pictures ticket={ticket} photos={ticket.photos} />
        </Fact>
      )}
    </>
  )
}

/** How far it is from being over, and what stands against it. */
function Ends({ ticket }: Known) {
  const here = `/tickets/${ticket.number}`
  return (
    <>
      {ticket.swap.inSerial && (
        <Fact name="Rebuild">
          <Link to={`${here}/rebuild`}>{ticket.rebuild.look.sentence}</Link>
        </Fact>
      )}
      {ticket.signedOffBy && <Fact name="Signed off">{ticket.signedOffBy}</Fact>}
      {ticket.help && (
        <Fact name="Help">
          {ticket.help.by}: {ticket.help.reason} {ticket.help.answer ? `${ticket.help.answeredBy}: ${ticket.help.answer}` : '(waiting)'}
        </Fact>
      )}
      {ticket.discrepancies.map(d => (
        <Fact key={d.id} name={d.settledBy ? 'Settled' : '◆ Open'}>
          {d.sentence} {d.settlement ? `${d.settledBy}: ${d.settlement}` : ''}
        </Fact>
      ))}
    </>
  )
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  )
}
