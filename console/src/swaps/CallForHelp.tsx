import { Textarea } from '@mantine/core'
import { useState } from 'react'
import { Press } from '../shared/Press'
import type { Writer } from '../tickets'

/** Stop and call: never further away than one press. */
export function CallForHelp({ writer }: { writer: Writer }) {
  const [open, setOpen] = useState(false)
  const [reason, setReason] = useState('')
  if (!open)
    return (
      <Press variant="default" onClick={() => setOpen(true)}>
        Stop and call
      </Press>
    )
  return (
    <form
      style={{ flex: '1 1 100%' }}
      className="stack"
      onSubmit={async event => {
        event.preventDefault()
        if (await writer.write({ kind: 'help-called', reason })) setOpen(false)
      }}
    >
      <Textarea
        label="What do you see?"
        required
        withAsterisk={false}
        autoFocus
        value={reason}
        onChange={e => setReason(e.currentTarget.value)}
      />
      <Press type="submit" busy={writer.busy}>
        Call a lead
      </Press>
    </form>
  )
}
