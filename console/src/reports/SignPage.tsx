import { Button, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { useNavigate } from 'react-router'
import { ApiProblem, api, sendSignature, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import { useDraft } from '../shared/typed/useDraft'
import type { TicketView } from '../shared/types'
import { Waiting, WaitingPage } from '../shared/Waiting'
import { TicketHead, useTicket, useTicketNumber } from '../tickets'
import { type Glass, GlassPad } from './GlassPad'
import './sign.css'

/** The customer reads what was done and signs beneath it, on the engineer's phone; afterwards: what was signed. */
export function SignPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  if (!ticket.data) return <WaitingPage for="what is signed" problem={ticket.error} />
  return (
    <main className="page">
      <TicketHead ticket={ticket.data} here="signature" />
      {ticket.data.signed ? <Signed ticket={ticket.data} signed={ticket.data.signed} /> : <Signing ticket={ticket.data} />}
    </main>
  )
}

function Signing({ ticket }: { ticket: TicketView }) {
  const offered = ticket.moves.find(m => m.move === 'sign-off')
  const client = useQueryClient()
  const navigate = useNavigate()
  const glass = useRef<Glass>(null)
  // Made once, and kept until it is answered: pressed twice it is one signature.
  const id = useRef(crypto.randomUUID())
  const { fields, typed, drop } = useDraft(`sign-${ticket.number}`, { name: '', statement: '' })
  const text = useQuery({
    queryKey: ['tickets', ticket.number, 'signing'],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/tickets/{number}/signing', { params: { path: { number: ticket.number } }, signal })),
  })
  const sign = useMutation({
    mutationFn: async () => {
      const picture = await glass.current?.picture()
      if (!picture) throw new ApiProblem(0, 'Nobody has signed in the field yet.')
      return sendSignature(ticket.number, id.current, picture, {
        name: fields.name,
        seen: text.data?.sha256 ?? '',
        statement: fields.statement,
      })
    },
    onSuccess: async () => {
      drop()
      await client.invalidateQueries({ queryKey: ['tickets', ticket.number] })
      navigate(`/tickets/${ticket.number}`)
    },
    onError: problem => {
      if (problem instanceof ApiProblem && problem.status === 409) void text.refetch()
    },
  })
  if (offered?.whyNot) return <p className="panel">{offered.whyNot}</p>
  if (!text.data) return <Waiting for="what is signed" problem={text.error} />
  return (
    <form
      className="panel stack"
      onSubmit={event => {
        event.preventDefault()
        sign.mutate()
      }}
    >
      <h2>This is signed</h2>
      <pre className="sign-text">{text.data.text}</pre>
      <p className="chalk" style={{ margin: 0 }}>
        Its number is <span className="mono">{text.data.sha256.slice(0, 12)}</span>; it is kept with the signature, word for word.
      </p>
      <TextInput label="Who signs for the customer" value={fields.name} onChange={typed('name')} required maxLength={200} />
      <TextInput label="In their words, if they say something" value={fields.statement} onChange={typed('statement')} maxLength={4000} />
      <GlassPad ref={glass} />
      <Refused problem={sign.error} />
      <div>
        <Button type="submit" loading={sign.isPending}>
          The data is there, and this is so
        </Button>
      </div>
    </form>
  )
}

function Signed({ ticket, signed }: { ticket: TicketView; signed: NonNullable<TicketView['signed']> }) {
  const text = useQuery({
    queryKey: ['tickets', ticket.number, 'signed', signed.photo],
    queryFn: async ({ signal }) =>
      unwrap(
        await api.GET('/api/tickets/{number}/signatures/{signature}', {
          params: { path: { number: ticket.number, signature: signed.photo } },
          signal,
        }),
      ),
  })
  return (
    <section className="panel stack" aria-labelledby="signed">
      <h2 id="signed">
        Signed by {signed.name}, {clock(signed.at, ticket.zone)}
      </h2>
      {signed.removed ? (
        <p className="chalk" style={{ margin: 0 }}>
          The picture of it is kept no more, {signed.removed.by} on {clock(signed.removed.at, ticket.zone)}. {signed.removed.because}
        </p>
      ) : (
        <img className="sign-picture" src={`/api/tickets/${ticket.number}/photos/${signed.photo}`} alt={`Signature of ${signed.name}`} />
      )}
      {text.data ? <pre className="sign-text">{text.data.text}</pre> : <Waiting for="what was signed" problem={text.error} />}
      <p className="chalk" style={{ margin: 0 }}>
        SHA-256 of what was signed: <span className="mono sign-number">{signed.sha256}</span>
      </p>
    </section>
  )
}
