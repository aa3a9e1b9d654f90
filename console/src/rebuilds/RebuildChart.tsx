import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import type { RebuildView } from '../shared/types'
import { course } from './rebuildCourse'

/** Percent over time, and where 100 % may be reached: soonest dashed, latest dotted. */
export function RebuildChart({ rebuild, zone }: { rebuild: RebuildView; zone: string | null }) {
  const points = course(rebuild)
  if (points.length < 2) return <p className="chalk">A chart needs two readings with a percentage.</p>
  const span = (points.at(-1)?.at ?? 0) - (points[0]?.at ?? 0)
  const label = (at: number) =>
    new Intl.DateTimeFormat('sv-SE', { timeZone: zone ?? 'UTC', timeStyle: span < 600_000 ? 'medium' : 'short' }).format(at)
  const last = rebuild.readings.at(-1)
  return (
    <figure style={{ margin: 0 }}>
      <div
        role="img"
        aria-label={`Chart of the rebuild: ${points.length} points, last at ${last?.percent ?? 100} percent. ${rebuild.look.sentence}`}
      >
        <ResponsiveContainer width="100%" height={260}>
          <LineChart data={points} margin={{ top: 8, right: 12, bottom: 4, left: -16 }}>
            <CartesianGrid stroke="var(--rule)" vertical={false} />
            <XAxis
              dataKey="at"
              type="number"
              domain={['dataMin', 'dataMax']}
              tickFormatter={label}
              stroke="var(--chalk)"
              tick={{ fill: 'var(--chalk)', fontSize: 13 }}
              minTickGap={32}
            />
            <YAxis domain={[0, 100]} ticks={[0, 25, 50, 75, 100]} stroke="var(--chalk)" tick={{ fill: 'var(--chalk)', fontSize: 13 }} />
            <Line
              dataKey="percent"
              stroke="var(--pine)"
              strokeWidth={3}
              dot={points.length < 40 ? { r: 3, fill: 'var(--pine)' } : false}
              isAnimationActive={false}
            />
            <Line
              dataKey="least"
              stroke="var(--ink)"
              strokeWidth={2}
              strokeDasharray="8 5"
              dot={false}
              connectNulls
              isAnimationActive={false}
            />
            <Line
              dataKey="most"
              stroke="var(--ink)"
              strokeWidth={2}
              strokeDasharray="2 4"
              dot={false}
              connectNulls
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="chalk" style={{ fontSize: 15 }}>
        Solid: read. Dashed: soonest. Dotted: latest. Times in {zone ?? 'UTC'}.
      </figcaption>
    </figure>
  )
}
