import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useMay } from '../../people'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useDraft } from '../../shared/typed/useDraft'
import type { PartnerKind } from '../../shared/types'
import { Waiting } from '../../shared/Waiting'
import { said } from '../../shared/words'

const kinds: PartnerKind[] = ['carrier', 'maker', 'mail']

/** Carriers, makers and mail servers to whom the service can speak; an administrator adds them and says where they answer. */
export function PartnerList() {
  const partners = useQuery({
    queryKey: ['partners'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/partners', { signal })).partners,
  })
  const may = useMay('keep-house')
  const client = useQueryClient()
  const remove = useMutation({
    mutationFn: async (name: string) => unwrap(await api.DELETE('/api/partners/{name}', { params: { path: { name } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ['partners'] }),
  })
  return (
    <section className="panel stack" aria-labelledby="partners">
      <h2 id="partners">Who can be asked</h2>
      {!partners.data && <Waiting for="who can be asked" problem={partners.error} />}
      {partners.data?.length === 0 && (
        <p className="chalk" style={{ margin: 0 }}>
          Nobody yet: boxes and numbers are asked for by telephone, and written down on the ticket. An administrator adds a carrier, a maker
          or a mail server here.
        </p>
      )}
      {partners.data?.map(p => (
        <div key={p.name} className="part-line">
          <strong>{p.name}</strong>, {said(p.kind)}, answers at <span className="mono">{p.address}</span>
          {p.eventsGoTo && (
            <>
              <br />
              <span className="chalk">
                tells what becomes of parcels at <span className="mono">{p.eventsGoTo}</span>
              </span>
            </>
          )}
          {may && (
            <div style={{ marginTop: 6 }}>
              <Button size="xs" variant="default" loading={remove.isPending} onClick={() => remove.mutate(p.name)}>
                Ask {p.name} no more
              </Button>
            </div>
          )}
        </div>
      ))}
      <Refused problem={remove.error} />
      {may && <AddPartner />}
    </section>
  )
}

const nothing = { name: '', kind: 'carrier', address: '' }

function usePutting(fields: typeof nothing, secret: string, done: () => void) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: async () =>
      unwrap(
        await api.PUT('/api/partners/{name}', {
          params: { path: { name: fields.name.trim() } },
          body: {
            kind: kinds.find(k => k === fields.kind) ?? 'carrier',
            address: fields.address.trim(),
            secret: secret.trim() || null,
          },
        }),
      ),
    onSuccess: () => {
      done()
      return client.invalidateQueries({ queryKey: ['partners'] })
    },
  })
}

function AddPartner() {
  const { fields, typed, drop } = useDraft('partner', nothing)
  const [secret, setSecret] = useState('') // kept nowhere but in the field
  const put = usePutting(fields, secret, () => {
    drop()
    setSecret('')
  })
  return (
    <form
      className="stack"
      aria-label="Add a carrier, maker or mail server"
      onSubmit={e => {
        e.preventDefault()
        put.mutate()
      }}
    >
      <h3>Add one, or say anew where it answers</h3>
      <TextInput label="Name, as it stands on tickets" value={fields.name} onChange={typed('name')} required />
      <NativeSelect label="What they are" data={kinds} value={fields.kind} onChange={typed('kind')} />
      <TextInput
        label="Where they answer"
        placeholder={fields.kind === 'mail' ? 'smtps://care@mail.example/care@firm.example' : 'https://carrier.example/api'}
        value={fields.address}
        onChange={typed('address')}
        required
      />
      <TextInput
        label={fields.kind === 'mail' ? 'Its password' : 'What both sign with'}
        description={
          fields.kind === 'mail'
            ? 'Nothing, where nobody signs in there.'
            : 'Nothing: the one there is stays, or one is made and shown once.'
        }
        value={secret}
        onChange={event => setSecret(event.currentTarget.value)}
      />
      <Refused problem={put.error} />
      {put.data && (
        <p role="status" style={{ margin: 0 }}>
          {put.data.partner.name} is asked at {put.data.partner.address}.
          {put.data.secret && (
            <>
              {' '}
              Both sign with <strong className="mono">{put.data.secret}</strong>, shown this once.
            </>
          )}
        </p>
      )}
      <div>
        <Button type="submit" loading={put.isPending}>
          Keep it
        </Button>
      </div>
    </form>
  )
}
