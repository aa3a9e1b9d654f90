import { Textarea } from '@mantine/core'
import { useState } from 'react'
import { Press } from '../shared/Press'
import type { RunStep, RunView } from '../shared/types'
import type { Writer } from '../tickets'

/** A lead lets the run go on although its condition does not hold. In writing, and for good. */
export function Overrule({ run, step, writer }: { run: RunView; step: RunStep; writer: Writer }) {
  const [reason, setReason] = useState('')
  return (
    <details>
      <summary>Overrule, as a lead</summary>
      <Textarea label="Why; it shows in the record for good" value={reason} onChange={e => setReason(e.currentTarget.value)} />
      <Press
        style={{ marginTop: 8 }}
        variant="default"
        busy={writer.busy}
        onClick={() => writer.write({ kind: 'step-overruled', sheet: run.sheet.id, step: step.id, reason })}
      >
        Overrule {step.id}
      </Press>
    </details>
  )
}
