import { Button, NativeSelect, TextInput } from '@mantine/core'
import { Link } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { useFields } from '../shared/typed/useFields'
import type { Person, PersonHolds } from '../shared/types'
import { said, ticketName } from '../shared/words'
import { NotPermitted, useMay } from './NotPermitted'
import { useHolds, usePeople, usePeopleChange } from './peopleQueries'

/** Somebody is to be kept out, for a while or for good: what they lead and hold goes to others. */
export function Out({ person }: { person: Person }) {
  const holds = useHolds(person.name, true)
  const nothing = holds.data && holds.data.tickets.length + holds.data.parts.length + holds.data.supplies.length === 0
  return (
    <section className="panel stack" aria-label="Out">
      <h2>{person.disabledAt ? 'Let them in again' : 'Keep them out'}</h2>
      <Holding person={person} />
      {person.disabledAt ? <Again person={person} /> : <Because person={person} leaves={nothing === true} />}
    </section>
  )
}

/** What they lead and have, and how it goes to others; nothing where it is nothing. */
export function Holding({ person: { name } }: { person: Person }) {
  const holds = useHolds(name, true)
  return holds.data ? <Has name={name} holds={holds.data} /> : <Refused problem={holds.error} />
}

function Has({ name, holds }: { name: string; holds: PersonHolds }) {
  const may = useMay('hand-over-all')
  return (
    <div className="stack">
      {holds.tickets.length > 0 && (
        <p style={{ margin: 0 }}>
          They lead{' '}
          {holds.tickets.map((ticket, nth) => (
            <span key={ticket.number}>
              {nth > 0 && ', '}
              <Link to={`/tickets/${ticket.number}`}>{ticketName(ticket.number)}</Link> ({said(ticket.stage)})
            </span>
          ))}
          .
        </p>
      )}
      {holds.parts.length > 0 && (
        <p style={{ margin: 0 }}>
          They have <span className="mono">{holds.parts.map(part => part.serial).join(', ')}</span>;{' '}
          <Link to="/stores">stores takes it back</Link>.
        </p>
      )}
      {holds.supplies.length > 0 && (
        <p style={{ margin: 0 }}>
          In their van: {holds.supplies.join('; ')}. <Link to="/stores/supplies">Stores moves it</Link>.
        </p>
      )}
      {holds.tickets.length > 0 && (may ? <HandOver name={name} /> : <NotPermitted permission="hand-over-all" />)}
    </div>
  )
}

function HandOver({ name }: { name: string }) {
  const people = usePeople()
  const engineers = (people.data?.people ?? []).filter(one => one.roles.includes('engineer') && one.name !== name)
  const [{ to, note }, set] = useFields({ to: '', note: '' })
  const chosen = to || engineers[0]?.name || ''
  const over = usePeopleChange(async () =>
    unwrap(await api.POST('/api/people/{name}/hand-over', { params: { path: { name } }, body: { to: chosen, note: note.trim() || null } })),
  )
  return (
    <form
      className="stack"
      aria-label="Hand all over"
      onSubmit={event => {
        event.preventDefault()
        over.mutate(undefined)
      }}
    >
      <NativeSelect
        label="Who has them from now on"
        data={engineers.map(one => ({ value: one.name, label: `${one.fullName} (${one.name})` }))}
        value={chosen}
        onChange={set('to')}
      />
      <TextInput label="What they should know" value={note} onChange={set('note')} />
      <Button type="submit" variant="default" loading={over.isPending} disabled={!chosen}>
        Hand all tickets over
      </Button>
      {over.data && over.data.tickets.length > 0 && (
        <p role="status">
          {over.data.to} has {over.data.tickets.map(ticketName).join(', ')} now.
        </p>
      )}
      {over.data?.refused.map(why => (
        <p key={why} role="alert" className="brick">
          {why}
        </p>
      ))}
      <Refused problem={over.error} />
    </form>
  )
}

function Because({ person, leaves }: { person: Person; leaves: boolean }) {
  const [{ because }, set] = useFields({ because: '' })
  const path = { params: { path: { name: person.name } }, body: { because } } as const
  const disable = usePeopleChange(async () => unwrap(await api.POST('/api/people/{name}/disable', path)))
  const leave = usePeopleChange(async () => unwrap(await api.POST('/api/people/{name}/leave', path)))
  return (
    <form
      className="stack"
      aria-label="Keep them out"
      onSubmit={event => {
        event.preventDefault()
        disable.mutate(undefined)
      }}
    >
      <TextInput label="Why" value={because} onChange={set('because')} required withAsterisk={false} />
      <div className="row">
        <Button type="submit" loading={disable.isPending}>
          Keep them out now
        </Button>
        <Button
          type="button"
          variant="default"
          loading={leave.isPending}
          disabled={!leaves || because.trim() === ''}
          onClick={() => leave.mutate(undefined)}
        >
          They leave the firm
        </Button>
      </div>
      <p className="chalk" style={{ marginBottom: 0 }}>
        Kept out, they are signed out everywhere within seconds. Whoever leaves hands over everything first.
      </p>
      <Refused problem={disable.error ?? leave.error} />
    </form>
  )
}

function Again({ person }: { person: Person }) {
  const enable = usePeopleChange(async () =>
    unwrap(await api.POST('/api/people/{name}/enable', { params: { path: { name: person.name } } })),
  )
  return (
    <>
      <Button variant="default" loading={enable.isPending} onClick={() => enable.mutate(undefined)}>
        They may come in again
      </Button>
      <Refused problem={enable.error} />
    </>
  )
}
