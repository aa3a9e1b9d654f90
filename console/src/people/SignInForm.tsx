import { Button, PasswordInput, TextInput } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { useFields } from '../shared/useFields'

/** Name and password; who is in is told to whoever shows the form. */
export function SignInForm({ name: known = '', signedIn }: { name?: string; signedIn: (name: string) => unknown }) {
  const [{ name, password }, set] = useFields({ name: known, password: '' })
  const signIn = useMutation({
    mutationKey: ['sign-in'],
    mutationFn: async () => unwrap(await api.POST('/api/sign-in/console', { body: { name: name.trim(), password } })),
    onSuccess: () => signedIn(name.trim()),
  })
  return (
    <form
      className="panel stack"
      onSubmit={event => {
        event.preventDefault()
        signIn.mutate()
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
      <Button type="submit" fullWidth loading={signIn.isPending}>
        Sign in
      </Button>
      <Refused problem={signIn.error} />
    </form>
  )
}
