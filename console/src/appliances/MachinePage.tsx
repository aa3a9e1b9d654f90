import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { clock } from '../shared/time'
import type { ApplianceView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { said, size, ticketName } from '../shared/words'
import { machineQuery, useBayMap, useComparison, useSnapshots } from './applianceQueries'
import { Chassis } from './chassis/Chassis'
import { HowReached } from './HowReached'
import { PutMachineRight } from './PutMachineRight'

/** One machine: its bays as last seen, how it is opened and swapped, every snapshot, and which bay is which. */
export function MachinePage() {
  const asset = useParams().asset ?? ''
  const machine = useQuery(machineQuery(asset))
  const snapshots = useSnapshots(asset)
  const [against, setAgainst] = useState<string | null>(null)
  const newest = snapshots.data?.snapshots[0]
  const latest = newest ? `${ticketName(newest.ticket)}/${newest.seq}` : null
  const shown = useComparison(against ?? latest, latest)
  if (!machine.data) return <WaitingPage for="the machine" problem={machine.error} />
  const { appliance, model, site, drawing } = machine.data
  return (
    <main className="page wide">
      <h1>
        <span className="mono">{appliance.asset}</span> {model.maker} {model.name}
      </h1>
      <p className="chalk" style={{ margin: 0 }}>
        <Link to={`/customers/${encodeURIComponent(site.customer)}`}>{site.customer}</Link>, {site.name}, {appliance.location}
      </p>
      <div className="ticket-columns">
        <div>
          {shown.data ? (
            <Chassis snapshot={shown.data.after} verdicts={shown.data.verdicts} drawing={drawing} target={null} zone={site.zone} />
          ) : (
            <p className="panel">No snapshot yet. The first ticket on this machine takes one.</p>
          )}
          <BayMapPanel asset={asset} />
        </div>
        <div>
          <section className="panel" aria-labelledby="snapshots">
            <h2 id="snapshots">Snapshots</h2>
            {(snapshots.data?.snapshots ?? []).map(s => {
              const name = `${ticketName(s.ticket)}/${s.seq}`
              return (
                <p key={name} style={{ margin: '2px 0' }}>
                  <label>
                    <input type="radio" name="against" checked={(against ?? latest) === name} onChange={() => setAgainst(name)} />{' '}
                    {clock(s.at, site.zone)} {s.source === 'person' ? `typed by ${s.by}` : s.source}
                  </label>{' '}
                  · <Link to={`/tickets/${s.ticket}`}>{ticketName(s.ticket)}</Link>
                </p>
              )
            })}
            {against && against !== latest && shown.data && (
              <div aria-live="polite">
                <h2 style={{ marginTop: 12 }}>What differs from then to now</h2>
                {shown.data.changes.length === 0 && 'Every bay is as it was.'}
                {shown.data.changes.map(change => (
                  <p key={change.bay} style={{ margin: '2px 0' }}>
                    {change.otherDrive ? <strong>{change.sentence}</strong> : change.sentence}
                  </p>
                ))}
              </div>
            )}
          </section>
          <ModelFacts view={machine.data} />
          <HowReached asset={appliance.asset} address={appliance.address ?? null} />
        </div>
      </div>
    </main>
  )
}

function BayMapPanel({ asset }: { asset: string }) {
  const map = useBayMap(asset)
  if (!map.data) return null
  const known = map.data.bays.filter(b => b.name)
  return (
    <section className="panel" aria-labelledby="map">
      <h2 id="map">Which bay is which</h2>
      {map.data.warning && <p className="ochre">◆ {map.data.warning}</p>}
      {known.length > 0 && (
        <details>
          <summary>
            {known.length} bays with a software name, {known.filter(b => b.confirmed).length} confirmed
          </summary>
          <dl className="facts" style={{ marginTop: 8 }}>
            {known.map(b => (
              <div key={b.bay} style={{ display: 'contents' }}>
                <dt>bay {b.bay}</dt>
                <dd>
                  <span className="mono">{b.name}</span>, row {b.row}, column {b.column},{' '}
                  {b.confirmed ? `confirmed by a ${b.confirmed} on ${ticketName(b.ticket ?? 0)}` : 'not confirmed yet'}
                </dd>
              </div>
            ))}
          </dl>
        </details>
      )}
    </section>
  )
}

function ModelFacts({ view }: { view: ApplianceView }) {
  const { appliance, model, site } = view
  return (
    <section className="panel" aria-labelledby="model">
      <h2 id="model">What to know</h2>
      <dl className="facts">
        <dt>Own serial</dt>
        <dd className="mono">{appliance.serial}</dd>
        <dt>Getting in</dt>
        <dd>
          {site.address}. {site.access} {site.hours ? `Open ${site.hours}.` : ''}
        </dd>
        {(appliance.arrays ?? []).map(a => (
          <div key={a.name} style={{ display: 'contents' }}>
            <dt>Array {a.name}</dt>
            <dd>
              {said(a.level ?? '')} of {a.members}
              {a.groups ? ` in ${a.groups} groups` : ''}
              {a.parity ? `, can lose ${a.parity}` : ''}
              {a.memberBytes ? `, ${size(a.memberBytes)} of each` : ''}
            </dd>
          </div>
        ))}
        <dt>Swap</dt>
        <dd>
          {model.swap === 'off' ? 'Power off first' : 'Under power'}; {model.waitAfterPullSeconds} s between pull and insert; the rebuild
          starts {said(model.rebuildStart ?? '')}
          {model.releaseBeforePull ? '; release the drive first' : ''}
        </dd>
        <dt>Chassis</dt>
        <dd>
          {said(model.loading ?? '')} loading{model.slidesOut ? ', slides out' : ''}
          {model.bezel && model.bezel !== 'none' ? `, bezel with ${model.bezel}` : ''}
          {model.coverLimitSeconds ? `, cover off for ${Math.round(model.coverLimitSeconds / 60)} min at most` : ''}
        </dd>
        {model.lamps.map(lamp => (
          <div key={lamp.pattern} style={{ display: 'contents' }}>
            <dt>{lamp.pattern}</dt>
            <dd>{lamp.meaning}</dd>
          </div>
        ))}
        <dt>Ways in</dt>
        <dd>{model.waysIn.join('; ')}</dd>
        {model.quirks.map(quirk => (
          <div key={quirk} style={{ display: 'contents' }}>
            <dt>Beware</dt>
            <dd>{quirk}</dd>
          </div>
        ))}
      </dl>
      <PutMachineRight view={view} />
    </section>
  )
}
