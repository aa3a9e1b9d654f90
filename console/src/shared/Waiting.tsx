import { ApiProblem, isOutOfContact } from './api'

/** A page that has no data yet, or could not get any. */
export function Waiting({ for: what, problem }: { for: string; problem?: Error | null }) {
  if (!problem)
    return (
      <main className="page">
        <p role="status" className="chalk">
          Fetching {what} …
        </p>
      </main>
    )
  return (
    <main className="page">
      <p role="alert" className="panel danger">
        {isOutOfContact(problem) ? 'The service does not answer. What you did before is kept; this page tries again.' : problem.message}
        {problem instanceof ApiProblem || isOutOfContact(problem) ? '' : ' Reload the page.'}
      </p>
    </main>
  )
}
