import { expect, it } from 'vitest'
import type { RunStep, RunView } from '../../shared/types'
import { paperEntry } from './paperEntry'

const run = { sheet: { id: 'sheet' } } as RunView
const step = (known: Partial<RunStep>) => ({ id: 'a', kind: 'look', ...known }) as RunStep

it('nothing filled in makes no entry, and entering stops there', () => {
  expect(paperEntry(run, step({}), undefined, {})).toBeNull()
  expect(paperEntry(run, step({}), { answer: '', text: ' ', at: '' }, {})).toBeNull()
})

it('a ticked gate is passed, and a ticked look is answered', () => {
  expect(paperEntry(run, step({ kind: 'gate' }), { answer: 'done', text: '', at: '' }, {})?.body.kind).toBe('step-passed')
  expect(paperEntry(run, step({}), { answer: 'no', text: '', at: '' }, {})?.body).toEqual({
    kind: 'step-answered',
    sheet: 'sheet',
    step: 'a',
    answer: 'no',
  })
})

it.each([
  ['14:05', '2026-03-02T14:05:00.000Z', 'UTC'],
  ['14.05', '2026-03-02T13:05:00.000Z', 'Europe/Berlin'],
  ['1405', '2026-03-02T19:05:00.000Z', 'America/New_York'],
  ['9:40', '2026-03-02T09:40:00.000Z', 'UTC'], // a little before the arrival: the backup was asked about on the way in
  ['0:15', '2026-03-03T00:15:00.000Z', 'UTC'], // past midnight
])('%s beside a step is %s where the site has the time of %s', (written, at, zone) => {
  const filled = { answer: '', text: 'P8BADD0517', at: written }

  expect(paperEntry(run, step({ kind: 'scan' }), filled, { arrivedAt: '2026-03-02T14:00:30Z', zone })?.at).toBe(at)
})
