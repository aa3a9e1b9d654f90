import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { uuid7 } from '../shared/uuid'
import { Waiting } from '../shared/Waiting'

export function ReportFaultPage() {
  const navigate = useNavigate()
  const appliances = useQuery({
    queryKey: ['appliances'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances', { signal })),
  })
  const [id] = useState(() => uuid7())
  const [fault, setFault] = useState({ asset: '', symptom: '', bay: '', serial: '', job: 'fault' as 'fault' | 'early' })
  // From what it is when the change is made, not from what was drawn: a scanner types faster than a page is drawn.
  const change = (to: Partial<typeof fault>) => setFault(f => ({ ...f, ...to }))
  const report = useMutation({
    mutationFn: async () =>
      unwrap(
        await api.POST('/api/tickets', { body: { ...fault, bay: fault.bay.trim() || null, serial: fault.serial.trim() || null, id } }),
      ),
    onSuccess: receipt => navigate(`/tickets/${receipt.ticket}`),
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
          report.mutate()
        }}
      >
        <NativeSelect
          label="Machine"
          required
          withAsterisk={false}
          value={fault.asset}
          onChange={e => change({ asset: e.currentTarget.value })}
          data={[
            { value: '', label: 'Choose one' },
            ...appliances.data.appliances.map(a => ({
              value: a.appliance.asset,
              label: `${a.appliance.asset}, ${a.model.maker} ${a.model.name}, ${a.site.name}`,
            })),
          ]}
        />
        <TextInput
          label="What was seen"
          placeholder="Amber lamp on bay 7"
          required
          withAsterisk={false}
          value={fault.symptom}
          onChange={e => change({ symptom: e.currentTarget.value })}
        />
        <div className="row" style={{ alignItems: 'flex-start' }}>
          <TextInput label="Bay, if known" w={140} value={fault.bay} onChange={e => change({ bay: e.currentTarget.value })} />
          <TextInput
            label="Serial, if known"
            classNames={{ input: 'mono' }}
            style={{ flex: '1 1 200px' }}
            value={fault.serial}
            onChange={e => change({ serial: e.currentTarget.value })}
          />
        </div>
        <NativeSelect
          label="Kind of job"
          value={fault.job}
          onChange={e => change({ job: e.currentTarget.value === 'early' ? 'early' : 'fault' })}
          data={[
            { value: 'fault', label: 'Fault: the drive failed' },
            { value: 'early', label: 'Early: it works but will fail' },
          ]}
        />
        <Button type="submit" loading={report.isPending}>
          Report it
        </Button>
        <Refused problem={report.error} />
      </form>
    </main>
  )
}
