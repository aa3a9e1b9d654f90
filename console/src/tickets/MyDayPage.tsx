import { Button, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMe } from '../people'
import type { TicketLine } from '../shared/types'
import { Waiting } from '../shared/Waiting'
import { mayAct } from '../shared/words'
import { DayStops } from './DayStops'
import { byDay } from './myDay'
import { TicketCard } from './TicketCard'
import { useOpenTickets } from './ticketQueries'

/** What waits for me first, then what waits for anybody, then the rest. */
export function MyDayPage() {
  const me = useMe()
  const [typed, setTyped] = useState('')
  const [find] = useDebouncedValue(typed.trim(), 250)
  const tickets = useOpenTickets(find)
  if (!tickets.data || !me.data) return <Waiting for="your day" problem={tickets.error} />
  const groups = byDay(tickets.data.tickets, tickets.data.turns ?? [])
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
      {tickets.data.tickets.length === 0 && (
        <p>
          {find
            ? `Nothing has '${find}' in it: no ticket, asset number or serial.`
            : 'Nothing is open. A fault that is reported appears here by itself.'}
        </p>
      )}
      {find ? (
        <Group title="Found" tickets={tickets.data.tickets} />
      ) : (
        <>
          {mayAct(me.data.roles, 'engineer') && <DayStops engineer={me.data.name} />}
          <Group title="Waits for you" tickets={groups.mine} />
          <Group title="Waits for somebody" tickets={groups.anybodys} />
          <Group title="With others" tickets={groups.others} />
        </>
      )}
    </main>
  )
}

function Group({ title, tickets }: { title: string; tickets: readonly TicketLine[] }) {
  if (tickets.length === 0) return null
  return (
    <section aria-label={title}>
      <h2 style={{ marginTop: 20 }}>{title}</h2>
      {tickets.map(ticket => (
        <TicketCard key={ticket.number} ticket={ticket} />
      ))}
    </section>
  )
}
