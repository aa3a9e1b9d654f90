import { Button, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useEffect, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { useMay } from '../people'
import { Refused } from '../shared/Refused'
import type { ApplianceView, DriveLine } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { size } from '../shared/words'
import { useFoundDrives, useMachines, useWaitingMachines } from './applianceQueries'

/** Every machine, page by page, and a drive by the end of its serial. */
export function MachinesPage() {
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams() // what is asked for stands in the address, so the way back shows it again
  const after = params.get('after')
  const [typed, setTyped] = useState(params.get('find') ?? '')
  const [find] = useDebouncedValue(typed.trim(), 250)
  useEffect(() => {
    if (find !== (params.get('find') ?? '')) setParams(find ? { find } : {}, { replace: true })
  }, [find, params, setParams])
  const page = (next: string | null) => setParams({ ...(find ? { find } : {}), ...(next ? { after: next } : {}) })
  const machines = useMachines(find, after)
  const drives = useFoundDrives(find)
  if (!machines.data) return <WaitingPage for="the machines" problem={machines.error} />
  return (
    <main className="page wide">
      <h1>Machines</h1>
      <form
        onSubmit={event => {
          event.preventDefault()
          if (typed.trim()) navigate(`/machines/${encodeURIComponent(typed.trim().toUpperCase())}`)
        }}
      >
        <TextInput
          label="A machine by any part of its asset, serial, model, site or place; a drive by the end of its serial"
          classNames={{ input: 'mono' }}
          value={typed}
          onChange={e => setTyped(e.currentTarget.value)}
        />
      </form>
      <WaitingCertificates />
      <Refused problem={drives.error} />
      {drives.data && <DrivesFound drives={drives.data.drives} />}
      {machines.data.appliances.length > 0 ? (
        <MachineTable machines={machines.data.appliances} />
      ) : (
        <p>{find ? `No machine has '${find}' in it.` : 'No machine is listed yet; lists are brought in below.'}</p>
      )}
      <Onward after={after} next={machines.data.next} page={page} />
    </main>
  )
}

type OnwardProps = { after: string | null; next: string | null; page: (next: string | null) => void }

function Onward({ after, next, page }: OnwardProps) {
  const mayAdd = useMay('add-machines')
  return (
    <div className="row" style={{ marginTop: 12 }}>
      {after && (
        <Button variant="default" onClick={() => page(null)}>
          From the beginning
        </Button>
      )}
      {next && (
        <Button variant="default" onClick={() => page(next)}>
          More
        </Button>
      )}
      {mayAdd && (
        <Button component={Link} to="/machines/new" variant="default">
          Add a machine
        </Button>
      )}
      <Button component={Link} to="/customers" variant="default">
        Customers
      </Button>
      <Button component={Link} to="/lists" variant="default">
        Lists in and out
      </Button>
    </div>
  )
}

/** Nothing is sent to these before somebody who may compared what they show. */
function WaitingCertificates() {
  const may = useMay('reach-machines')
  const waiting = useWaitingMachines(may)
  if (!waiting.data?.assets.length) return null
  return (
    <p className="panel danger" role="status">
      ◆ A certificate waits for a yes at{' '}
      {waiting.data.assets.map((asset, nth) => (
        <span key={asset}>
          {nth > 0 && ', '}
          <Link to={`/machines/${encodeURIComponent(asset)}`}>{asset}</Link>
        </span>
      ))}
      {waiting.data.next && ' and more'}. Nothing is sent there before.
    </p>
  )
}

function DrivesFound({ drives }: { drives: readonly DriveLine[] }) {
  return (
    <section className="panel" aria-label="Drives found">
      {drives.length === 0 && <p style={{ margin: 0 }}>No drive that is listed ends so.</p>}
      {drives.map(drive => (
        <p key={drive.serial} style={{ margin: '2px 0' }}>
          <Link to={`/drives/${drive.serial}`} className="mono">
            {drive.serial}
          </Link>{' '}
          {drive.model}, {size(drive.bytes)},{' '}
          {drive.with
            ? `with ${drive.with}`
            : drive.depot
              ? `depot ${drive.depot}`
              : `${drive.asset}${drive.bay ? `, bay ${drive.bay}` : ''}`}
        </p>
      ))}
    </section>
  )
}

function MachineTable({ machines }: { machines: readonly ApplianceView[] }) {
  return (
    <div className="scroll">
      <table className="list">
        <thead>
          <tr>
            <th>Asset</th>
            <th>Model</th>
            <th>Site</th>
            <th>Where</th>
            <th>Arrays</th>
            <th>Reached</th>
          </tr>
        </thead>
        <tbody>
          {machines.map(({ appliance, model, site }) => (
            <tr key={appliance.asset}>
              <td>
                <Link to={`/machines/${appliance.asset}`} className="mono">
                  {appliance.asset}
                </Link>
              </td>
              <td>
                {model.maker} {model.name}
              </td>
              <td>{site.name}</td>
              <td>{appliance.location}</td>
              <td>{(appliance.arrays ?? []).map(a => `${a.name} ${a.level}`).join(', ')}</td>
              <td>{appliance.address ? 'by wire' : 'by hand'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
