import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Writer } from '../tickets'

/** What the machine's screen shows, typed by whoever looks at it. */
export function HandReading({ array, writer }: { array: string; writer: Writer }) {
  const [percent, setPercent] = useState('')
  const [phase, setPhase] = useState<'preparing' | 'checking' | 'rebuilding' | 'growing'>('rebuilding')
  const read = (progress: 'running' | 'done' | 'failed') =>
    writer.write({
      kind: 'reading-taken',
      array,
      progress,
      phase,
      source: 'person',
      percent: progress === 'running' && percent.trim() ? Number(percent.replace(',', '.')) : null,
    })
  return (
    <form
      className="stack"
      onSubmit={event => {
        event.preventDefault()
        void read('running')
      }}
    >
      <div className="row" style={{ alignItems: 'flex-end' }}>
        <TextInput
          label="Percent on the screen"
          inputMode="decimal"
          pattern="[0-9]+([.,][0-9]+)?"
          title="A number such as 62 or 62.5; leave it empty if the screen shows none"
          w={200}
          value={percent}
          onChange={e => setPercent(e.currentTarget.value)}
        />
        <NativeSelect
          label="Phase"
          w={160}
          data={['preparing', 'checking', 'rebuilding', 'growing']}
          value={phase}
          onChange={e => setPhase(e.currentTarget.value as typeof phase)}
        />
      </div>
      <div className="row">
        <Button type="submit" variant="default" loading={writer.busy}>
          Keep this reading
        </Button>
        <Button variant="default" loading={writer.busy} onClick={() => read('done')}>
          It is done
        </Button>
        <Button variant="default" loading={writer.busy} onClick={() => read('failed')}>
          It failed
        </Button>
      </div>
    </form>
  )
}
