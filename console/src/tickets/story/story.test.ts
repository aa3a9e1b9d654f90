import { expect, it } from 'vitest'
import type { Entry, JournalRow } from '../../shared/types'
import { story, toldBy } from './story'

const row = (chapter: string | null): JournalRow => ({ chapter, isDecision: false, mayBePutRight: true })
const entry = (seq: number, at: string) => ({ id: `e${seq}`, seq, at, by: 'ilka', body: { kind: 'note-written' } }) as unknown as Entry

const page = {
  entries: [
    entry(1, '2026-11-26T21:50:00Z'),
    entry(2, '2026-11-26T22:40:00Z'),
    entry(3, '2026-11-26T22:41:00Z'),
    entry(4, '2026-11-26T23:10:00Z'),
    entry(5, '2026-11-26T23:11:00Z'),
  ],
  told: ['Reported', 'strap: done', 'pull: done', 'A note', 'wait: went on'],
  rows: [row(null), row('steps of the sheet'), row('steps of the sheet'), row(null), row('steps of the sheet')],
  corrected: [{ seq: 4, correction: 6, by: 'lioth', instead: null, happenedAt: null, because: 'It was another machine.' }],
}

it('tells the newest first, by days at the site, and steps that follow each other as one', () => {
  const days = story(toldBy([page]), 'Europe/Oslo') // an hour ahead of UTC
  expect(days.map(d => d.day)).toEqual(['Friday 27 November 2026', 'Thursday 26 November 2026'])
  expect(days[0]?.chapters.map(c => c.name)).toEqual(['steps of the sheet', null])
  expect(days[1]?.chapters.map(c => c.told.map(t => t.told))).toEqual([['pull: done', 'strap: done'], ['Reported']])
})

it('says of an entry that was put right what became of it', () => {
  const [note] = toldBy([page]).filter(t => t.corrected)
  expect([note?.told, note?.corrected?.because]).toEqual(['A note', 'It was another machine.'])
})
