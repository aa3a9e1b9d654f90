import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../shared/api'
import { answered, forWriting, isAnswer, keyOf, pressed } from '../shared/presses'
import { Refused } from '../shared/Refused'
import type { ApplianceView } from '../shared/types'
import { useDraft } from '../shared/useDraft'
import { Waiting } from '../shared/Waiting'

const kinds = [
  { value: 'fault' as const, label: 'Fault: the drive failed' },
  { value: 'early' as const, label: 'Early: it works but will fail' },
  { value: 'growth' as const, label: 'Growth: bigger drives go in, one by one' },
]

const nothing = { asset: '', symptom: '', bay: '', serial: '', job: 'fault' }

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
  if (!appliances.data) return <Waiting for="the machines" problem={appliances.error} />
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
        <KnownMachines id="machines" machines={appliances.data.appliances} />
        <TextInput
          label="What was seen"
          placeholder="Amber lamp on bay 7"
          required
          withAsterisk={false}
          value={fault.symptom}
          onChange={set('symptom')}
        />
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
        <Button type="submit" loading={report.isPending}>
          Report it
        </Button>
        <Refused problem={report.error} />
      </form>
    </main>
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
