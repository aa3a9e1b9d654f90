import { expect, it } from 'vitest'
import { lasted } from './dangerTold'

it('tells how long in the two units that matter', () => {
  expect(lasted('2026-03-01T00:00:00Z', '2026-03-03T05:10:00Z')).toBe('2 d 5 h')
  expect(lasted('2026-03-01T00:00:00Z', null, Date.parse('2026-03-01T01:05:00Z'))).toBe('1 h 5 min')
})
