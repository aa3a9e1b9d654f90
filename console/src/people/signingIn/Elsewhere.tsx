import { Button } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useFields } from '../../shared/typed/useFields'
import type { Person } from '../../shared/types'
import { usePeopleChange, useSignInWays } from '../peopleQueries'
import { PasswordOnceMore } from './PasswordOnceMore'

/** Whom the firm's provider of sign-ins means by one; where none is set and none was, there is nothing to say. */
export function Elsewhere({ me }: { me: Person }) {
  const ways = useSignInWays()
  const [{ password }, set] = useFields({ password: '' })
  const join = useMutation({
    mutationFn: async () => unwrap(await api.POST('/api/me/elsewhere', { body: { password } })),
    onSuccess: ({ at }) => window.location.assign(at),
  })
  const end = usePeopleChange(async () => unwrap(await api.POST('/api/me/elsewhere/end', { body: { password } })))
  const there = ways.data?.elsewhere
  if (!there && !me.elsewhere) return <Refused problem={ways.error} />
  const change = me.elsewhere ? end : join
  return (
    <form
      className="panel stack"
      aria-label="Provider of sign-ins"
      onSubmit={event => {
        event.preventDefault()
        change.mutate(undefined)
      }}
    >
      <h2>{there?.name ?? 'Provider of sign-ins'}</h2>
      <p className="chalk" style={{ margin: 0 }}>
        {me.elsewhere
          ? `Whoever ${me.elsewhere} says is you comes in here as you, with the roles it says.`
          : 'Say once whom it means by you, and it lets you in, with the roles it says.'}
      </p>
      {me.hasPassword ? (
        <>
          <PasswordOnceMore value={password} onChange={set('password')} />
          <Button type="submit" variant="default" loading={change.isPending}>
            {me.elsewhere ? 'No longer by it' : `Come in with ${there?.name}`}
          </Button>
        </>
      ) : (
        <p style={{ margin: 0 }}>You have no password here; whoever looks after people can give you one.</p>
      )}
      <Refused problem={change.error} />
    </form>
  )
}
