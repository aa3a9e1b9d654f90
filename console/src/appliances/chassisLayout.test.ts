import { expect, it } from 'vitest'
import type { Model, Snapshot } from '../shared/types'
import { labelAt, rowsOf } from './chassisLayout'

const model = { rows: 2, columns: 3, bayOrder: 'down-columns' } as Model
const snapshot = (labels: string[]): Snapshot => ({
  takenAt: '',
  source: 'person',
  arrays: [],
  bays: labels.map(label => ({ label, role: 'empty' })),
})

it('puts labels where they are printed, which need not be along the rows', () => {
  expect(rowsOf(model, snapshot(['1', '2', '3', '4', '5', '6']))?.map(row => row.map(b => b.label).join(' '))).toEqual(['1 3 5', '2 4 6'])
  expect(labelAt({ ...model, bayOrder: 'along-rows' }, 1, 0)).toBe('4')
})

it('does not draw a chassis that the bays do not fit', () => {
  expect(rowsOf(model, snapshot(['1', '2', 'A']))).toBeNull()
  expect(rowsOf(null, snapshot(['1']))).toBeNull()
})
