import { useQuery, useQueryClient } from '@tanstack/react-query'
import { memo, type ReactNode, useMemo, useState } from 'react'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { Press } from '../../shared/typed/Press'
import { useDraft } from '../../shared/typed/useDraft'
import type { PaperPlace, RunStep, RunView, TicketView } from '../../shared/types'
import { WaitingPage } from '../../shared/Waiting'
import { said } from '../../shared/words'
import { TicketHead, ticketQuery, useTicket, useTicketNumber, useWrite } from '../../tickets'
import { enterPaper, paperTold } from './enterPaper'
import { type Filled, paperEntry, timeOfDay } from './paperEntry'
import '../run.css'

/** What was filled in on paper, entered in one form. It goes in step by step, as if it had been answered there, and stops where something is missing. */
export function PaperPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  if (!ticket.data) return <WaitingPage for="the run sheet" problem={ticket.error} />
  const { run } = ticket.data
  return (
    <main className="page">
      <TicketHead ticket={ticket.data} here="from paper" />
      {run ? <Paper key={run.sheet.id} ticket={ticket.data} run={run} /> : <p>There is no run sheet yet; the ticket page starts it.</p>}
    </main>
  )
}

function Paper({ ticket, run }: { ticket: TicketView; run: RunView }) {
  const places = useQuery({
    queryKey: ['paper', run.sheet.id],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/tickets/{number}/paper', { params: { path: { number: ticket.number } }, signal })),
    staleTime: Number.POSITIVE_INFINITY, // a sheet never changes
  })
  const client = useQueryClient()
  const writer = useWrite(ticket.number)
  const draft = useDraft<Record<string, string>>(`paper-${run.sheet.id}`, {})
  const [told, setTold] = useState<string | null>(null)
  const entered = useMemo(() => new Set(run.visits.map(v => v.step)), [run.visits])
  const isShort = run.sheet.steps.length <= drawnAtOnce
  const enter = async () => {
    const stopped = await enterPaper({
      run: async () => (await client.fetchQuery({ ...ticketQuery(ticket.number), staleTime: 0 })).run ?? null,
      entryOf: (now, step) => paperEntry(now, step, filledIn(draft.fields, step.id), ticket),
      write: entry => writer.write(entry.body, entry.at),
    })
    if (!stopped.at) draft.drop()
    setTold(paperTold(stopped))
  }
  return (
    <>
      <p>
        Fill in what stands on the paper, from the step the sheet stands at.{' '}
        <a href={`/api/tickets/${ticket.number}/sheet.pdf`}>The paper</a>
      </p>
      <form
        onSubmit={event => {
          event.preventDefault()
          enter()
        }}
      >
        {chapters(run.sheet.steps, places.data ?? []).map(chapter => (
          <PaperChapter key={chapter.first} name={chapter.name} open={isShort || chapter.steps.some(s => s.id === run.current?.id)}>
            {chapter.steps.map((step, i) => (
              <PaperStep
                key={step.id}
                step={step}
                place={chapter.first + i}
                isCurrent={step.id === run.current?.id}
                isEntered={entered.has(step.id)}
                {...filledIn(draft.fields, step.id)}
                fill={draft.set}
              />
            ))}
          </PaperChapter>
        ))}
        <Refused problem={writer.problem} />
        {told && <p role="status">{told}</p>}
        <Press type="submit" busy={writer.busy}>
          Enter what is filled in
        </Press>
      </form>
    </>
  )
}

/** What stands in one step's boxes so far; typing into one step draws that one, for sheets have hundreds. */
const filledIn = (fields: Record<string, string>, step: string): Filled => ({
  answer: fields[`${step} answer`] ?? '',
  text: fields[`${step} text`] ?? '',
  at: fields[`${step} at`] ?? '',
})

// A phone draws the boxes of a hundred steps without a pause; of a longer paper one chapter at a time is opened.
const drawnAtOnce = 100

/** In the order of the paper: the plain path by its chapters, then what is only done if it does not go so. */
function chapters(steps: readonly RunStep[], places: readonly PaperPlace[]) {
  const byId = new Map(steps.map(step => [step.id, step]))
  const all: { name: string; first: number; steps: RunStep[] }[] = []
  for (const { step: id, number, isPlain } of places) {
    const step = byId.get(id)
    if (!step) continue
    const name = isPlain ? step.chapter : 'Only if a box above leads here'
    const last = all.at(-1)
    if (last?.name === name) last.steps.push(step)
    else all.push({ name, first: number, steps: [step] })
  }
  return all
}

function PaperChapter({ name, open: atFirst, children }: { name: string; open: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(atFirst)
  return (
    <details open={open} onToggle={event => setOpen(event.currentTarget.open)}>
      <summary>
        <h2 className="paper-chapter">{name}</h2>
      </summary>
      {open && children}
    </details>
  )
}

type StepProps = {
  step: RunStep
  place: number
  isCurrent: boolean
  isEntered: boolean
  fill: (field: string, value: string) => void
} & Filled

const PaperStep = memo(function PaperStep({ step, place, isCurrent, isEntered, answer, text, at, fill: fillIn }: StepProps) {
  const fill = (part: keyof Filled, value: string) => fillIn(`${step.id} ${part}`, value)
  const isWritten = step.kind === 'read' || step.kind === 'scan' || step.erases
  return (
    <fieldset className="paper-step" aria-current={isCurrent ? 'step' : undefined}>
      <legend>
        <span className="mono">{place}</span> {step.say} {isEntered && <span className="chalk">[entered]</span>}
      </legend>
      <div className="row">
        {isWritten ? (
          <input
            className="paper-blank"
            aria-label={step.erases ? 'Bay and serial' : step.kind === 'scan' ? 'Serial read' : 'Written down'}
            placeholder={step.erases ? 'bay and serial' : step.kind === 'scan' ? 'serial' : (step.unit ?? '')}
            value={text}
            onChange={e => fill('text', e.currentTarget.value)}
          />
        ) : (
          step.answers.map(a => (
            <label key={a.answer} className="paper-box">
              <input
                type="checkbox"
                checked={answer === a.answer}
                onChange={e => fill('answer', e.currentTarget.checked ? a.answer : '')}
              />
              {a.answer === 'done' && step.kind === 'gate' ? 'So it is' : said(a.label || a.answer)}
            </label>
          ))
        )}
        <input
          className="paper-blank paper-time"
          aria-label="At"
          placeholder="hh:mm"
          inputMode="numeric"
          pattern={timeOfDay.source}
          title="A time of day: 14:05 or 1405"
          value={at}
          onChange={e => fill('at', e.currentTarget.value)}
        />
      </div>
    </fieldset>
  )
})
