import { Button, PasswordInput, type PasswordInputProps } from '@mantine/core'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useFields } from '../../shared/typed/useFields'
import { useMe, usePeopleChange } from '../peopleQueries'
import { Strength } from './Strength'

/** A password that is typed; it can be looked at. */
function Secret(field: PasswordInputProps) {
  return (
    <PasswordInput
      autoComplete="new-password"
      required
      withAsterisk={false}
      visibilityToggleButtonProps={{ 'aria-label': 'Show the password' }}
      {...field}
    />
  )
}

/** The password one has, and the next one twice. */
export function OwnPassword({ given = false }: { given?: boolean }) {
  const [{ now, next, again }, set] = useFields({ now: '', next: '', again: '' })
  const me = useMe()
  const change = usePeopleChange(async () => unwrap(await api.PUT('/api/me/password', { body: { now, next } })))
  const differ = again !== '' && again !== next
  return (
    <form
      className="panel stack"
      aria-label="Your password"
      onSubmit={event => {
        event.preventDefault()
        if (next === again) change.mutate(undefined)
      }}
    >
      <h2>{given ? 'Choose a password of your own' : 'Your password'}</h2>
      <Secret
        label={given ? 'The password you were given' : 'The password you have'}
        autoComplete="current-password"
        value={now}
        onChange={set('now')}
      />
      <Secret
        label="The next one"
        description="12 characters or more, and none that others would try first. Some words in a row are good."
        value={next}
        onChange={set('next')}
      />
      <Strength password={next} own={me.data ? [me.data.name, me.data.fullName] : []} />
      <Secret label="The next one again" value={again} onChange={set('again')} error={differ ? 'This is another one.' : undefined} />
      <Button type="submit" loading={change.isPending} disabled={differ}>
        Change it
      </Button>
      {change.isSuccess && <p role="status">It is changed. Wherever else you were signed in, you are not any more.</p>}
      <Refused problem={change.error} />
    </form>
  )
}

/** Whoever came in with a password that somebody gave them sees nothing before they have their own. */
export function ChooseOwnPasswordPage() {
  return (
    <main className="page" style={{ maxWidth: 420, paddingTop: '8vh' }}>
      <h1>Nailcrow</h1>
      <p className="chalk" style={{ marginTop: 0 }}>
        Your password was given to you by somebody else, who knows it.
      </p>
      <OwnPassword given />
    </main>
  )
}
