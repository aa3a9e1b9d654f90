import { ApiProblem, isOutOfContact } from './api'

interface What {
  for: string
  problem?: Error | null
}

/** A whole page that has no data yet, or could not get any. */
export function WaitingPage(what: What) {
  return (
    <main className="page">
      <h1>{what.for.charAt(0).toUpperCase() + what.for.slice(1)}</h1>
      <Waiting {...what} />
    </main>
  )
}

/** The part of a page that has no data yet, or could not get any. */
export function Waiting({ for: what, problem }: What) {
  if (!problem)
    return (
      <p role="status" className="chalk">
        Fetching {what} …
      </p>
    )
  return (
    <p role="alert" className="panel danger">
      {isOutOfContact(problem) ? 'The service does not answer. What you did before is kept; this page tries again.' : problem.message}
      {problem instanceof ApiProblem || isOutOfContact(problem) ? '' : ' Reload the page.'}
    </p>
  )
}
