import { expect, it } from 'vitest'
import type { RunStep, RunView } from '../shared/types'
import { paperEntry } from './paperEntry'

const run = { sheet: { id: 'sheet' } } as RunView
const step = (known: Partial<RunStep>) => ({ id: 'a', kind: 'look', ...known }) as RunStep

it('nothing filled in makes no entry, and entering stops there', () => {
  expect(paperEntry(run, step({}), undefined, null)).toBeNull()
  expect(paperEntry(run, step({}), { answer: '', text: ' ', at: '' }, null)).toBeNull()
})

it('a ticked gate is passed, and a ticked look is answered', () => {
  expect(paperEntry(run, step({ kind: 'gate' }), { answer: 'done', text: '', at: '' }, null)?.body.kind).toBe('step-passed')
  expect(paperEntry(run, step({}), { answer: 'no', text: '', at: '' }, null)?.body).toEqual({
    kind: 'step-answered',
    sheet: 'sheet',
    step: 'a',
    answer: 'no',
  })
})

it('what is written beside a time happened then, on the day of the visit', () => {
  const entry = paperEntry(run, step({ kind: 'scan' }), { answer: '', text: 'P8BADD0517', at: '14:05' }, '2026-03-02T10:00:00Z')

  const at = new Date(entry?.at ?? '')
  expect([at.getHours(), at.getMinutes(), at.toISOString().slice(0, 10)]).toEqual([14, 5, '2026-03-02'])
})
