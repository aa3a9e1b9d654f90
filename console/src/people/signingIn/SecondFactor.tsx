import { Button, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { clock } from '../../shared/time'
import { useFields } from '../../shared/typed/useFields'
import type { CodesOffered, Passkey, SecondFactorSet } from '../../shared/types'
import { PasswordOnceMore } from './PasswordOnceMore'
import { makePasskey, passkeysWork } from './passkeys'
import { Qr } from './Qr'

const key = ['second-factor']

/** A change of one's second factors; who one is is asked anew once recovery codes were seen, for the page goes on with that. */
function useFactorChange<Ask, Answer>(change: (ask: Ask) => Promise<Answer>, then?: (answer: Answer) => unknown) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: answer => {
      void client.invalidateQueries({ queryKey: key })
      then?.(answer)
    },
  })
}

/** What one shows beside the password: one-time codes, passkeys, and recovery codes for the day on which the device is lost. */
export function SecondFactor() {
  const client = useQueryClient()
  const have = useQuery({ queryKey: key, queryFn: async ({ signal }) => unwrap(await api.GET('/api/me/second-factor', { signal })) })
  const [recovery, setRecovery] = useState<readonly string[] | null>(null)
  const known = () => void client.invalidateQueries({ queryKey: ['me'] })
  const set = (answer: SecondFactorSet) => (answer.recoveryCodes ? setRecovery(answer.recoveryCodes) : known())
  if (recovery)
    return (
      <RecoveryCodes
        codes={recovery}
        seen={() => {
          setRecovery(null)
          known()
        }}
      />
    )
  if (!have.data) return <Refused problem={have.error} />
  const { codesSince, passkeys, recoveryCodes } = have.data
  const any = Boolean(codesSince) || passkeys.length > 0
  return (
    <section className="panel stack" aria-label="Second factor">
      <h2>Beside your password</h2>
      {!any && (
        <p className="chalk" style={{ margin: 0 }}>
          Nothing yet. Whoever learns your password is in.
        </p>
      )}
      {codesSince && <HasCodes since={codesSince} then={known} />}
      {passkeys.map(passkey => (
        <HasPasskey key={passkey.id} passkey={passkey} then={known} />
      ))}
      {any && <HasRecovery left={recoveryCodes} set={set} />}
      <SetUpCodes again={Boolean(codesSince)} set={set} />
      {passkeysWork() ? (
        <SetUpPasskey set={set} />
      ) : (
        <p className="chalk" style={{ margin: 0 }}>
          Passkeys take a browser that keeps them and a page at a name with TLS.
        </p>
      )}
    </section>
  )
}

function RecoveryCodes({ codes, seen }: { codes: readonly string[]; seen: () => void }) {
  return (
    <section className="panel now stack" aria-label="Recovery codes">
      <h2>Recovery codes</h2>
      <p style={{ margin: 0 }}>
        Shown this once. Keep them on paper: each is good once, in place of what your device shows, on the day on which it is lost.
      </p>
      <ul
        className="mono"
        style={{
          fontSize: 17,
          margin: 0,
          padding: 0,
          listStyle: 'none',
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(9em, 1fr))',
          gap: '4px 16px',
          userSelect: 'all',
        }}
      >
        {codes.map(code => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <Button onClick={seen}>I have them on paper</Button>
    </section>
  )
}

/** One thing that is asked with the password said once more, behind a button that opens it. */
function WithPassword({
  press,
  danger,
  ask,
  asking,
  problem,
}: {
  press: string
  danger?: string
  ask: (password: string) => unknown
  asking: boolean
  problem: Error | null
}) {
  const [{ password }, set] = useFields({ password: '' })
  return (
    <details>
      <summary>{press}</summary>
      <form
        className="stack"
        aria-label={press}
        style={{ marginTop: 8 }}
        onSubmit={event => {
          event.preventDefault()
          ask(password)
        }}
      >
        {danger && <p style={{ margin: 0 }}>{danger}</p>}
        <PasswordOnceMore value={password} onChange={set('password')} />
        <Button type="submit" variant="default" loading={asking}>
          {press}
        </Button>
        <Refused problem={problem} />
      </form>
    </details>
  )
}

function HasCodes({ since, then }: { since: string; then: () => void }) {
  const end = useFactorChange(
    async (password: string) => unwrap(await api.POST('/api/me/second-factor/codes/end', { body: { password } })),
    then,
  )
  return (
    <div className="part-line">
      <strong>One-time codes</strong> <span className="chalk">since {clock(since, null)}</span>
      <WithPassword press="End the one-time codes" ask={end.mutate} asking={end.isPending} problem={end.error} />
    </div>
  )
}

function HasPasskey({ passkey, then }: { passkey: Passkey; then: () => void }) {
  const end = useFactorChange(
    async (password: string) =>
      unwrap(await api.POST('/api/me/second-factor/passkeys/{id}/end', { params: { path: { id: passkey.id } }, body: { password } })),
    then,
  )
  return (
    <div className="part-line">
      <strong>Passkey '{passkey.name}'</strong> <span className="chalk">since {clock(passkey.since, null)}</span>
      <WithPassword press={`End '${passkey.name}'`} ask={end.mutate} asking={end.isPending} problem={end.error} />
    </div>
  )
}

function HasRecovery({ left, set }: { left: number; set: (answer: SecondFactorSet) => void }) {
  const make = useFactorChange(
    async (password: string) => unwrap(await api.POST('/api/me/second-factor/recovery', { body: { password } })),
    set,
  )
  return (
    <div className="part-line">
      <strong className={left < 3 ? 'ochre' : undefined}>
        {left < 3 && '◑ '}Recovery codes left: {left}
      </strong>
      <WithPassword
        press="Make other recovery codes"
        danger="Those you have now are good for nothing then."
        ask={make.mutate}
        asking={make.isPending}
        problem={make.error}
      />
    </div>
  )
}

/** First the password, then the key on the screen and the first code that the device makes of it. */
function SetUpCodes({ again, set }: { again: boolean; set: (answer: SecondFactorSet) => void }) {
  const offer = useFactorChange(async (password: string) => unwrap(await api.POST('/api/me/second-factor/codes', { body: { password } })))
  const press = again ? 'Take one-time codes from another device' : 'Set up one-time codes'
  return offer.data ? (
    <FirstCode
      offered={offer.data}
      set={answer => {
        offer.reset()
        set(answer)
      }}
    />
  ) : (
    <WithPassword press={press} ask={offer.mutate} asking={offer.isPending} problem={offer.error} />
  )
}

function FirstCode({ offered, set }: { offered: CodesOffered; set: (answer: SecondFactorSet) => void }) {
  const [{ code }, typed] = useFields({ code: '' })
  const take = useFactorChange(async () => unwrap(await api.PUT('/api/me/second-factor/codes', { body: { code } })), set)
  return (
    <form
      className="stack"
      aria-label="The first code"
      onSubmit={event => {
        event.preventDefault()
        take.mutate(undefined)
      }}
    >
      <p style={{ margin: 0 }}>Have your device read this, or type the key into it:</p>
      <Qr rows={offered.picture} says="The key as a QR code" />
      <p className="mono" style={{ margin: 0, overflowWrap: 'anywhere', userSelect: 'all' }}>
        {offered.key.match(/.{1,4}/g)?.join(' ')}
      </p>
      <TextInput
        label="The six digits it shows"
        inputMode="numeric"
        autoComplete="one-time-code"
        value={code}
        onChange={typed('code')}
        required
        withAsterisk={false}
      />
      <Button type="submit" loading={take.isPending}>
        These it shows
      </Button>
      <Refused problem={take.error} />
    </form>
  )
}

function SetUpPasskey({ set }: { set: (answer: SecondFactorSet) => void }) {
  const [{ name, password }, typed] = useFields({ name: '', password: '' })
  const make = useFactorChange(() => makePasskey(password, name), set)
  return (
    <details>
      <summary>Add a passkey</summary>
      <form
        className="stack"
        aria-label="A passkey"
        style={{ marginTop: 8 }}
        onSubmit={event => {
          event.preventDefault()
          make.mutate(undefined)
        }}
      >
        <p style={{ margin: 0 }}>This device, or a key that you plug in, signs you in by itself: it looks who holds it.</p>
        <TextInput
          label="What you call it"
          placeholder="blue key on the ring"
          value={name}
          onChange={typed('name')}
          required
          withAsterisk={false}
        />
        <PasswordOnceMore value={password} onChange={typed('password')} />
        <Button type="submit" loading={make.isPending}>
          Add it
        </Button>
        <Refused problem={make.error} />
      </form>
    </details>
  )
}

/** Whose roles take a second factor sees nothing else before there is one. */
export function SetUpSecondFactorPage() {
  return (
    <main className="page" style={{ maxWidth: 520, paddingTop: '6vh' }}>
      <h1>Nailcrow</h1>
      <p className="chalk" style={{ marginTop: 0 }}>
        What you may do here takes more than a password. Set up one of these, and you are in.
      </p>
      <SecondFactor />
    </main>
  )
}
