import { notifyManager } from '@tanstack/react-query'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { holdNewsWhilePressing } from './underTheFinger'

beforeEach(() => {
  vi.useFakeTimers()
  holdNewsWhilePressing()
})
afterEach(() => vi.useRealTimers())

const finger = (kind: string) => document.body.dispatchEvent(new Event(kind, { bubbles: true }))

/** News that comes now; which of it has been told since. */
function news(...what: string[]) {
  const told: string[] = []
  for (const one of what) notifyManager.schedule(() => told.push(one))
  return told
}

it('tells news at once while nobody presses anything', () => {
  const told = news('a', 'b')
  vi.advanceTimersByTime(1)

  expect(told).toEqual(['a', 'b'])
})

it('keeps news back until the press is over, and then tells it in its order', () => {
  finger('pointerdown')
  const told = news('a', 'b')
  vi.advanceTimersByTime(200)
  finger('pointerup')
  vi.advanceTimersByTime(200) // a touch becomes a click only later
  expect(told).toEqual([])

  document.body.addEventListener('click', () => told.push('pressed'), { once: true })
  finger('click')
  vi.advanceTimersByTime(1)

  expect(told).toEqual(['pressed', 'a', 'b'])
})

it.each([
  ['the page was scrolled', 'pointercancel', 1],
  ['nothing came of it', 'pointerup', 301],
  ['the finger stays where it is', '', 5_001],
])('news goes on where %s', (_, then, ms) => {
  finger('pointerdown')
  const told = news('a')
  vi.advanceTimersByTime(1)
  if (then) finger(then)
  vi.advanceTimersByTime(ms)

  expect(told).toEqual(['a'])
})
