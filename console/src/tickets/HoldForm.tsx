import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useFields } from '../shared/useFields'
import type { Writer } from './ticketQueries'

/** On hold, with what it waits for: that decides whether the promise's clocks stand still. */
export function HoldForm({ writer, done }: { writer: Writer; done: () => void }) {
  const [hold, typed] = useFields({ reason: '', waitsFor: 'other' })
  return (
    <form
      className="row"
      style={{ marginTop: 12, alignItems: 'flex-end' }}
      onSubmit={async event => {
        event.preventDefault()
        if (await writer.write({ kind: 'put-on-hold', reason: hold.reason, waitsFor: hold.waitsFor as 'other' })) done()
      }}
    >
      <TextInput style={{ flex: '1 1 240px' }} label="Why" required withAsterisk={false} value={hold.reason} onChange={typed('reason')} />
      <NativeSelect
        label="Waits for"
        value={hold.waitsFor}
        onChange={typed('waitsFor')}
        data={[
          { value: 'other', label: 'something else (clocks run)' },
          { value: 'customer', label: 'the customer (clocks stop)' },
          { value: 'access', label: 'access (clocks stop)' },
          { value: 'part', label: 'a part (clocks run)' },
        ]}
      />
      <Button type="submit" loading={writer.busy}>
        Put on hold
      </Button>
    </form>
  )
}
