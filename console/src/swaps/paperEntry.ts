import type { RunStep, RunView } from '../shared/types'
import type { Body } from '../tickets'

/** One step as it was filled in on paper. */
export type Filled = { answer: string; text: string; at: string }

/** The entry that a filled-in step makes, with when it happened; null where nothing was filled in. */
export function paperEntry(
  run: RunView,
  step: RunStep,
  filled: Filled | undefined,
  day: string | null,
): { body: Body; at: string | undefined } | null {
  const answer = filled?.text.trim() || filled?.answer
  if (!filled || !answer) return null
  const at = filled.at ? onTheDay(filled.at, day) : undefined
  const passed = step.kind === 'gate' || step.kind === 'hold' || step.kind === 'call'
  if (step.decides) return { at, body: { kind: 'step-decided', sheet: run.sheet.id, step: step.id, answer } }
  return {
    at,
    body:
      passed && answer === 'done'
        ? { kind: 'step-passed', sheet: run.sheet.id, step: step.id }
        : { kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer },
  }
}

/** A time of day, on the day the engineer arrived; today where nobody knows. */
function onTheDay(time: string, arrived: string | null): string {
  const [hours = 0, minutes = 0] = time.split(':').map(Number)
  const day = arrived ? new Date(arrived) : new Date()
  day.setHours(hours, minutes, 0, 0)
  return day.toISOString()
}
