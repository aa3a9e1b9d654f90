import { Button } from '@mantine/core'
import { useInfiniteQuery } from '@tanstack/react-query'
import { memo, useDeferredValue } from 'react'
import { Link } from 'react-router'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { clock } from '../../shared/time'
import type { DeskView } from '../../shared/types'
import { Waiting } from '../../shared/Waiting'
import { said, ticketName } from '../../shared/words'
import { useWrite } from '../ticketQueries'
import { counted, FilterBar } from './FilterBar'
import { queryOf, type TicketFilter, useTicketFilter } from './ticketFilter'
import './desk.css'

type Line = DeskView['lines'][number]

/** What a dispatcher sees: what comes first on top, why, until when, and who could go. */
export function DeskPage() {
  const [filter, set, clear] = useTicketFilter()
  return (
    <main className="page wide">
      <h1>Desk</h1>
      <FilterBar filter={filter} set={set} clear={clear} onlyOpen />
      <Lines filter={filter} />
    </main>
  )
}

const useDesk = (filter: TicketFilter) =>
  useInfiniteQuery({
    queryKey: ['tickets', 'list', 'desk', filter],
    initialPageParam: 0,
    queryFn: async ({ signal, pageParam }) => {
      const { ended: _, ...query } = queryOf(filter)
      return unwrap(await api.GET('/api/desk', { params: { query: { ...query, skip: pageParam } }, signal }))
    },
    getNextPageParam: page => page.next ?? undefined,
    placeholderData: earlier => earlier,
    refetchInterval: 60_000, // promises run out with time alone
  })

function Lines({ filter }: { filter: TicketFilter }) {
  const desk = useDesk(filter)
  const pages = useDeferredValue(desk.data?.pages)
  const first = pages?.[0]
  if (!pages || !first) return <Waiting for="the desk" problem={desk.error} />
  const all = pages.flatMap(page => page.lines)
  // A ticket whose place changed between two pages is on both: its first place counts.
  const lines = all.filter((line, i) => all.findIndex(l => l.ticket.number === line.ticket.number) === i)
  const narrowed = Object.keys(filter).length > 0
  return (
    <>
      <p className="chalk" style={{ margin: 0 }}>
        {counted(first.count)} {narrowed ? 'found' : 'open'} · {counted(first.withNobody)} with nobody ·{' '}
        {first.engineers
          .filter(e => !e.out)
          .map(e => `${e.fullName || e.engineer} ${e.open}`)
          .join(', ')}
      </p>
      {first.engineers
        .filter(e => e.out)
        .map(e => (
          <p key={e.engineer} className="brick" style={{ margin: 0 }}>
            ✕ {e.fullName || e.engineer} may not come in any more and still leads {counted(e.open)}:{' '}
            <Link to={`/people/${encodeURIComponent(e.engineer)}`}>hand them over</Link>.
          </p>
        ))}
      {first.notUsed?.map(p => (
        <p key={p.says} className="brick" style={{ margin: 0 }}>
          ■ {p.says} {p.procedure && <Link to={`/procedures/${p.procedure}`}>Look at it</Link>}
        </p>
      ))}
      {lines.length === 0 && (
        <p className="panel">
          {narrowed ? 'No open ticket is like that; narrow it less.' : 'Nothing is open. A fault that arrives appears here by itself.'}
        </p>
      )}
      <ol className="desk">
        {lines.map(line => (
          <DeskLine key={line.ticket.number} line={line} />
        ))}
      </ol>
      {desk.hasNextPage && (
        <Button variant="default" fullWidth loading={desk.isFetchingNextPage} onClick={() => desk.fetchNextPage()}>
          Show more
        </Button>
      )}
    </>
  )
}

const signs = { now: '■ now', today: '◆ today', soon: '▬ soon', 'can-wait': '○ can wait' } as const

const DeskLine = memo(function DeskLine({ line: { ticket, priority, candidates } }: { line: Line }) {
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
})

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
