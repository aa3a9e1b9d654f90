import { Button, NativeSelect, PasswordInput, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Fragment, useState } from 'react'
import { useMay } from '../people'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import { useFields } from '../shared/typed/useFields'
import type { MachineAccess, SignInWay } from '../shared/types'

const ways = {
  session: 'A session, begun once',
  basic: 'Name and secret with each call',
} satisfies Record<SignInWay, string>

const day = (at: string) => at.slice(0, 10)

/** Where the machine answers, what it is come into with, and whether that works. */
export function HowReached({ asset, address }: { asset: string; address: string | null }) {
  const may = useMay('reach-machines')
  const access = useQuery({
    queryKey: ['machines', asset, 'access'],
    enabled: may,
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances/{asset}/access', { params: { path: { asset } }, signal })),
  })
  return (
    <section className="panel stack" aria-labelledby="reached">
      <h2 id="reached">How it is reached</h2>
      {address ? (
        <p style={{ margin: 0 }}>
          At <span className="mono">{address}</span>
        </p>
      ) : (
        <p style={{ margin: 0 }}>By hand only: it has no management address, and what its screen shows is typed in.</p>
      )}
      {may && address && <Refused problem={access.error} />}
      {may && address && access.data && <Access access={access.data} />}
      {address && <Trying asset={asset} />}
    </section>
  )
}

/** Broken between two pairs alone: one compares it pair by pair. */
const Fingerprint = ({ pairs }: { pairs: string }) => (
  <span className="mono">
    {pairs.split(/(?<=:)/).map((pair, nth) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: the same pair may come twice, and the order is all it is
      <Fragment key={nth}>
        {pair}
        <wbr />
      </Fragment>
    ))}
  </span>
)

function useAccessChange<T>(change: (given: T) => Promise<unknown>) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSettled: () => client.invalidateQueries({ queryKey: ['machines'] }),
  })
}

function Access({ access }: { access: MachineAccess }) {
  const { asset, signIn, trusted } = access
  const params = { path: { asset } }
  const none = useAccessChange<void>(async () => unwrap(await api.DELETE('/api/appliances/{asset}/sign-in', { params })))
  const [open, setOpen] = useState(false)
  return (
    <>
      <Offered access={access} />
      <dl className="facts" style={{ margin: 0 }}>
        <dt>Certificate</dt>
        <dd>
          {trusted ? (
            <>
              {trusted.certificate.subject}, until {day(trusted.certificate.until)}; {trusted.by} said yes on {day(trusted.at)}
              <br />
              <Fingerprint pairs={trusted.pairs} />
            </>
          ) : (
            'none that somebody had to look at'
          )}
        </dd>
        <dt>Sign-in</dt>
        <dd>
          {signIn ? (
            <>
              {signIn.name}, {ways[signIn.way].toLowerCase()}; secret{' '}
              {signIn.secretFile ? `in the file ${signIn.secretFile}` : 'kept encrypted'}, given by {signIn.by} on {day(signIn.at)}
            </>
          ) : (
            'none; it is asked as anybody'
          )}
        </dd>
      </dl>
      <div className="row">
        <Button variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
          {signIn ? 'Give another sign-in' : 'Give a sign-in'}
        </Button>
        {signIn && (
          <Button variant="default" loading={none.isPending} onClick={() => none.mutate()}>
            Sign in no more
          </Button>
        )}
      </div>
      <Refused problem={none.error} />
      {open && <GiveSignIn access={access} given={() => setOpen(false)} />}
    </>
  )
}

/** A certificate that waits for a yes. Nothing is sent to the machine before. */
function Offered({ access: { asset, offered, trusted } }: { access: MachineAccess }) {
  const trust = useAccessChange(async (sha256: string) =>
    unwrap(await api.PUT('/api/appliances/{asset}/certificate', { params: { path: { asset } }, body: { sha256 } })),
  )
  if (!offered) return null
  const { certificate, pairs, at } = offered
  return (
    <div role="status" className="panel danger stack">
      <p style={{ margin: 0 }}>
        <strong>
          ◆{' '}
          {trusted
            ? 'It shows another certificate than the one somebody said yes to.'
            : 'It shows a certificate that nobody has looked at yet.'}
        </strong>
      </p>
      <p style={{ marginBottom: 0 }}>
        {certificate.subject}, until {day(certificate.until)}; shown at {clock(at, null)}. Compare its SHA-256 with the machine's own
        screen:
      </p>
      <p style={{ marginBottom: 0 }}>
        <Fingerprint pairs={pairs} />
      </p>
      <Button loading={trust.isPending} onClick={() => trust.mutate(certificate.sha256)}>
        Yes, that is this machine's
      </Button>
      <Refused problem={trust.error} />
    </div>
  )
}

function GiveSignIn({ access: { asset, signIn }, given }: { access: MachineAccess; given: () => void }) {
  const [{ name, secret, file }, set] = useFields({ name: signIn?.name ?? '', secret: '', file: signIn?.secretFile ?? '' })
  const [way, setWay] = useState<SignInWay>(signIn?.way ?? 'session')
  const give = useAccessChange<void>(async () =>
    unwrap(
      await api.PUT('/api/appliances/{asset}/sign-in', {
        params: { path: { asset } },
        body: { name, way, secret: secret || null, secretFile: file.trim() || null },
      }),
    ),
  )
  return (
    <form
      className="stack"
      aria-label="Sign-in at the machine"
      onSubmit={event => {
        event.preventDefault()
        give.mutate(undefined, { onSuccess: given })
      }}
    >
      <TextInput label="Whom the machine knows" autoComplete="off" value={name} onChange={set('name')} required withAsterisk={false} />
      <PasswordInput
        label="Its secret"
        description="Kept encrypted, and never shown again."
        autoComplete="off"
        value={secret}
        onChange={set('secret')}
      />
      <TextInput
        label="Or the file it is in"
        description="In the folder for secrets on the service's machine."
        value={file}
        onChange={set('file')}
      />
      <NativeSelect
        label="How it lets one in"
        data={Object.entries(ways).map(([value, label]) => ({ value, label }))}
        value={way}
        onChange={event => setWay(event.currentTarget.value as SignInWay)}
      />
      <Button type="submit" loading={give.isPending}>
        Sign in by that
      </Button>
      <Refused problem={give.error} />
    </form>
  )
}

function Trying({ asset }: { asset: string }) {
  const client = useQueryClient()
  const trial = useMutation({
    mutationFn: async () => unwrap(await api.POST('/api/appliances/{asset}/try', { params: { path: { asset } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['machines'] }),
  })
  return (
    <>
      <Button variant="default" loading={trial.isPending} onClick={() => trial.mutate()}>
        Try whether it can be read
      </Button>
      <Refused problem={trial.error} />
      {trial.data && (
        <div role="status">
          <strong>{trial.data.ok ? '✓ It can be read.' : '✕ It cannot be read.'}</strong>
          <ol className="steps">
            {trial.data.steps.map(step => (
              <li key={step.what}>
                {step.ok ? '✓' : '✕'} {step.what}: {step.came} <span className="chalk">{step.milliseconds} ms</span>
              </li>
            ))}
          </ol>
        </div>
      )}
    </>
  )
}
