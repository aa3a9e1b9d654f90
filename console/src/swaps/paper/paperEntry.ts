import type { RunStep, RunView } from '../../shared/types'
import type { Body } from '../../tickets'

/** One step as it was filled in on paper. */
export type Filled = { answer: string; text: string; at: string }

/** When and where it was: the ticket knows. */
export type Visit = { arrivedAt?: string | null; zone?: string | null }

/** The entry that a filled-in step makes, with when it happened; null where nothing was filled in. */
export function paperEntry(
  run: RunView,
  step: RunStep,
  filled: Filled | undefined,
  visit: Visit,
): { body: Body; at: string | undefined } | null {
  const answer = filled?.text.trim() || filled?.answer
  if (!filled || !answer) return null
  const at = filled.at ? onTheDay(filled.at, visit) : undefined
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

/** A time of day as people write it: 14:05, 14.05 or 1405. */
export const timeOfDay = /([01]?[0-9]|2[0-3])[:.]?([0-5][0-9])/

const hour = 3_600_000

/**
 * A time of day at the site, whose clock is not always that of whoever enters it: on the day the engineer arrived, or past
 * midnight where it would be hours before that. What comes before the arrival on a sheet is done within hours of it.
 */
function onTheDay(time: string, { arrivedAt, zone }: Visit): string {
  const [, hours = '0', minutes = '0'] = timeOfDay.exec(time) ?? []
  const arrived = arrivedAt ? Date.parse(arrivedAt) : Date.now()
  const midnight = arrived - sinceMidnight(arrived, zone)
  const at = midnight + Number(hours) * hour + Number(minutes) * 60_000
  return new Date(at < arrived - 6 * hour ? at + 24 * hour : at).toISOString()
}

function sinceMidnight(at: number, zone: string | null | undefined): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone ?? undefined,
    hour: 'numeric',
    minute: 'numeric',
    hourCycle: 'h23',
  }).formatToParts(at)
  const part = (type: string) => Number(parts.find(p => p.type === type)?.value)
  return part('hour') * hour + part('minute') * 60_000 + (at % 60_000)
}
