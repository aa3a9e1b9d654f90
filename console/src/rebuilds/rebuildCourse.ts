import { seconds } from '../shared/time'
import type { RebuildView } from '../shared/types'

export type CoursePoint = { at: number; percent?: number; least?: number; most?: number }

/** Readings as they were, then two straight ways to 100 %: the soonest and the latest end of the range. */
export function course({ look, readings }: RebuildView): CoursePoint[] {
  const points: CoursePoint[] = readings
    .filter(r => r.percent != null || r.progress === 'done')
    .map(r => ({ at: Date.parse(r.at), percent: r.progress === 'done' ? 100 : (r.percent ?? 0) }))
  const last = points.at(-1)
  if (!last || !look.left || look.state !== 'moving') return points
  return [
    ...points.slice(0, -1),
    { ...last, least: last.percent, most: last.percent },
    { at: last.at + seconds(look.left.least) * 1000, least: 100 },
    { at: last.at + seconds(look.left.most) * 1000, most: 100 },
  ]
}
