import { Button, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { Refused } from '../shared/Refused'
import type { Person, TicketView } from '../shared/types'
import { HelpAnswer } from './HelpAnswer'
import { SettleDiscrepancies } from './SettleDiscrepancies'
import type { Writer } from './ticketQueries'

/** Whose turn it is, what to do, and the one button that does it. */
export function NextMove({ ticket, me, writer }: { ticket: TicketView; me: Person; writer: Writer }) {
  return (
    <section className="panel now" aria-labelledby="next">
      <h2 id="next">Next: {ticket.next.who}</h2>
      <p style={{ fontSize: 20, margin: '0 0 12px' }}>{ticket.next.say}</p>
      <MoveButton ticket={ticket} me={me} writer={writer} />
      <Refused problem={writer.problem} />
    </section>
  )
}

/** The one filled button: the service says what kind of thing is next, this says how it is done here. */
function MoveButton({ ticket, me, writer }: { ticket: TicketView; me: Person; writer: Writer }) {
  const here = `/tickets/${ticket.number}`
  switch (ticket.next.move) {
    case 'nothing':
      return null
    case 'lift-hold':
      return <Press busy={writer.busy} say="Lift the hold" act={() => writer.write({ kind: 'hold-lifted' })} />
    case 'answer-help':
      return <HelpAnswer writer={writer} />
    case 'no-swap':
      return (
        <p className="chalk" style={{ margin: 0 }}>
          Call a lead below; their go-ahead makes it an ordinary ticket. Or cancel it, with what was agreed.
        </p>
      )
    case 'take':
      return <Press busy={writer.busy} say="Take it" act={() => writer.write({ kind: 'engineer-assigned', engineer: me.name })} />
    case 'take-snapshot':
      return <SnapshotButtons ticket={ticket} writer={writer} />
    case 'reserve-part':
      return <Go to={`${here}/bring`} say="What to bring" />
    case 'issue-part':
    case 'open-return':
    case 'send-return':
    case 'book-in':
      return <Go to={`${here}/return`} say="Parts and returns" />
    case 'arrive':
      return <Press busy={writer.busy} say="I have arrived" act={() => writer.write({ kind: 'arrived-on-site' })} />
    case 'start-run':
      return <Press busy={writer.busy} say="Start the run sheet" act={() => writer.run({ errand: 'sheet' })} />
    case 'follow-run':
      return <Go to={`${here}/run`} say="Go on with the run" />
    case 'settle':
      return <SettleDiscrepancies ticket={ticket} writer={writer} />
    case 'sign-off':
      return <SignOff writer={writer} />
    case 'close':
      return <Press busy={writer.busy} say="Close the ticket" act={() => writer.write({ kind: 'ticket-closed' })} />
  }
}

export function SnapshotButtons({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  return (
    <div className="row">
      {ticket.reachable && <Press busy={writer.busy} say="Ask the machine for a snapshot" act={() => writer.run({ errand: 'snapshot' })} />}
      <Button component={Link} to={`/tickets/${ticket.number}/snapshot`} variant={ticket.reachable ? 'default' : 'filled'}>
        Type what you see
      </Button>
    </div>
  )
}

function SignOff({ writer }: { writer: Writer }) {
  const [name, setName] = useState('')
  const [statement, setStatement] = useState('')
  return (
    <form
      className="stack"
      onSubmit={event => {
        event.preventDefault()
        void writer.write({ kind: 'customer-signed-off', name, statement: statement || null })
      }}
    >
      <TextInput
        label="Who signs for the customer"
        required
        withAsterisk={false}
        value={name}
        onChange={e => setName(e.currentTarget.value)}
      />
      <TextInput
        label="In their words"
        placeholder="Opened three volumes; all there."
        value={statement}
        onChange={e => setStatement(e.currentTarget.value)}
      />
      <Button type="submit" loading={writer.busy}>
        Signed off
      </Button>
    </form>
  )
}

function Press({ say, act, busy }: { say: string; act: () => unknown; busy: boolean }) {
  return (
    <Button onClick={act} loading={busy}>
      {say}
    </Button>
  )
}

function Go({ to, say }: { to: string; say: string }) {
  return (
    <Button component={Link} to={to}>
      {say}
    </Button>
  )
}
