import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { clock } from '../../shared/time'
import type { StoredPart, StoresDesk } from '../../shared/types'
import { said, size, ticketName } from '../../shared/words'
import { holderName } from '../holderName'

/** What stores looks at in the morning: first what somebody waits for. */
export function StoresLists({ desk, depot }: { desk: StoresDesk; depot: string }) {
  return (
    <>
      <Group
        title="Pick"
        none="Nothing that is set aside waits on a shelf."
        foot={
          <a href={`/api/stores/picking-list.pdf${depot ? `?depot=${encodeURIComponent(depot)}` : ''}`} target="_blank" rel="noreferrer">
            The picking list, on paper
          </a>
        }
      >
        {desk.pick.map(line => (
          <li key={line.part.serial} className="part-line">
            <Serial part={line.part} /> {where(line.part)} for <Link to={`/tickets/${line.ticket}/return`}>{ticketName(line.ticket)}</Link>,{' '}
            {line.asset} at {line.site}; {line.engineer ? `${line.engineer} takes it` : 'nobody is assigned yet'}
            {line.neededBy ? `, needed ${clock(line.neededBy, null)}` : ''}
          </li>
        ))}
      </Group>
      <Parts title="Late" none="Nothing is late." parts={desk.late} />
      <Parts title="On the way" none="Nothing is on its way." parts={desk.onTheWay} />
      <Parts title="To look at" none="Nothing that came back waits to be looked at." parts={desk.toInspect} />
      <Parts title="To wipe" none="No used drive waits to be wiped." parts={desk.toWipe} />
      <Parts title="Set apart" none="Nothing waits to be destroyed, is evidence, or is known to be bad." parts={desk.apart} />
      <Shelves desk={desk} />
      <Group title="With people" none="Nobody has parts with them.">
        {desk.carried.map(c => (
          <li key={`${c.holder.kind}${c.holder.name}`} className="part-line">
            {holderName(c.holder)}: {c.parts}, the oldest since {clock(c.oldest, null)}
          </li>
        ))}
      </Group>
      <Group title="To order" none="Nothing has to be ordered.">
        {desk.order.map(o => (
          <li key={o.model} className="part-line">
            <strong>
              {o.order} {o.model}
            </strong>
            <br />
            <span className="chalk">{o.says}</span>
          </li>
        ))}
      </Group>
    </>
  )
}

function Shelves({ desk }: { desk: StoresDesk }) {
  return (
    <section className="panel" aria-labelledby="shelves">
      <h2 id="shelves">On the shelves</h2>
      {desk.shelves.length === 0 ? (
        <p className="chalk" style={{ margin: 0 }}>
          Nothing lies in any depot. What comes in is scanned above; a list of stock is brought in under <Link to="/lists">Lists</Link>.
        </p>
      ) : (
        <div className="scrolls">
          <table className="shelves">
            <thead>
              <tr>
                <th>Depot</th>
                <th>Model</th>
                <th>Size</th>
                <th className="number">There</th>
                <th className="number">Free</th>
                <th className="number">To wipe</th>
              </tr>
            </thead>
            <tbody>
              {desk.shelves.map(s => (
                <tr key={`${s.depot} ${s.model}`}>
                  <td>{s.depot}</td>
                  <td>{s.model || 'not said'}</td>
                  <td>{s.bytes ? size(s.bytes) : ''}</td>
                  <td className="number">{s.there}</td>
                  <td className="number">
                    <strong>{s.free}</strong>
                  </td>
                  <td className="number">{s.toWipe || ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  )
}

function Parts({ title, none, parts }: { title: string; none: string; parts: readonly StoredPart[] }) {
  return (
    <Group title={title} none={none}>
      {parts.map(part => (
        <li key={part.serial} className="part-line">
          <Serial part={part} /> {where(part)} since {clock(part.since, null)}
          {part.going ? `, to ${part.going}` : ''}
          {part.dueBy ? `, due ${part.dueBy}` : ''}
          {part.apart ? `, ${said(part.apart)}` : ''}
          {part.unwipedFrom && part.holder.kind === 'depot' ? `, data of ${part.unwipedFrom}` : ''}
          {part.ticket ? (
            <>
              {' '}
              <Link to={`/tickets/${part.ticket}/return`}>{ticketName(part.ticket)}</Link>
            </>
          ) : null}
        </li>
      ))}
    </Group>
  )
}

/** Long lists open at their head; what is empty says so in one line. */
function Group({ title, none, foot, children }: { title: string; none: string; foot?: ReactNode; children: ReactNode[] }) {
  const shown = 12
  const id = title.replaceAll(' ', '-').toLowerCase()
  if (children.length === 0)
    return (
      <p className="chalk" style={{ margin: '12px 0 0' }}>
        {none}
      </p>
    )
  return (
    <section className="panel" aria-labelledby={id}>
      <h2 id={id}>
        {title} <span className="chalk">{children.length}</span>
      </h2>
      <ul style={{ margin: 0, padding: 0, listStyle: 'none' }}>{children.slice(0, shown)}</ul>
      {children.length > shown && (
        <details>
          <summary>{children.length - shown} more</summary>
          <ul style={{ margin: 0, padding: 0, listStyle: 'none' }}>{children.slice(shown)}</ul>
        </details>
      )}
      {foot && <p style={{ margin: '8px 0 0' }}>{foot}</p>}
    </section>
  )
}

const Serial = ({ part }: { part: StoredPart }) => (
  <>
    <Link className="mono" to={`/drives/${encodeURIComponent(part.serial)}`}>
      {part.serial}
    </Link>
    {part.model ? ` ${part.model}` : ''}
    {','}
  </>
)

const where = (part: StoredPart) => holderName(part.holder)
