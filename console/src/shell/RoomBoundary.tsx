import { Button } from '@mantine/core'
import { Component, type ReactNode } from 'react'
import { Link } from 'react-router'

type Props = { children: ReactNode; at: string }
type State = { problem: Error | null; at: string }

// A part of the page that cannot be fetched: browsers each have their own words for it.
const notFetched = /dynamically imported module|importing a module script|module script failed|preload/i

const lastReload = 'nailcrow.reloaded'
const betweenReloads = 60_000
const lookEvery = 3_000

/** A room that stumbles says so and what to do; the rest of the console stands. A room that could not be fetched comes back by itself. */
export class RoomBoundary extends Component<Props, State> {
  override state: State = { problem: null, at: this.props.at }
  private looking: ReturnType<typeof setInterval> | undefined

  static getDerivedStateFromError = (problem: Error): Partial<State> => ({ problem })

  /** Another page is another try. */
  static getDerivedStateFromProps = (props: Props, state: State): State | null =>
    props.at === state.at ? null : { problem: null, at: props.at }

  override componentDidUpdate() {
    clearInterval(this.looking)
    if (this.state.problem && notFetched.test(this.state.problem.message)) this.looking = setInterval(() => void comeBack(), lookEvery)
  }

  override componentWillUnmount() {
    clearInterval(this.looking)
  }

  override render() {
    const { problem } = this.state
    if (!problem) return this.props.children
    return (
      <main className="page">
        <h1>{notFetched.test(problem.message) ? 'This page could not be fetched' : 'This page stopped'}</h1>
        <section role="alert" className="panel danger">
          {notFetched.test(problem.message) ? (
            <p style={{ margin: 0 }}>
              Either the service is out of contact, or a new release was put in place. It is tried again by itself; what you typed is kept.
            </p>
          ) : (
            <p style={{ margin: 0 }}>
              It stumbled over something, which is a mistake of Nailcrow's: <span className="mono">{problem.message}</span>. Nothing that
              was kept is lost, and what you typed is still there.
            </p>
          )}
          <div className="row" style={{ marginTop: 12 }}>
            <Button onClick={() => this.setState({ problem: null })}>Try again</Button>
            <Button variant="default" onClick={() => window.location.reload()}>
              Load the console anew
            </Button>
            <Button variant="default" component={Link} to="/">
              My day
            </Button>
          </div>
        </section>
      </main>
    )
  }
}

/** Loads the console anew once the service answers; not again and again where that does not help. */
async function comeBack() {
  const before = Number(sessionStorage.getItem(lastReload) ?? 0)
  if (Date.now() - before < betweenReloads) return
  const answer = await fetch('/health/live').catch(() => null)
  if (!answer?.ok) return
  sessionStorage.setItem(lastReload, `${Date.now()}`)
  window.location.reload()
}
