import { expect, it } from 'vitest'
import { chanceTold, lasted } from './dangerTold'

it('tells a chance as a range, and never with more digits than it is worth', () => {
  expect(chanceTold({ low: 0.0123456, high: 0.35 })).toBe('1.2 to 35 %')
  expect(chanceTold({ low: 0.0000002, high: 0.0004 })).toBe('under 0.01 to 0.04 %')
  expect(chanceTold({ low: 0.0000002, high: 0.00002 })).toBe('under 0.01 %')
  expect(chanceTold({ low: 0, high: 0 })).toBe('0 %')
})

it('tells how long in the two units that matter', () => {
  expect(lasted('2026-03-01T00:00:00Z', '2026-03-03T05:10:00Z')).toBe('2 d 5 h')
  expect(lasted('2026-03-01T00:00:00Z', null, Date.parse('2026-03-01T01:05:00Z'))).toBe('1 h 5 min')
})
