import { Button, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import type { BringView, Capacity, TicketView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { size } from '../shared/words'
import { TicketHead, useTicket, useTicketNumber, useWrite, type Writer } from '../tickets'
import './parts.css'

/** Why whoever looks may set no part aside now; null where they may. Core says so. */
const whyNot = (ticket: TicketView) => ticket.moves.find(m => m.move === 'reserve-part')?.whyNot ?? null

type Part = BringView['parts'][number]

/** What to have along: parts that fit, with reasons, tools, and what the array then holds. */
export function BringPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const bring = useBring(number, null)
  if (!ticket.data || !bring.data) return <WaitingPage for="what to bring" problem={ticket.error ?? bring.error} />
  const { needed, parts, capacity, upgrades, tools, eachBay, spares, setAside } = bring.data
  return (
    <main className="page">
      <TicketHead ticket={ticket.data} here="what to bring" />
      <section className="panel now" aria-label="What is needed">
        <p style={{ fontSize: 20, margin: 0 }}>{needed}</p>
        {spares && <p style={{ margin: '8px 0 0' }}>Spares there: {spares}</p>}
        {(ticket.data.replacements ?? []).map(part => (
          <SetAside key={part.serial} part={part} now={setAside?.find(p => p.part.serial === part.serial)} />
        ))}
      </section>
      <InStock ticket={ticket.data} parts={parts} />
      {capacity && <Capacities number={number} capacity={capacity} upgrades={upgrades} eachBay={eachBay ?? []} />}
      <section className="panel" aria-labelledby="tools">
        <h2 id="tools">Tools and keys</h2>
        <ul style={{ margin: 0, paddingLeft: 20 }}>
          {tools.map(tool => (
            <li key={tool}>{tool}</li>
          ))}
        </ul>
      </section>
    </main>
  )
}

/** Where a replacement is, and what speaks against it today, whatever was said when it was set aside. */
function SetAside({ part, now }: { part: NonNullable<TicketView['replacements']>[number]; now: Part | undefined }) {
  return (
    <div style={{ margin: '8px 0 0' }}>
      Replacement <span className="mono">{part.serial}</span> {part.model}: {part.is}
      {part.overruledBecause ? `, although warned: ${part.overruledBecause}` : ''}
      {now && now.fit !== 'fits' && (
        <div>
          <Verdict fit={now.fit} /> {[...now.blocks, ...now.warns].join(' ')}
        </div>
      )}
    </div>
  )
}

function InStock({ ticket, parts }: { ticket: TicketView; parts: readonly Part[] }) {
  const writer = useWrite(ticket.number)
  const closed = whyNot(ticket)
  const fitting = parts.filter(p => p.fit !== 'does-not-fit')
  return (
    <section className="panel" aria-labelledby="parts">
      <h2 id="parts">In stock</h2>
      {parts.length === 0 && <p style={{ margin: 0 }}>Nothing is in stock. A depot's list is brought in under Lists.</p>}
      {fitting.map(part => (
        <PartLine key={part.part.serial} part={part} writer={writer} free={closed === null} />
      ))}
      {parts.length > fitting.length && (
        <details style={{ marginTop: 8 }}>
          <summary>{parts.length - fitting.length} that do not fit, and why</summary>
          {parts
            .filter(p => p.fit === 'does-not-fit')
            .map(part => (
              <PartLine key={part.part.serial} part={part} writer={writer} free={false} />
            ))}
        </details>
      )}
      {closed && <p className="chalk">None is set aside now: {closed}</p>}
      <Refused problem={writer.problem} />
      <p style={{ margin: '8px 0 0' }}>
        A part from elsewhere is reserved under <Link to={`/tickets/${ticket.number}/return`}>Parts and returns</Link>.
      </p>
    </section>
  )
}

type CapacitiesProps = {
  number: number
  capacity: NonNullable<BringView['capacity']>
  upgrades: BringView['upgrades']
  eachBay: NonNullable<BringView['eachBay']>
}

function Capacities({ number, capacity, upgrades, eachBay }: CapacitiesProps) {
  const helping = eachBay.filter(bay => bay.size !== null)
  return (
    <section className="panel" aria-labelledby="capacity">
      <h2 id="capacity">Capacity</h2>
      <dl className="facts">
        <dt>Now</dt>
        <dd>{capacityTold(capacity.now)}</dd>
        <dt>After</dt>
        <dd>{capacityTold(capacity.after)}</dd>
      </dl>
      <p style={{ margin: '8px 0 0' }}>{capacity.note}</p>
      <PlanTrial number={number} />
      {eachBay.length > 0 && (
        <p style={{ margin: '8px 0 0' }}>
          {helping.length === 0
            ? 'In no bay does a larger drive give anything by itself.'
            : helping.map(bay => `Bay ${bay.bay} alone: ${size(bay.size ?? 0)} gives all it can, ${size(bay.gain)} more.`).join(' ')}
        </p>
      )}
      {upgrades.map(upgrade => (
        <p key={upgrade.changes.length} style={{ margin: '4px 0 0' }}>
          {upgrade.changes.length} larger ones, bays {upgrade.changes.map(c => c.bay).join(', ')}: {size(upgrade.gain)} more usable.
        </p>
      ))}
    </section>
  )
}

const useBring = (number: number, plan: string | null) =>
  useQuery({
    queryKey: ['tickets', number, 'bring', plan],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/tickets/{number}/bring', { params: { path: { number }, query: plan ? { plan } : {} }, signal })),
  })

/** Exchanges to reckon through before anybody orders anything. */
function PlanTrial({ number }: { number: number }) {
  const [typed, setTyped] = useState('')
  const [plan, setPlan] = useState<string | null>(null)
  const reckoned = useBring(number, plan)
  const result = plan ? reckoned.data?.plan : null
  return (
    <form
      style={{ marginTop: 8 }}
      onSubmit={event => {
        event.preventDefault()
        setPlan(typed.trim() || null)
      }}
    >
      <div className="row" style={{ alignItems: 'flex-end' }}>
        <TextInput label="What if, bay by bay" placeholder="3=12TB,5=16TB" value={typed} onChange={e => setTyped(e.currentTarget.value)} />
        <Button type="submit" variant="default">
          Reckon
        </Button>
      </div>
      <Refused problem={plan ? reckoned.error : null} />
      {result && (
        <p style={{ margin: '8px 0 0' }}>
          {capacityTold(result.after)}; {size(Math.abs(result.gain))} {result.gain < 0 ? 'less' : 'more'} usable.
        </p>
      )}
    </form>
  )
}

const fits = { fits: '○ fits', 'fits-with-warnings': '▬ look twice', 'does-not-fit': '✕ does not fit' } as const

const Verdict = ({ fit }: { fit: Part['fit'] }) => (
  <strong className={fit === 'does-not-fit' ? 'brick' : fit === 'fits-with-warnings' ? 'ochre' : undefined}>{fits[fit]}</strong>
)

function PartLine({ part, writer, free }: { part: Part; writer: Writer; free: boolean }) {
  const [because, setBecause] = useState('')
  const warned = part.fit === 'fits-with-warnings'
  const reserve = () =>
    writer.write({
      kind: 'part-reserved',
      serial: part.part.serial,
      model: part.part.model,
      bytes: part.part.bytes,
      depot: part.part.depot,
      overruledBecause: because || null,
    })
  return (
    <article className="part-line" aria-label={part.part.serial}>
      <Verdict fit={part.fit} /> <span className="mono">{part.part.serial}</span> {part.part.model}, {size(part.part.bytes)},{' '}
      {part.part.depot}
      {[...part.blocks, ...part.warns].map(reason => (
        <p key={reason} style={{ margin: '2px 0 0' }}>
          {reason}
        </p>
      ))}
      {part.notes.length > 0 && (
        <p className="chalk" style={{ margin: '2px 0 0' }}>
          {part.notes.join(' ')}
        </p>
      )}
      {free && part.fit !== 'does-not-fit' && (
        <div className="row" style={{ marginTop: 4 }}>
          {warned && (
            <TextInput
              aria-label={`Why ${part.part.serial} is taken all the same`}
              placeholder="Why it is taken all the same"
              style={{ flex: '1 1 220px' }}
              value={because}
              onChange={e => setBecause(e.currentTarget.value)}
            />
          )}
          <Button variant="default" disabled={warned && !because.trim()} loading={writer.busy} onClick={reserve}>
            Reserve it
          </Button>
        </div>
      )}
    </article>
  )
}

const capacityTold = (c: Capacity) => `usable ${size(c.usable)}, protected ${size(c.protected)}, unused ${size(c.unused)}`
