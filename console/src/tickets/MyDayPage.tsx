import { Button, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMe } from '../people'
import type { TicketLine, Turn } from '../shared/types'
import { Waiting } from '../shared/Waiting'
import { mayAct } from '../shared/words'
import { DayStops } from './DayStops'
import { TicketCard } from './TicketCard'
import { useFoundTickets, useWaiting } from './ticketQueries'

const atFirst = 50

/** What waits for me first, then what waits for anybody, then the rest; in each the worst first. */
export function MyDayPage() {
  const me = useMe()
  const [typed, setTyped] = useState('')
  const [find] = useDebouncedValue(typed.trim(), 250)
  if (!me.data) return <Waiting for="your day" problem={me.error} />
  return (
    <main className="page">
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <h1>My day</h1>
        <Button component={Link} to="/report" variant="default">
          Report a fault
        </Button>
      </div>
      <TextInput
        label="Find"
        placeholder="Ticket, asset number, serial or its last characters"
        value={typed}
        onChange={e => setTyped(e.currentTarget.value)}
        my={8}
      />
      {find ? (
        <Found find={find} />
      ) : (
        <>
          {mayAct(me.data.roles, 'engineer') && <DayStops engineer={me.data.name} />}
          <Groups />
        </>
      )}
    </main>
  )
}

function Found({ find }: { find: string }) {
  const found = useFoundTickets(find)
  if (!found.data) return <Waiting for="what has that in it" problem={found.error} />
  if (found.data.length === 0) return <p>Nothing has '{find}' in it: no ticket, asset number or serial.</p>
  return <Group title="Found" tickets={found.data} count={found.data.length} />
}

const titles: Record<Turn, string> = { yours: 'Waits for you', anybodys: 'Waits for somebody', others: 'With others' }

function Groups() {
  const [most, setMost] = useState(atFirst)
  const groups = useWaiting(most)
  if (!groups.data) return <Waiting for="what is open" problem={groups.error} />
  if (groups.data.every(group => group.count === 0)) return <p>Nothing is open. A fault that is reported appears here by itself.</p>
  return (
    <>
      {groups.data.map(group => (
        <Group key={group.turn} title={titles[group.turn]} tickets={group.tickets} count={group.count} />
      ))}
      {groups.data.some(group => group.count > group.tickets.length) && (
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
        {title} <span className="chalk">{count > tickets.length ? `the worst ${tickets.length} of ${count}` : count}</span>
      </h2>
      {tickets.map(ticket => (
        <TicketCard key={ticket.number} ticket={ticket} />
      ))}
    </section>
  )
}
