import createClient from 'openapi-fetch'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { paths } from '../schema'
import { measuredClock } from './measuredClock'

const service = Date.parse('2026-11-25T08:00:00.000Z')

beforeEach(() => vi.useFakeTimers({ now: service }))
afterEach(() => vi.useRealTimers())

/** A device whose clock is so far ahead, on a line that takes so long there and back. */
function device(aheadMs: number) {
  vi.setSystemTime(service + aheadMs)
  const clock = measuredClock()
  const line = { there: 0, back: 0 }
  let ahead = aheadMs
  const client = createClient<paths>({
    baseUrl: 'http://nailcrow.test',
    fetch: async () => {
      vi.advanceTimersByTime(line.there)
      const date = new Date(Date.now() - ahead).toUTCString()
      vi.advanceTimersByTime(line.back)
      return new Response('{}', { headers: { date, 'content-type': 'application/json' } })
    },
  })
  client.use(clock.heard)
  const set = (to: number) => {
    ahead = to
    vi.setSystemTime(service + to)
  }
  return { clock, line, set, ask: () => client.GET('/api/me') }
}

it('knows nothing of the clock before it has heard an answer', () => {
  expect(device(0).clock.behind()).toBeNull()
})

it.each([0, 3_600_000, -90_000])('tells a clock that is %i ms ahead to a second, on a quick line', async ahead => {
  const { clock, ask } = device(ahead)
  await ask()
  expect(Math.abs((clock.behind() ?? 0) + ahead)).toBeLessThanOrEqual(500)
})

it.each([
  [9_000, 0],
  [0, 9_000],
  [60_000, 100],
])('takes a clock that can be right for right, where the way there took %i ms and the way back %i', async (there, back) => {
  const { clock, line, ask } = device(0)
  Object.assign(line, { there, back })
  await ask()
  expect(clock.behind()).toBe(0)
})

it('goes by the quickest answer, however long the next ones take', async () => {
  const { clock, line, ask } = device(0)
  await ask()
  line.there = 9_000
  await ask()
  expect(Math.abs(clock.behind() ?? 9_000)).toBeLessThanOrEqual(500)
})

it('notices that the clock was set, also on a slow line', async () => {
  const { clock, line, set, ask } = device(0)
  await ask()
  set(-7_200_000)
  line.there = 4_000
  await ask()
  expect(Math.abs((clock.behind() ?? 0) - 7_200_000)).toBeLessThanOrEqual(2_500)
})
