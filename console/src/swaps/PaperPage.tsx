import { Button, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Refused } from '../shared/Refused'
import type { RunStep, RunView } from '../shared/types'
import { Waiting } from '../shared/Waiting'
import { said } from '../shared/words'
import { TicketHead, ticketQuery, useTicket, useTicketNumber, useWrite } from '../tickets'
import { type Filled, paperEntry } from './paperEntry'
import './run.css'

/** What was filled in on paper, entered in one form. It goes in step by step, as if it had been answered there, and stops where something is missing. */
export function PaperPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const client = useQueryClient()
  const writer = useWrite(number)
  const [filled, setFilled] = useState<Record<string, Filled>>({})
  const [told, setTold] = useState<string | null>(null)
  if (!ticket.data) return <Waiting for="the run sheet" problem={ticket.error} />
  const { run } = ticket.data
  if (!run)
    return (
      <main className="page">
        <TicketHead ticket={ticket.data} here="from paper" />
        <p>There is no run sheet yet; the ticket page starts it.</p>
      </main>
    )
  const fill = (step: string, part: Partial<Filled>) =>
    setFilled({ ...filled, [step]: { answer: '', text: '', at: '', ...filled[step], ...part } })
  const enter = async () => {
    let entered = 0
    for (;;) {
      const now = (await client.fetchQuery({ ...ticketQuery(number), staleTime: 0 })).run
      const step = now?.current
      const entry = now && step ? paperEntry(now, step, filled[step.id], ticket.data.arrivedAt ?? null) : null
      if (!entry || !(await writer.write(entry.body, entry.at))) {
        setTold(
          `${entered} ${entered === 1 ? 'answer is' : 'answers are'} in. ${step ? `The sheet stands at: ${step.say}` : 'The sheet is at its end.'}`,
        )
        return
      }
      entered++
    }
  }
  return (
    <main className="page">
      <TicketHead ticket={ticket.data} here="from paper" />
      <p>
        Fill in what stands on the paper, from the step the sheet stands at. <a href={`/api/tickets/${number}/sheet.pdf`}>The paper</a>
      </p>
      <form
        onSubmit={event => {
          event.preventDefault()
          enter()
        }}
      >
        {run.sheet.steps.map((step, i) => (
          <PaperStep key={step.id} step={step} place={i + 1} run={run} filled={filled[step.id]} fill={part => fill(step.id, part)} />
        ))}
        <Refused problem={writer.problem} />
        {told && <p role="status">{told}</p>}
        <Button type="submit" loading={writer.busy}>
          Enter what is filled in
        </Button>
      </form>
    </main>
  )
}

type StepProps = { step: RunStep; place: number; run: RunView; filled: Filled | undefined; fill: (part: Partial<Filled>) => void }

function PaperStep({ step, place, run, filled, fill }: StepProps) {
  const done = run.visits.some(v => v.step === step.id)
  const text = step.kind === 'read' || step.kind === 'scan' || step.erases
  return (
    <fieldset className="paper-step" aria-current={step.id === run.current?.id ? 'step' : undefined}>
      <legend>
        <span className="mono">{place}</span> {step.say} {done && <span className="chalk">[entered]</span>}
      </legend>
      <div className="row">
        {text ? (
          <TextInput
            aria-label={step.erases ? 'Bay and serial' : step.kind === 'scan' ? 'Serial read' : 'Written down'}
            placeholder={step.erases ? 'bay and serial' : step.kind === 'scan' ? 'serial' : (step.unit ?? '')}
            value={filled?.text ?? ''}
            onChange={e => fill({ text: e.currentTarget.value })}
          />
        ) : (
          step.answers.map(a => (
            <label key={a.answer} className="paper-box">
              <input
                type="checkbox"
                checked={filled?.answer === a.answer}
                onChange={e => fill({ answer: e.currentTarget.checked ? a.answer : '' })}
              />
              {a.answer === 'done' && step.kind === 'gate' ? 'So it is' : said(a.label || a.answer)}
            </label>
          ))
        )}
        <TextInput aria-label="At" type="time" value={filled?.at ?? ''} onChange={e => fill({ at: e.currentTarget.value })} />
      </div>
    </fieldset>
  )
}
