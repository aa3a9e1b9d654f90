import { isOutOfContact } from './api'

/** The service's own sentence, where the person just acted. */
export function Refused({ problem }: { problem: Error | null }) {
  if (!problem) return null
  return (
    <p role="alert" className="brick" style={{ fontWeight: 700 }}>
      {isOutOfContact(problem) ? 'No answer. It may have been kept; pressing again sends it once, not twice.' : problem.message}
    </p>
  )
}
