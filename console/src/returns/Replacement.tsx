import { Button, TextInput } from '@mantine/core'
import { usePeople } from '../people'
import type { TicketView } from '../shared/types'
import { useFields } from '../shared/useFields'
import { size } from '../shared/words'
import type { Writer } from '../tickets'

/** Stores sets a replacement aside. Bytes, because drives of one name differ by some sectors. */
export function ReservePart({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const needed = neededBytes(ticket)
  const [part, set] = useFields({ serial: '', model: '', bytes: needed ? String(needed) : '', depot: '' })
  return (
    <form
      className="panel now stack"
      onSubmit={event => {
        event.preventDefault()
        void writer.write({
          kind: 'part-reserved',
          serial: part.serial,
          model: part.model,
          bytes: Number(part.bytes.replaceAll(/[\s,]/g, '')),
          depot: part.depot,
        })
      }}
    >
      <h2>Reserve a replacement</h2>
      {needed && (
        <p style={{ margin: 0 }}>
          The array uses <span className="mono">{needed.toLocaleString('en')}</span> bytes of each member, {size(needed)}. It has to be at
          least as large.
        </p>
      )}
      <TextInput label="Serial" classNames={{ input: 'mono' }} required withAsterisk={false} value={part.serial} onChange={set('serial')} />
      <TextInput label="Model, as its label says" required withAsterisk={false} value={part.model} onChange={set('model')} />
      <TextInput
        label="Bytes"
        inputMode="numeric"
        pattern="[0-9, ]+"
        title="Whole bytes, such as 8001563222016"
        required
        withAsterisk={false}
        value={part.bytes}
        onChange={set('bytes')}
      />
      <TextInput label="Where it lies" placeholder="Main stores" required withAsterisk={false} value={part.depot} onChange={set('depot')} />
      <Button type="submit" loading={writer.busy}>
        Reserve it
      </Button>
    </form>
  )
}

export function IssuePart({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const people = usePeople()
  const to = ticket.engineer
  const fullName = people.data?.people.find(p => p.name === to)?.fullName ?? to
  if (!ticket.part || !to) return <p className="panel">Assign an engineer first; the replacement is issued to them.</p>
  const { serial } = ticket.part
  return (
    <section className="panel now stack">
      <h2>Hand it over</h2>
      <p style={{ margin: 0 }}>
        <span className="mono">{serial}</span> lies at {ticket.part.depot}.
      </p>
      <Button loading={writer.busy} onClick={() => writer.write({ kind: 'part-issued', serial, to })}>
        Issue it to {fullName}
      </Button>
    </section>
  )
}

function neededBytes({ latest, report }: TicketView): number | null {
  const bay = latest?.bays.find(b => (report.serial ? b.serial === report.serial : b.label === report.bay))
  return latest?.arrays.find(a => a.name === bay?.array)?.memberBytes ?? bay?.bytes ?? null
}
