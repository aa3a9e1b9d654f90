import { Button } from '@mantine/core'
import { useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import { useMe } from '../../people'
import type { TicketLine, Turn } from '../../shared/types'
import { Waiting, WaitingPage } from '../../shared/Waiting'
import { mayAct } from '../../shared/words'
import { useFoundTickets, useWaiting } from '../ticketQueries'
import { DayStops } from './DayStops'
import { counted, FilterBar } from './FilterBar'
import { TicketCard } from './TicketCard'
import { type TicketFilter, useTicketFilter } from './ticketFilter'

const atFirst = 50

/** What waits for me first, then what waits for anybody, then the rest; in each the worst first. */
export function MyDayPage() {
  const me = useMe()
  const [filter, set, clear] = useTicketFilter()
  if (!me.data) return <WaitingPage for="your day" problem={me.error} />
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <h1>My day</h1>
        <Button component={Link} to="/report" variant="default">
          Report a fault
        </Button>
      </div>
      <FilterBar filter={filter} set={set} clear={clear} />
      {Object.keys(filter).length > 0 ? (
        <Found filter={filter} />
      ) : (
        <>
          {mayAct(me.data.roles, 'engineer') && <DayStops engineer={me.data.name} />}
          <Groups />
        </>
      )}
    </main>
  )
}

function Found({ filter }: { filter: TicketFilter }) {
  const found = useFoundTickets(filter)
  const pages = useDeferredValue(found.data?.pages)
  if (!pages) return <Waiting for="what has that in it" problem={found.error} />
  const tickets = pages.flatMap(page => page.tickets)
  const count = pages[0]?.count ?? tickets.length
  if (tickets.length === 0)
    return (
      <p>
        {filter.find ? `Nothing has '${filter.find}' in it` : 'No ticket is like that'}
        {Object.keys(filter).length > 1 ? '; narrow it less.' : ': no ticket, asset, serial, site or customer.'}
      </p>
    )
  return (
    <section aria-label="Found">
      <h2 style={{ marginTop: 20 }}>
        Found <span className="chalk">{counted(count)}</span>
      </h2>
      {tickets.map(ticket => (
        <TicketCard key={ticket.number} ticket={ticket} />
      ))}
      {found.hasNextPage && (
        <Button variant="default" fullWidth loading={found.isFetchingNextPage} onClick={() => found.fetchNextPage()}>
          Show more
        </Button>
      )}
    </section>
  )
}

const titles: Record<Turn, string> = { yours: 'Waits for you', anybodys: 'Waits for somebody', others: 'With others' }

function Groups() {
  const [most, setMost] = useState(atFirst)
  const groups = useWaiting(most)
  const shown = useDeferredValue(groups.data) // a long list is drawn bit by bit, and what is pressed meanwhile goes first
  if (!shown) return <Waiting for="what is open" problem={groups.error} />
  if (shown.every(group => group.count === 0)) return <p>Nothing is open. A fault that is reported appears here by itself.</p>
  return (
    <>
      {shown.map(group => (
        <Group key={group.turn} title={titles[group.turn]} tickets={group.tickets} count={group.count} />
      ))}
      {shown.some(group => group.count > group.tickets.length) && (
        <Button variant="default" fullWidth onClick={() => setMost(Math.min(1_000, most * 4))}>
          Show more
        </Button>
      )}
    </>
  )
}

function Group({ title, tickets, count }: { title: string; tickets: readonly TicketLine[]; count: number }) {
  if (count === 0) return null
  return (
    <section aria-label={title}>
      <h2 style={{ marginTop: 20 }}>
        {title} <span className="chalk">{count > tickets.length ? `the worst ${tickets.length} of ${counted(count)}` : count}</span>
      </h2>
      {tickets.map(ticket => (
        <TicketCard key={ticket.number} ticket={ticket} />
      ))}
    </section>
  )
}
