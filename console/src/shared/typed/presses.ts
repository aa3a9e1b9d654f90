import { v7 as uuid7 } from 'uuid'
import { ApiProblem } from '../api'

/**
 * One press is one entry. A press makes its id once and keeps it until it is answered: over retries, a lost answer, a reload
 * of the page. Pressing the same again before there was an answer is the same press; after it, another.
 */
export type Press = { id: string; at: string }

type Kept = Press & { key: string; until: number }

const place = 'nailcrow.presses'
const most = 50
const hour = 3_600_000

/** What is written down is the same thing all day; what is looked at or switched at a machine is another thing a minute later. */
export const forWriting = 24 * hour
export const forErrands = hour / 60

/** The press that is still to be answered for the same thing, or a new one. */
export function pressed(key: string, lasts: number): Press {
  const now = Date.now()
  const kept = all().filter(p => p.until > now)
  const same = kept.find(p => p.key === key)
  if (same) return { id: same.id, at: same.at }
  const press = { id: uuid7(), at: new Date(now).toISOString() }
  keep([...kept, { ...press, key, until: now + lasts }].slice(-most))
  return press
}

/** It was answered, by a receipt or by a refusal: nothing of it is on its way any more. */
export function answered(id: string): void {
  keep(all().filter(p => p.id !== id))
}

/** Whether an error says what became of a press. A service that could not keep it says so with 5xx, and may have kept it after all. */
export const isAnswer = (error: unknown): boolean => error instanceof ApiProblem && error.status < 500

/** A text for what was pressed, the same for the same thing whatever the order of its fields. */
export const keyOf = (...parts: readonly unknown[]): string => JSON.stringify(parts, (_, value) => sorted(value))

const sorted = (value: unknown): unknown =>
  value && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value

function all(): Kept[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? '[]')
    return Array.isArray(kept) ? kept : []
  } catch {
    return [] // no storage, or what is there is not ours: then a press lives as long as its page
  }
}

function keep(presses: Kept[]): void {
  try {
    localStorage.setItem(place, JSON.stringify(presses))
  } catch {
    // As above.
  }
}
