import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import type { ArrayState, Bay, BayRole, DriveHealth, Snapshot, TicketView } from '../shared/types'
import { Waiting } from '../shared/Waiting'
import { TicketHead, useTicket, useTicketNumber, useWrite } from '../tickets'
import './handSnapshot.css'

const roles: BayRole[] = ['member', 'filling', 'spare', 'dropped', 'unclaimed', 'foreign', 'empty']
const healths: DriveHealth[] = ['good', 'worn', 'faulted', 'unknown']
const states: ArrayState[] = ['whole', 'degraded', 'rebuilding', 'failed']

/** All bays as a person sees them, where no wire reaches the machine. It counts as much as the machine's own word. */
export function HandSnapshotPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const asset = ticket.data?.report.asset
  const appliance = useQuery({
    queryKey: ['appliances', asset],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances/{asset}', { params: { path: { asset: asset ?? '' } }, signal })),
    enabled: Boolean(ticket.data && !ticket.data.latest),
  })
  if (!ticket.data) return <Waiting for="the ticket" problem={ticket.error} />
  const start = ticket.data.latest ?? appliance.data?.blank
  if (!start) return <Waiting for="the machine" problem={appliance.error} />
  return <HandSnapshot ticket={ticket.data} start={start} />
}

type Changed = React.ChangeEvent<HTMLInputElement | HTMLSelectElement>

function HandSnapshot({ ticket, start }: { ticket: TicketView; start: Snapshot }) {
  const navigate = useNavigate()
  const writer = useWrite(ticket.number)
  const [seen, setSeen] = useState(start)
  // From what it is when the change is made, not from what was drawn: a scanner types faster than a page is drawn.
  const change = (label: string, to: (bay: Bay, value: string) => Partial<Bay>) => (e: Changed) => {
    const { value } = e.currentTarget
    setSeen(s => ({ ...s, bays: s.bays.map(b => (b.label === label ? { ...b, ...to(b, value) } : b)) }))
  }
  const changeArray = (name: string) => (e: Changed) => {
    const state = e.currentTarget.value as ArrayState
    setSeen(s => ({ ...s, arrays: s.arrays.map(a => (a.name === name ? { ...a, state } : a)) }))
  }
  const keep = async () => {
    const snapshot: Snapshot = { ...seen, source: 'person', takenAt: new Date().toISOString() }
    if (await writer.write({ kind: 'snapshot-taken', snapshot })) navigate(-1)
  }
  return (
    <main className="page wide">
      <TicketHead ticket={ticket} here="as you see it" />
      <p>Change what is not as shown. Bays you leave alone stay as last recorded.</p>
      <section className="panel" aria-label="Arrays">
        {seen.arrays.map(array => (
          <NativeSelect
            key={array.name}
            label={`Array ${array.name} (${array.level}) is`}
            data={states}
            value={array.state}
            onChange={changeArray(array.name)}
          />
        ))}
      </section>
      {seen.bays.map(bay => (
        <fieldset key={bay.label} className="panel hand-bay">
          <legend>
            Bay <b className="mono">{bay.label}</b> {bay.name && <span className="chalk mono">{bay.name}</span>}
          </legend>
          <TextInput
            aria-label={`Serial in bay ${bay.label}`}
            placeholder="serial"
            classNames={{ input: 'mono' }}
            value={bay.serial ?? ''}
            onChange={change(bay.label, serialTyped)}
          />
          <NativeSelect
            aria-label={`Role of bay ${bay.label}`}
            data={roles}
            value={bay.role}
            onChange={change(bay.label, (_, role) => roleChosen(role as BayRole))}
          />
          <NativeSelect
            aria-label={`Health of the drive in bay ${bay.label}`}
            data={healths}
            value={bay.health ?? 'unknown'}
            onChange={change(bay.label, (_, health) => ({ health: health as DriveHealth }))}
          />
          <NativeSelect
            aria-label={`Array of bay ${bay.label}`}
            data={[{ value: '', label: 'no array' }, ...seen.arrays.map(a => ({ value: a.name, label: a.name }))]}
            value={bay.array ?? ''}
            onChange={change(bay.label, (_, array) => ({ array: array || null }))}
          />
        </fieldset>
      ))}
      <div className="run-foot">
        <Button fullWidth onClick={keep} loading={writer.busy}>
          That is what I see
        </Button>
        <Refused problem={writer.problem} />
      </div>
    </main>
  )
}

/** Another drive is in the bay: what was known of the one before says nothing of it. */
const serialTyped = (bay: Bay, serial: string): Partial<Bay> => ({
  serial: serial || null,
  model: null,
  bytes: null,
  signs: null,
  role: bay.role === 'empty' && serial ? 'unclaimed' : bay.role,
})

const roleChosen = (role: BayRole): Partial<Bay> =>
  role === 'empty' ? { role, serial: null, model: null, bytes: null, signs: null, array: null, health: 'unknown' } : { role }
