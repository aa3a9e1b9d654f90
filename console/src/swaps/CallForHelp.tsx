import { Textarea } from '@mantine/core'
import { useState } from 'react'
import { Press } from '../shared/typed/Press'
import { useDraft } from '../shared/typed/useDraft'
import type { Writer } from '../tickets'

/** Stop and call: never further away than one press. */
export function CallForHelp({ ticket, writer }: { ticket: number; writer: Writer }) {
  const { fields, typed, drop } = useDraft(`call-${ticket}`, { reason: '' })
  const { reason } = fields
  const [open, setOpen] = useState(reason !== '')
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
        if (!(await writer.write({ kind: 'help-called', reason }))) return
        drop()
        setOpen(false)
      }}
    >
      <Textarea label="What do you see?" required withAsterisk={false} autoFocus value={reason} onChange={typed('reason')} />
      <Press type="submit" busy={writer.busy}>
        Call a lead
      </Press>
    </form>
  )
}
