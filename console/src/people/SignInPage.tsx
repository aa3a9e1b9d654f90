import { Button, PasswordInput, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { useFields } from '../shared/useFields'

export function SignInPage() {
  const client = useQueryClient()
  const [{ name, password }, set] = useFields({ name: '', password: '' })
  const signIn = useMutation({
    mutationFn: async () => unwrap(await api.POST('/api/sign-in/console', { body: { name: name.trim(), password } })),
    onSuccess: () => client.resetQueries(),
  })
  return (
    <main className="page" style={{ maxWidth: 420, paddingTop: '12vh' }}>
      <h1>Nailcrow</h1>
      <p className="chalk" style={{ marginTop: 0 }}>
        The next thing to do, and never the wrong drive.
      </p>
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
    </main>
  )
}
