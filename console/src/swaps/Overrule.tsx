import { Textarea } from '@mantine/core'
import { Press } from '../shared/typed/Press'
import { useDraft } from '../shared/typed/useDraft'
import type { RunStep, RunView } from '../shared/types'
import type { Writer } from '../tickets'

type Props = { label: string; run: RunView; step: RunStep; writer: Writer }

/** A lead lets the run go on although its condition does not hold. In writing, and for good. */
export function Overrule({ label, run, step, writer }: Props) {
  const { fields, typed, drop } = useDraft(`overrule-${run.sheet.id}-${step.id}`, { reason: '' })
  const { reason } = fields
  const overrule = async () => {
    if (await writer.write({ kind: 'step-overruled', sheet: run.sheet.id, step: step.id, reason })) drop()
  }
  return (
    <details>
      <summary>Overrule, as a lead</summary>
      <Textarea label="Why; it shows in the record for good" value={reason} onChange={typed('reason')} />
      <Press style={{ marginTop: 8 }} variant="default" busy={writer.busy} onClick={overrule}>
        {label}
      </Press>
    </details>
  )
}
