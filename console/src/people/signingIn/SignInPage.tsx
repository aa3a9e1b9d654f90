import { useQueryClient } from '@tanstack/react-query'
import { SignInForm } from './SignInForm'

export function SignInPage() {
  const client = useQueryClient()
  return (
    <main className="page" style={{ maxWidth: 420, paddingTop: '12vh' }}>
      <h1>Nailcrow</h1>
      <p className="chalk" style={{ marginTop: 0 }}>
        The next thing to do, and never the wrong drive.
      </p>
      <SignInForm signedIn={() => client.resetQueries()} />
    </main>
  )
}
