import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useFields } from '../shared/useFields'
import type { Writer } from '../tickets'

type Props = { serial: string; writer: Writer }

/** Why and where a drive goes, under which number, by when, and who agreed that data may leave. */
export function OpenForm({ serial, carriesData, writer }: Props & { carriesData: boolean }) {
  const [form, set] = useFields({
    reason: carriesData ? 'exchange-under-warranty' : 'back-to-stores',
    to: '',
    authorisation: '',
    dueBy: '',
    agreed: '',
  })
  const warranty = form.reason === 'exchange-under-warranty'
  return (
    <form
      className="panel now stack"
      onSubmit={event => {
        event.preventDefault()
        void writer.write({
          kind: 'return-opened',
          serial,
          reason: warranty ? 'exchange-under-warranty' : 'back-to-stores',
          to: { kind: warranty ? 'maker' : 'depot', name: form.to },
          authorisation: form.authorisation || null,
          dueBy: form.dueBy || null,
          dataAgreedBy: form.agreed || null,
        })
      }}
    >
      <h2>
        Open a return for <span className="mono">{serial}</span>
      </h2>
      <NativeSelect
        label="Why"
        value={form.reason}
        onChange={set('reason')}
        data={[
          { value: 'exchange-under-warranty', label: 'Exchange under warranty' },
          { value: 'back-to-stores', label: 'Back to stores' },
        ]}
      />
      <TextInput label={warranty ? 'Maker' : 'Depot'} required withAsterisk={false} value={form.to} onChange={set('to')} />
      {warranty && <TextInput label="Authorisation number" value={form.authorisation} onChange={set('authorisation')} />}
      <TextInput type="date" label="Has to be there by" value={form.dueBy} onChange={set('dueBy')} />
      {carriesData && <TextInput label="Who agreed that the data on it may leave" value={form.agreed} onChange={set('agreed')} />}
      <Button type="submit" loading={writer.busy}>
        Open the return
      </Button>
    </form>
  )
}

export function SendForm({ serial, writer }: Props) {
  const [carrier, setCarrier] = useState('')
  const [tracking, setTracking] = useState('')
  return (
    <form
      className="panel now stack"
      onSubmit={event => {
        event.preventDefault()
        void writer.write({ kind: 'return-sent', serial, carrier, tracking: tracking || null })
      }}
    >
      <h2>
        Send <span className="mono">{serial}</span>
      </h2>
      <TextInput label="Carrier" required withAsterisk={false} value={carrier} onChange={e => setCarrier(e.currentTarget.value)} />
      <TextInput label="Their number for it" value={tracking} onChange={e => setTracking(e.currentTarget.value)} />
      <Button type="submit" loading={writer.busy}>
        It is with the carrier
      </Button>
    </form>
  )
}

export function ArriveForm({ serial, writer }: Props) {
  const [inside, setInside] = useState('')
  return (
    <form
      className="panel now stack"
      onSubmit={event => {
        event.preventDefault()
        void writer.write({ kind: 'return-arrived', serial, serialInBox: inside })
      }}
    >
      <h2>
        Book in <span className="mono">{serial}</span>
      </h2>
      <TextInput
        label="Serial on the drive in the box"
        classNames={{ input: 'mono' }}
        required
        withAsterisk={false}
        value={inside}
        onChange={e => setInside(e.currentTarget.value)}
      />
      <Button type="submit" loading={writer.busy}>
        That is in the box
      </Button>
    </form>
  )
}
