import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { usePeople } from '../people'
import { Refused } from '../shared/Refused'
import type { TicketView } from '../shared/types'
import { HoldForm } from './HoldForm'
import { PlanVisit } from './PlanVisit'
import { type Body, useWrite, type Writer } from './ticketQueries'

type Sentence = { say: string; label: string; body: (text: string) => Body }

/** What may be done at any time, out of the way of the next thing. */
export function OtherMoves({ ticket }: { ticket: TicketView }) {
  const writer = useWrite(ticket.number)
  const navigate = useNavigate()
  const [open, setOpen] = useState<Sentence | null>(null)
  const [holding, setHolding] = useState(false)
  if (ticket.endedAt) return <AfterTheEnd writer={writer} />
  const sentences: Sentence[] = [
    { say: 'Note', label: 'What to remember', body: text => ({ kind: 'note-written', text }) },
    { say: 'Call a lead', label: 'What do you see?', body: reason => ({ kind: 'help-called', reason }) },
    { say: 'Cancel the ticket', label: 'Why', body: reason => ({ kind: 'ticket-cancelled', reason }) },
  ]
  return (
    <section className="panel" aria-label="Other things to do">
      <div className="row">
        {ticket.reachable && (
          <Button variant="default" loading={writer.busy} onClick={() => writer.run({ errand: 'snapshot' })}>
            Snapshot now
          </Button>
        )}
        <Button variant="default" onClick={() => navigate(`/tickets/${ticket.number}/snapshot`)}>
          Type a snapshot
        </Button>
        {sentences.map(sentence => (
          <Button
            key={sentence.say}
            variant="default"
            aria-expanded={open?.say === sentence.say}
            onClick={() => setOpen(open?.say === sentence.say ? null : sentence)}
          >
            {sentence.say}
          </Button>
        ))}
      </div>
      <Button variant="default" mt={8} aria-expanded={holding} onClick={() => setHolding(!holding)}>
        Put on hold
      </Button>
      {holding && <HoldForm writer={writer} done={() => setHolding(false)} />}
      {open && <OneSentence key={open.say} sentence={open} writer={writer} done={() => setOpen(null)} />}
      <Assign ticket={ticket} writer={writer} />
      {ticket.engineer && <PlanVisit writer={writer} />}
      <Refused problem={writer.problem} />
    </section>
  )
}

/** A closed ticket still takes notes, and a lead may make it work again; what came in late is settled where the next thing stands. */
function AfterTheEnd({ writer }: { writer: Writer }) {
  const [open, setOpen] = useState<Sentence | null>(null)
  const sentences: Sentence[] = [
    { say: 'Note', label: 'What to remember', body: text => ({ kind: 'note-written', text }) },
    { say: 'Reopen', label: 'Why it is not over, as a lead', body: reason => ({ kind: 'ticket-reopened', reason }) },
  ]
  return (
    <section className="panel" aria-label="After the end">
      <div className="row">
        {sentences.map(sentence => (
          <Button
            key={sentence.say}
            variant="default"
            aria-expanded={open?.say === sentence.say}
            onClick={() => setOpen(open?.say === sentence.say ? null : sentence)}
          >
            {sentence.say}
          </Button>
        ))}
      </div>
      {open && <OneSentence key={open.say} sentence={open} writer={writer} done={() => setOpen(null)} />}
      <Refused problem={writer.problem} />
    </section>
  )
}

function OneSentence({ sentence, writer, done }: { sentence: Sentence; writer: Writer; done: () => void }) {
  const [text, setText] = useState('')
  return (
    <form
      className="row"
      style={{ marginTop: 12, alignItems: 'flex-end' }}
      onSubmit={async event => {
        event.preventDefault()
        if (await writer.write(sentence.body(text))) done()
      }}
    >
      <TextInput
        style={{ flex: '1 1 240px' }}
        label={sentence.label}
        value={text}
        onChange={e => setText(e.currentTarget.value)}
        required
        withAsterisk={false}
        autoFocus
      />
      <Button type="submit" loading={writer.busy}>
        {sentence.say}
      </Button>
    </form>
  )
}

function Assign({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const people = usePeople()
  const engineers = people.data?.people.filter(p => p.roles.includes('engineer')) ?? []
  return (
    <NativeSelect
      mt={12}
      label="Engineer"
      value={ticket.engineer ?? ''}
      onChange={e => e.currentTarget.value && writer.write({ kind: 'engineer-assigned', engineer: e.currentTarget.value })}
      data={[{ value: '', label: 'nobody yet', disabled: true }, ...engineers.map(p => ({ value: p.name, label: p.fullName }))]}
    />
  )
}
