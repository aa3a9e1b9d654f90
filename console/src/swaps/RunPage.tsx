import { Button } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { Chassis } from '../appliances'
import { useMe } from '../people'
import { Refused } from '../shared/Refused'
import { Press } from '../shared/typed/Press'
import type { RunStep, RunView, TicketView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { said, ticketName } from '../shared/words'
import { TakePhoto, TicketHead, useTicket, useTicketNumber, useWrite, type Writer } from '../tickets'
import { ReadBeside } from './paper/ReadBeside'
import { RunningLimits } from './RunningLimits'
import { SheetList } from './SheetList'
import { SomethingElse } from './SomethingElse'
import { StepAnswers } from './StepAnswers'
import './run.css'

/** The run sheet, one step to a screen. */
export function RunPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  if (!ticket.data) return <WaitingPage for="the run sheet" problem={ticket.error} />
  const { run } = ticket.data
  if (!run)
    return (
      <main className="page">
        <TicketHead ticket={ticket.data} here="run sheet" />
        <p>There is no run sheet yet; the ticket page starts it.</p>
      </main>
    )
  return run.current ? <Step ticket={ticket.data} run={run} step={run.current} /> : <AtTheEnd ticket={ticket.data} run={run} />
}

function Step({ ticket, run, step }: { ticket: TicketView; run: RunView; step: RunStep }) {
  const aside = useWrite(ticket.number)
  return (
    <main className="page run">
      <RunHead ticket={ticket} run={run} />
      <div className="run-middle">
        <AboutTheRun run={run} />
        {run.outdated && (
          <section className="panel ochre stack" role="alert" aria-label="Another sheet fits now">
            <span>▲ {run.outdated} What was done is carried over.</span>
            <Press busy={aside.busy} onClick={() => aside.run({ errand: 'sheet' })}>
              Go on with that sheet
            </Press>
          </section>
        )}
        {/* A new step is announced, and read from its beginning. */}
        <section className="panel now" aria-live="polite" aria-labelledby="say" tabIndex={-1} ref={useFocusOn(step.id)}>
          <p id="say" className="run-say">
            {step.say}
          </p>
        </section>
        {run.heard && <Heard call={run.heard} />}
        {run.lastScan && <ReadBeside scan={run.lastScan} />}
        {step.points !== 'nothing' && step.points && ticket.latest && (
          <Chassis
            brief
            lit={step.points === 'chassis'}
            snapshot={ticket.latest}
            verdicts={ticket.danger.verdicts}
            drawing={ticket.drawing}
            target={run.bay}
            zone={ticket.zone ?? null}
          />
        )}
        <StepTold step={step} answer={step.kind === 'scan' ? null : lastSaid(run, step)} />
        {run.mapWarning && <p className="panel ochre">▲ {run.mapWarning}</p>}
        <DoesNotAgree sentences={run.doesNotAgree ?? []} />
        {run.then && <p className="run-then">Then: {run.then}</p>}
      </div>
      <RunFoot key={step.id} ticket={ticket} run={run} step={step} aside={aside} />
    </main>
  )
}

/** Which ticket, which chapter, and how many there are: what a hand does not need is elsewhere. */
function RunHead({ ticket, run }: { ticket: TicketView; run: RunView }) {
  const { place } = run
  return (
    <header className="run-head">
      <h1>
        <Link to={`/tickets/${ticket.number}`} className="mono">
          {ticketName(ticket.number)}
        </Link>{' '}
        {place?.chapter}
      </h1>
      {place && (
        <ol className="run-chapters" aria-label={`Chapter ${place.nth} of ${place.count}`}>
          {Array.from({ length: place.count }, (_, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a chapter is known by its place
            <li key={i} className={i + 1 < place.nth ? 'done' : i + 1 === place.nth ? 'here' : undefined} />
          ))}
        </ol>
      )}
    </header>
  )
}

/** One or two answers where the thumb is, one door to everything else, and a picture at hand. */
function RunFoot({ ticket, run, step, aside }: { ticket: TicketView; run: RunView; step: RunStep; aside: Writer }) {
  const [door, setDoor] = useState(false)
  return (
    <div className="run-foot">
      {door ? (
        <SomethingElse ticket={ticket} run={run} step={step} writer={aside} close={() => setDoor(false)} />
      ) : (
        <>
          <Answering ticket={ticket} run={run} step={step} />
          <div className="run-aside">
            <Press variant="default" aria-expanded={false} onClick={() => setDoor(true)}>
              Something is different
            </Press>
            <TakePhoto step={step.id} writer={aside} />
          </div>
        </>
      )}
      <Refused problem={aside.problem} />
    </div>
  )
}

/** What contradicts is said where it arises, while whoever was there still knows. */
function DoesNotAgree({ sentences }: { sentences: readonly string[] }) {
  if (sentences.length === 0) return null
  return (
    <section className="panel ochre" aria-label="What does not agree">
      {sentences.map(sentence => (
        <p key={sentence} style={{ margin: '2px 0' }}>
          ▲ {sentence} A lead settles it before the end.
        </p>
      ))}
    </section>
  )
}

/** What holds for the whole run, whatever its step: clocks, a version that was withdrawn, a sheet that waits, somebody else at it. */
function AboutTheRun({ run }: { run: RunView }) {
  return (
    <>
      <RunningLimits run={run} />
      {run.withdrawn && (
        <p role="alert" className="panel brick">
          ▲ This version of the procedure was withdrawn: {run.withdrawn} Call before you go on.
        </p>
      )}
      {run.interrupts && <p className="chalk">After this, "{run.interrupts}" goes on where it was left.</p>}
      <Others run={run} />
    </>
  )
}

/** What a lead answered stands where it was asked, until the run has gone on from there. */
function Heard({ call }: { call: NonNullable<RunView['heard']> }) {
  return (
    <section className={call.goAhead ? 'panel' : 'panel danger'} aria-label="The lead's answer">
      <strong>
        {call.answeredBy}: {call.goAhead ? 'go on' : 'do not go on'}.
      </strong>{' '}
      {call.answer}
      <div className="chalk">
        Asked by {call.by}: {call.reason}
      </div>
    </section>
  )
}

/** After a step the next one has the focus, unless it has a field that takes what is typed, or scanned, at once. */
function useFocusOn(step: string) {
  const place = useRef<HTMLElement>(null)
  const shown = useRef(step)
  useEffect(() => {
    if (shown.current === step) return
    shown.current = step
    if (!(document.activeElement instanceof HTMLInputElement || document.activeElement instanceof HTMLTextAreaElement))
      place.current?.focus()
  }, [step])
  return place
}

/** Two people at one step: whoever comes second is told who was first, and with which answer. */
function Others({ run }: { run: RunView }) {
  const me = useMe()
  const seen = useRef(run.visits.length)
  const [theirs, setTheirs] = useState<string | null>(null)
  const last = run.visits.at(-1)
  useEffect(() => {
    if (run.visits.length > seen.current && last)
      setTheirs(
        last.by === me.data?.name
          ? null
          : `${last.by} ${last.overruled ? 'overruled' : `answered '${said(last.answer)}' at`} ${last.step}.`,
      )
    seen.current = run.visits.length
  }, [run.visits.length, last, me.data?.name])
  if (!theirs) return null
  return (
    <p role="status" className="panel ochre">
      ▲ {theirs} The run went on; this is the next step.
    </p>
  )
}

/** What is typed and refused at a step ends with it. */
function Answering({ ticket, run, step }: { ticket: TicketView; run: RunView; step: RunStep }) {
  const writer = useWrite(ticket.number)
  const machine = useWrite(ticket.number)
  return (
    <>
      <StepAnswers ticket={ticket} run={run} step={step} writer={writer} machine={machine} />
      <Refused problem={writer.problem} />
      <Refused problem={machine.problem} />
    </>
  )
}

function AtTheEnd({ ticket, run }: { ticket: TicketView; run: RunView }) {
  return (
    <main className="page">
      <TicketHead ticket={ticket} here="run sheet" />
      <section className="panel now">
        <p className="run-say">{run.handedOver ? 'The run was handed over.' : 'The run is at its end.'}</p>
        <p>
          {ticket.next.who}: {ticket.next.say}
        </p>
        <Button component={Link} to={`/tickets/${ticket.number}`}>
          Back to the ticket
        </Button>
      </section>
      <SheetList run={run} />
    </main>
  )
}

/** What was said to the last answer, what one should see and hear, what if not, and what is no reason to worry. */
function StepTold({ step, answer }: { step: RunStep; answer: string | null }) {
  const silent = !answer && !step.see && !step.hear && !step.ifNot && !step.with?.length && !step.normalNow?.length
  if (silent) return null
  return (
    <section className="panel run-expect" aria-label="What to expect">
      <Told name={step.kind === 'look' ? 'Look for' : 'Then you see'} text={step.see} />
      <Told name="And hear" text={step.hear} />
      <Told name="If not" text={step.ifNot} />
      <Told name="Say" text={step.with?.join(', ')} />
      {(step.normalNow?.length ?? 0) > 0 && (
        <div className="run-told">
          <b>Normal now</b>
          <ul>
            {step.normalNow?.map(normal => (
              <li key={normal}>{normal}</li>
            ))}
          </ul>
        </div>
      )}
      {answer && (
        <p role="status" className="run-told ochre">
          <b>{answer}</b>
        </p>
      )}
    </section>
  )
}

function Told({ name, text }: { name: string; text: string | null | undefined }) {
  if (!text) return null
  return (
    <p className="run-told">
      <b>{name}</b> {text}
    </p>
  )
}

/** What was said to the last answer at this very step: a serial read in part leaves one where one is. */
function lastSaid(run: RunView, step: RunStep): string | null {
  const last = run.visits.at(-1)
  return last && (last.step === step.id || last.branch === 'different') ? (last.said ?? null) : null
}
