import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import type { DeskView } from '../shared/types'
import { Waiting } from '../shared/Waiting'
import { said, ticketName } from '../shared/words'
import { useWrite } from './ticketQueries'
import './desk.css'

type Line = DeskView['lines'][number]

/** What a dispatcher sees: what comes first on top, why, until when, and who could go. */
export function DeskPage() {
  const desk = useQuery({
    queryKey: ['tickets', 'list', 'desk'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/desk', { signal })),
    refetchInterval: 60_000, // promises run out with time alone
  })
  if (!desk.data) return <Waiting for="the desk" problem={desk.error} />
  const { lines, engineers } = desk.data
  return (
    <main className="page wide">
      <h1>Desk</h1>
      <p className="chalk" style={{ margin: 0 }}>
        {lines.length} open · {lines.filter(l => !l.ticket.engineer).length} with nobody ·{' '}
        {engineers.map(e => `${e.fullName || e.engineer} ${e.open}`).join(', ')}
      </p>
      {lines.length === 0 && <p className="panel">Nothing is open. A fault that arrives appears here by itself.</p>}
      <ol className="desk">
        {lines.map(line => (
          <DeskLine key={line.ticket.number} line={line} />
        ))}
      </ol>
    </main>
  )
}

const signs = { now: '■ now', today: '◆ today', soon: '▬ soon', 'can-wait': '○ can wait' } as const

function DeskLine({ line: { ticket, priority, candidates } }: { line: Line }) {
  return (
    <li className={priority.urgency === 'now' ? 'panel danger desk-line' : 'panel desk-line'}>
      <strong className={priority.urgency === 'now' ? 'brick' : undefined}>{signs[priority.urgency]}</strong>
      <div>
        <Link to={`/tickets/${ticket.number}`}>
          <span className="mono">{ticketName(ticket.number)}</span> {ticket.symptom}
        </Link>
        <div className="chalk">
          <span className="mono">{ticket.asset}</span> {ticket.site} · {said(ticket.stage)} · {priority.because}
        </div>
        {ticket.dueAt && ticket.due && (
          <div>
            {said(ticket.due)} by {clock(ticket.dueAt, null)}
          </div>
        )}
      </div>
      <div className="desk-who">
        {ticket.engineer ? <Planned line={ticket} /> : <Give ticket={ticket.number} candidates={candidates} />}
      </div>
    </li>
  )
}

function Planned({ line }: { line: Line['ticket'] }) {
  return (
    <>
      <strong>{line.engineer}</strong>
      <div className="chalk">{line.visitFrom ? `visit ${clock(line.visitFrom, null)}` : 'no visit planned'}</div>
    </>
  )
}

function Give({ ticket, candidates }: { ticket: number; candidates: Line['candidates'] }) {
  const writer = useWrite(ticket)
  if (candidates.length === 0) return <span className="chalk">nobody</span>
  return (
    <>
      {candidates.map(c => {
        const told = `${c.engineer}: ${c.load} open${c.km !== null ? `, ${c.km} km from ${c.near}` : ''}`
        return c.whyNot ? (
          <span key={c.engineer} className="chalk" title={c.whyNot}>
            {told}
          </span>
        ) : (
          <Button
            key={c.engineer}
            variant="default"
            size="xs"
            loading={writer.busy}
            onClick={() => writer.write({ kind: 'engineer-assigned', engineer: c.engineer })}
          >
            {told}
          </Button>
        )
      })}
      <Refused problem={writer.problem} />
    </>
  )
}
