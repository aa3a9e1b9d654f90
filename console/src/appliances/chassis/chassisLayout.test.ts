import { expect, it } from 'vitest'
import type { Snapshot } from '../../shared/types'
import { drawn } from './chassisLayout'

const snapshot = (labels: string[]): Snapshot => ({
  takenAt: '',
  source: 'person',
  arrays: [],
  bays: labels.map(label => ({ label, role: 'member' })),
})
const drawing = [
  {
    enclosure: null,
    model: 'B6',
    loading: 'front' as const,
    drawers: [
      [
        ['1', '3', '5'],
        ['2', '4', ''],
      ],
    ],
  },
  { enclosure: 'E1', model: 'X2', loading: 'drawer' as const, drawers: [[['E1/1']], [['E1/2']]] },
]

const told = (labels: string[]) =>
  drawn(drawing, snapshot(labels)).map(e => e.drawers.map(d => d.map(r => r.map(b => b?.label ?? '·').join(' ')).join(' / ')).join(' | '))

it('draws bays where they are, enclosure by enclosure and drawer by drawer, with a gap where there is none', () => {
  expect(told(['1', '2', '3', '4', '5', 'E1/1', 'E1/2'])).toEqual(['1 3 5 / 2 4 ·', 'E1/1 | E1/2'])
})

it('draws the bays as they were given where the drawing does not have one of them', () => {
  expect(told(['1', '2', 'A'])).toEqual(['1 2 A'])
})
