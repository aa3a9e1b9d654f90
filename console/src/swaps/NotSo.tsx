import { Press } from '../shared/Press'
import type { RunStep, RunView } from '../shared/types'
import type { Writer } from '../tickets'

/** The way out that every step has that says what one should see. */
export function NotSo({ run, step, writer }: { run: RunView; step: RunStep; writer: Writer }) {
  const out = step.answers.find(a => a.answer === 'not-so')
  if (!out) return null
  return (
    <Press
      variant="subtle"
      busy={writer.busy}
      onClick={() => writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: 'not-so' })}
    >
      {out.label}
    </Press>
  )
}
