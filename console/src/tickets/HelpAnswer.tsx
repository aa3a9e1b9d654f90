import { Button, Textarea } from '@mantine/core'
import { useState } from 'react'
import type { Writer } from './ticketQueries'

/** A lead allows or refuses to go on, in writing. */
export function HelpAnswer({ writer }: { writer: Writer }) {
  const [reason, setReason] = useState('')
  const answer = (goAhead: boolean) => writer.write({ kind: 'help-answered', goAhead, reason })
  return (
    <div className="stack">
      <Textarea label="Your answer; the engineer goes by it" value={reason} onChange={e => setReason(e.currentTarget.value)} />
      <div className="row">
        <Button onClick={() => answer(true)} loading={writer.busy}>
          They may go on
        </Button>
        <Button onClick={() => answer(false)} loading={writer.busy} variant="default">
          They may not
        </Button>
      </div>
    </div>
  )
}
