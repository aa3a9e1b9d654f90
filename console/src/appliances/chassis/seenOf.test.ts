import { expect, it } from 'vitest'
import { arrayField, bayField, seenOf } from './seenOf'

it('says only what was typed, bay by bay, also where a label has a slash in it', () => {
  expect(
    seenOf({
      [bayField('E1/7', 'serial')]: 'C8X1',
      [bayField('E1/7', 'role')]: 'member',
      [bayField('2', 'health')]: 'faulted',
      [bayField('3', 'array')]: '',
      [arrayField('vault')]: 'degraded',
    }),
  ).toEqual({
    bays: [
      { label: 'E1/7', serial: 'C8X1', role: 'member', health: null, array: null },
      { label: '2', serial: null, role: null, health: 'faulted', array: null },
      { label: '3', serial: null, role: null, health: null, array: '' },
    ],
    arrays: [{ name: 'vault', state: 'degraded' }],
  })
})
