import { useSecond } from '../shared/time'
import type { RunView } from '../shared/types'

/** Clocks that run while something has to be done in time; they go on while the screen is off. */
export function RunningLimits({ run }: { run: RunView }) {
  const now = useSecond(run.limits.length > 0)
  return run.limits.map(limit => {
    const left = Math.round((Date.parse(limit.deadline) - now) / 1000)
    const until = run.sheet.steps.find(s => s.id === limit.until)?.say ?? limit.until
    return (
      <p key={limit.step} role="timer" className={left < 0 ? 'brick' : 'ochre'} style={{ fontWeight: 700, margin: '8px 0 0' }}>
        {left < 0 ? `■ ${-left} s over time` : `◷ ${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')} left`} until: {until}
      </p>
    )
  })
}
