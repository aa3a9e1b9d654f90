import { TextInput } from '@mantine/core'
import { useState } from 'react'
import { Press } from '../shared/typed/Press'
import type { RunStep, RunView } from '../shared/types'
import type { Writer } from '../tickets'

/** What destroys is confirmed by saying what it is done to. Nothing is filled in beforehand. */
export function NamedAnswer({ run, step, writer }: { run: RunView; step: RunStep; writer: Writer }) {
  const [bay, setBay] = useState('')
  const [serial, setSerial] = useState('')
  return (
    <form
      className="stack"
      onSubmit={event => {
        event.preventDefault()
        writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: `${bay} ${serial}` })
      }}
    >
      <p className="run-unmet">This destroys what is on the drive. Name it as the machine's screen does.</p>
      <TextInput
        label="Bay"
        classNames={{ input: 'mono run-input' }}
        autoComplete="off"
        required
        withAsterisk={false}
        value={bay}
        onChange={e => setBay(e.currentTarget.value)}
      />
      <TextInput
        label="Serial"
        classNames={{ input: 'mono run-input' }}
        autoCapitalize="characters"
        autoComplete="off"
        required
        withAsterisk={false}
        value={serial}
        onChange={e => setSerial(e.currentTarget.value)}
      />
      <Press type="submit" fullWidth busy={writer.busy}>
        Done to this one
      </Press>
    </form>
  )
}
