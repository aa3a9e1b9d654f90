import { MantineProvider } from '@mantine/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { expect, it } from 'vitest'
import type { Snapshot } from '../../shared/types'
import { Chassis } from './Chassis'

const snapshot: Snapshot = {
  takenAt: '2026-03-02T12:00:00Z',
  source: 'person',
  bays: [
    { label: '1', role: 'member', health: 'worn', serial: 'P8GOOD0001', array: 'vault', name: 'dk4', signs: ['38 reallocated sectors'] },
    { label: '2', role: 'dropped', health: 'faulted', serial: 'P8BADD0517', array: 'vault' },
    { label: '3', role: 'empty', health: 'unknown' },
  ],
  arrays: [{ name: 'vault', level: 'raid1', designMembers: 2, state: 'degraded' }],
}
const verdicts = [
  { bay: '1', verdict: 'fatal' as const, reason: 'vault cannot lose this member: its data would be lost.' },
  { bay: '2', verdict: 'safe' as const, reason: 'vault has already dropped this drive and runs without it.' },
  { bay: '3', verdict: 'safe' as const, reason: 'Nothing is in this bay.' },
]

const drawn = (rows: string[][] | null) =>
  render(
    <MantineProvider>
      <Chassis
        snapshot={snapshot}
        verdicts={verdicts}
        drawing={rows && [{ enclosure: null, model: 'M3', loading: 'front', drawers: [rows] }]}
        target="2"
        zone="Europe/Oslo"
      />
    </MantineProvider>,
  )

it('says every bay to a screen reader with role, health, serial and what pulling it would do', () => {
  drawn([['1'], ['2'], ['3']])

  expect(screen.getAllByRole('button').map(b => b.querySelector('.for-ears')?.textContent)).toEqual([
    'Bay 1: member, worn, serial P8GOOD0001, pulling it is fatal',
    'Bay 2, this one: dropped, faulted, serial P8BADD0517, pulling it is safe',
    'Bay 3: empty',
  ])
})

it('tells the bay in question until another is pressed', () => {
  drawn([['1', '2', '3']])
  expect(screen.getByText('Bay 2, this one', { selector: 'strong' })).toBeTruthy()

  fireEvent.click(screen.getByRole('button', { name: /^Bay 1:/ }))

  expect(screen.getByText('Bay 1', { selector: 'strong' })).toBeTruthy()
  expect(screen.getByText(/38 reallocated sectors/)).toBeTruthy()
  expect(screen.getByText(/its data would be lost/)).toBeTruthy()
})

it('draws the bays in the order given where the model does not fit them', () => {
  drawn(null)

  expect(screen.getAllByRole('button')).toHaveLength(3)
  expect(screen.getByText('1 of 2 members', { exact: false })).toBeTruthy()
})
