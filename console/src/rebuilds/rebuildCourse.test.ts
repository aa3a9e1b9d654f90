import { expect, it } from 'vitest'
import type { RebuildView } from '../shared/types'
import { course } from './rebuildCourse'

const reading = (minute: number, percent: number | null, progress: 'running' | 'done' = 'running') =>
  ({ at: new Date(minute * 60_000).toISOString(), array: 'vault', progress, phase: 'rebuilding', percent, source: 'person' }) as const

it('goes on from the last reading to the soonest and the latest end', () => {
  const view = {
    look: { state: 'moving', sentence: '', left: { least: '00:10:00', most: '00:20:00', confidence: 80 } },
    readings: [reading(0, 10), reading(10, 60)],
  } as RebuildView

  expect(course(view)).toEqual([
    { at: 0, percent: 10 },
    { at: 600_000, percent: 60, least: 60, most: 60 },
    { at: 1_200_000, least: 100 },
    { at: 1_800_000, most: 100 },
  ])
})

it('draws no future where nothing can be said of it', () => {
  const view = {
    look: { state: 'no-news', sentence: '' },
    readings: [reading(0, 10), reading(10, null), reading(20, null, 'done')],
  } as unknown as RebuildView

  expect(course(view).map(p => p.percent)).toEqual([10, 100])
})
