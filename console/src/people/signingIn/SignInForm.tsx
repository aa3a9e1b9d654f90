import { Button, PasswordInput, TextInput } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { useLocation } from 'react-router'
import { ApiProblem, api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useFields } from '../../shared/typed/useFields'
import { useSignInWays } from '../peopleQueries'
import { passkeysWork, signInByPasskey } from './passkeys'

const secondFactor = 'urn:nailcrow:second-factor'

/** Name and password, and a code where one is asked for; or a passkey alone. Who is in is told to whoever shows the form. */
export function SignInForm({ name: known = '', signedIn }: { name?: string; signedIn: (name: string) => unknown }) {
  const [{ name, password, code }, set] = useFields({ name: known, password: '', code: '' })
  const signIn = useMutation({
    mutationKey: ['sign-in'],
    mutationFn: async (shown: string | null) =>
      unwrap(await api.POST('/api/sign-in/console', { body: { name: name.trim(), password, code: shown } })),
    onSuccess: () => signedIn(name.trim()),
  })
  const byPasskey = usePasskey(signedIn)
  const wanted = signIn.error instanceof ApiProblem && signIn.error.type === secondFactor
  // To be asked for a code is no refusal; to have typed another one is.
  const asked = wanted && !signIn.variables ? signIn.error?.message : undefined
  return (
    <form
      className="panel stack"
      onSubmit={event => {
        event.preventDefault()
        byPasskey.reset()
        signIn.mutate(code.trim() || null)
      }}
    >
      <TextInput
        label="Name"
        autoComplete="username"
        autoCapitalize="none"
        value={name}
        onChange={set('name')}
        required
        withAsterisk={false}
      />
      <PasswordInput
        label="Password"
        autoComplete="current-password"
        value={password}
        onChange={set('password')}
        required
        withAsterisk={false}
        visibilityToggleButtonProps={{ 'aria-label': 'Show the password' }}
      />
      {(wanted || code !== '') && (
        <TextInput
          label="Code"
          description={asked}
          autoComplete="one-time-code"
          autoCapitalize="none"
          value={code}
          onChange={set('code')}
          withAsterisk={false}
          autoFocus
        />
      )}
      <Button type="submit" fullWidth loading={signIn.isPending}>
        Sign in
      </Button>
      <Refused problem={asked ? null : signIn.error} />
      <ByPasskey way={byPasskey} begins={signIn.reset} />
      <Elsewhere />
    </form>
  )
}

const usePasskey = (signedIn: (name: string) => unknown) =>
  useMutation({
    mutationKey: ['sign-in'],
    mutationFn: async () => {
      await signInByPasskey()
      return unwrap(await api.GET('/api/me')).name
    },
    onSuccess: who => signedIn(who),
  })

function ByPasskey({ way, begins }: { way: ReturnType<typeof usePasskey>; begins: () => void }) {
  return (
    <>
      {passkeysWork() && (
        <Button
          variant="default"
          fullWidth
          loading={way.isPending}
          onClick={() => {
            begins()
            way.mutate()
          }}
        >
          Sign in with a passkey
        </Button>
      )}
      <Refused problem={way.error} />
    </>
  )
}

/** The firm's own provider of sign-ins, where one is set; it leads back to the page one was on. */
function Elsewhere() {
  const ways = useSignInWays()
  const { pathname, search } = useLocation()
  const there = ways.data?.elsewhere
  if (!there) return null
  return (
    <Button component="a" variant="default" fullWidth href={`${there.at}?to=${encodeURIComponent(pathname + search)}`}>
      Sign in with {there.name}
    </Button>
  )
}
