import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import { machineQuery } from '../appliances'
import { useMay } from '../people'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { answered, forWriting, isAnswer, keyOf, pressed } from '../shared/typed/presses'
import { useDraft } from '../shared/typed/useDraft'
import type { ApplianceView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { ticketName } from '../shared/words'

const kinds = [
  { value: 'fault' as const, label: 'Fault: the drive failed' },
  { value: 'early' as const, label: 'Early: it works but will fail' },
  { value: 'growth' as const, label: 'Growth: bigger drives go in, one by one' },
  { value: 'addition' as const, label: 'Addition: one more goes into an empty bay' },
]

const nothing = { asset: '', symptom: '', bay: '', serial: '', job: 'fault', array: '' }

export function ReportFaultPage() {
  const navigate = useNavigate()
  const appliances = useQuery({
    queryKey: ['appliances'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances', { signal })),
  })
  const { fields: fault, typed: set, drop } = useDraft('report', nothing)
  const report = useReport(ticket => {
    drop()
    navigate(`/tickets/${ticket}`)
  })
  const asset = fault.asset.trim().toUpperCase()
  if (!appliances.data) return <WaitingPage for="the machines" problem={appliances.error} />
  return (
    <main className="page">
      <h1>Report a fault</h1>
      <p className="chalk">Several alerts of one drive are one ticket: what you report joins the open one.</p>
      <form
        className="panel stack"
        onSubmit={event => {
          event.preventDefault()
          report.mutate({ fault, ...pressed(keyOf('report', fault), forWriting) })
        }}
      >
        <TextInput
          label="Machine"
          placeholder="Its asset number"
          list="machines"
          classNames={{ input: 'mono' }}
          required
          withAsterisk={false}
          value={fault.asset}
          onChange={set('asset')}
        />
        {asset.length >= 4 && <OpenThere asset={asset} />}
        <KnownMachines id="machines" machines={appliances.data.appliances} />
        <TextInput
          label="What was seen"
          placeholder="Amber lamp on bay 7"
          required
          withAsterisk={false}
          value={fault.symptom}
          onChange={set('symptom')}
        />
        <WhichDrive fault={fault} set={set} />
        <Button type="submit" loading={report.isPending}>
          Report it
        </Button>
        <Refused problem={report.error} />
        {report.error && asset && <AddIt asset={asset} />}
      </form>
    </main>
  )
}

type Draft = ReturnType<typeof useDraft<typeof nothing>>

function WhichDrive({ fault, set }: { fault: Draft['fields']; set: Draft['typed'] }) {
  return (
    <>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <TextInput label="Bay, if known" w={140} value={fault.bay} onChange={set('bay')} />
        <TextInput
          label="Serial, if known"
          classNames={{ input: 'mono' }}
          style={{ flex: '1 1 200px' }}
          value={fault.serial}
          onChange={set('serial')}
        />
      </div>
      <NativeSelect label="Kind of job" value={fault.job} onChange={set('job')} data={kinds} />
      {fault.job === 'addition' && (
        <TextInput label="Array it is for, where there are several" value={fault.array} onChange={set('array')} />
      )}
    </>
  )
}

/** What is open on the machine is seen while one reports: the same fault is not worked on twice. */
function OpenThere({ asset }: { asset: string }) {
  const open = useQuery({
    queryKey: ['tickets', 'list', 'open at', asset],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/tickets', { params: { query: { asset, ended: false, limit: 20 } }, signal })).tickets,
  })
  if (!open.data?.length) return null
  return (
    <div role="status" aria-label="Open on this machine">
      <strong>Open on this machine already:</strong>
      <ul style={{ margin: 0, paddingLeft: 20 }}>
        {open.data.map(t => (
          <li key={t.number}>
            <Link to={`/tickets/${t.number}`}>{ticketName(t.number)}</Link> {t.symptom.replace(/\.+$/, '')}
            {t.bay ? `, bay ${t.bay}` : ''}
          </li>
        ))}
      </ul>
    </div>
  )
}

/** Where nobody knows the machine, whoever may add it is led there. */
function AddIt({ asset }: { asset: string }) {
  const may = useMay('add-machines')
  const known = useQuery({ ...machineQuery(asset), retry: false })
  if (!may || !known.isError) return null
  return (
    <Button component={Link} to={`/machines/new?asset=${encodeURIComponent(asset)}`} variant="default">
      Add {asset} as a new machine
    </Button>
  )
}

/** A hand's help for the first hundred; any other number is typed, and the service knows whether there is such a machine. */
function KnownMachines({ id, machines }: { id: string; machines: readonly ApplianceView[] }) {
  return (
    <datalist id={id}>
      {machines.map(a => (
        <option key={a.appliance.asset} value={a.appliance.asset}>
          {a.model.maker} {a.model.name}, {a.site.name}
        </option>
      ))}
    </datalist>
  )
}

/** Reports a fault; pressed again while nobody answers, it is the same report. */
const useReport = (done: (ticket: number) => void) =>
  useMutation({
    mutationFn: async ({ fault, id }: { fault: typeof nothing; id: string }) =>
      unwrap(
        await api.POST('/api/tickets', {
          body: {
            ...fault,
            job: kinds.find(k => k.value === fault.job)?.value ?? 'fault',
            bay: fault.bay.trim() || null,
            serial: fault.serial.trim() || null,
            array: (fault.job === 'addition' && fault.array.trim()) || null, // what was typed for another kind of job is not sent
            id,
          },
        }),
      ),
    onSuccess: (receipt, { id }) => {
      answered(id)
      done(receipt.ticket)
    },
    onError: (problem, { id }) => {
      if (isAnswer(problem)) answered(id)
    },
  })
