import { Button, Textarea, TextInput } from '@mantine/core'
import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useSecond } from '../shared/time'
import { Press } from '../shared/typed/Press'
import { useDraft } from '../shared/typed/useDraft'
import type { MoveKind, RunStep, RunView, TicketView } from '../shared/types'
import { said } from '../shared/words'
import type { Writer } from '../tickets'
import { NamedAnswer } from './NamedAnswer'

/** What is asked of the machine goes by itself: it may be slow, and whoever stands before it goes on meanwhile. */
type Props = { ticket: TicketView; run: RunView; step: RunStep; writer: Writer; machine: Writer }

// The reader of codes weighs a megabyte; only who scans with the camera fetches it.
const CameraScan = lazy(() => import('../shared/scanning/CameraScan').then(part => ({ default: part.CameraScan })))

const passed = new Set(['gate', 'hold', 'call'])

/** How this kind of step is answered. */
export function StepAnswers(props: Props) {
  const { step, ticket } = props
  if (step.decides) return <Decided {...props} />
  const notYours = whyNot(ticket, 'follow-run')
  if (notYours) return <p className="run-unmet">{notYours}</p>
  if (props.run.stop) return <Stopped {...props} />
  if (passed.has(step.kind)) return <GoOn {...props} />
  if (step.erases) return <NamedAnswer {...props} />
  if (step.kind === 'scan' || step.kind === 'read') return <TextAnswer key={step.id} {...props} />
  if (step.kind === 'light') return <LightAnswer {...props} />
  return <Choices {...props} />
}

/** Doings have one answer, and a way out. Looks have several, and none is drawn as the expected one. */
function Choices({ run, step, writer }: Props) {
  const straight = step.answers.filter(a => a.answer !== 'not-so')
  return (
    <div className={straight.length === 2 ? 'run-choices two' : 'run-choices'}>
      {straight.map(answer => (
        <Press
          key={answer.answer}
          variant={straight.length === 1 ? 'filled' : 'outline'}
          busy={writer.busy}
          onClick={() => writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: answer.answer })}
        >
          {answer.answer === 'done' ? 'Done' : said(answer.label || answer.answer)}
        </Press>
      ))}
    </div>
  )
}

/** What is one role's to decide is offered to that role; others see whose it is. */
function Decided({ ticket, run, step, writer }: Props) {
  if (whyNot(ticket, 'decide-step'))
    return <p className="run-unmet">A {step.decides} decides this. Call, and say what you see: the answer comes here by itself.</p>
  return (
    <div className="run-choices">
      {step.answers.map(answer => (
        <Press
          key={answer.answer}
          variant="outline"
          busy={writer.busy}
          onClick={() => writer.write({ kind: 'step-decided', sheet: run.sheet.id, step: step.id, answer: answer.answer })}
        >
          {said(answer.label || answer.answer)}
        </Press>
      ))}
    </div>
  )
}

/** A wedge scanner types and presses Enter; so may a person. */
function TextAnswer({ run, step, writer }: Props) {
  const { fields, typed, drop } = useDraft(`answer-${run.sheet.id}-${step.id}`, { text: '' })
  const { text } = fields
  const [camera, setCamera] = useState(false)
  const answer = async (read: string) => {
    setCamera(false)
    if (await writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: read })) drop()
  }
  if (camera)
    return (
      <Suspense fallback={<p>The camera is made ready.</p>}>
        <CameraScan found={answer} close={() => setCamera(false)} />
      </Suspense>
    )
  return (
    <form
      className="stack"
      onSubmit={event => {
        event.preventDefault()
        answer(text)
      }}
    >
      {step.kind === 'read' && !step.unit ? (
        <Textarea
          label="Your answer"
          rows={3}
          autoFocus
          required
          withAsterisk={false}
          value={text}
          onChange={typed('text')}
          onKeyDown={event => {
            if (event.key !== 'Enter' || event.shiftKey) return // a new line takes Shift
            event.preventDefault()
            event.currentTarget.form?.requestSubmit()
          }}
        />
      ) : (
        <TextInput
          label={step.kind === 'scan' ? 'Scan, or type the serial' : `Your answer, in ${step.unit}`}
          description={saidTo(run, step) ?? rangeOf(step)}
          classNames={{ input: step.kind === 'scan' ? 'mono run-input' : 'run-input' }}
          autoCapitalize={step.kind === 'scan' ? 'characters' : 'sentences'}
          autoComplete="off"
          autoFocus
          required
          withAsterisk={false}
          value={text}
          onChange={typed('text')}
        />
      )}
      <Press type="submit" fullWidth busy={writer.busy}>
        {step.kind === 'scan' ? 'That is what I read' : 'Write it down'}
      </Press>
      {step.kind === 'scan' && 'mediaDevices' in navigator && (
        <Press variant="default" onClick={() => setCamera(true)}>
          Scan with the camera
        </Press>
      )}
    </form>
  )
}

/** What was said to a scan that has to be read again stands where it is read again: a phone shows little more than that. */
function saidTo(run: RunView, step: RunStep): string | undefined {
  const last = run.visits.at(-1)
  return step.kind === 'scan' && last?.step === step.id ? (last.said ?? undefined) : undefined
}

function rangeOf(step: RunStep): string | undefined {
  if (!step.unit) return undefined
  const parts = [step.atLeast != null ? `at least ${step.atLeast}` : '', step.atMost != null ? `at most ${step.atMost}` : '']
  return parts.filter(Boolean).join(', ') || undefined
}

/** The service can switch the light where it reaches the machine; elsewhere a hand did it. */
function LightAnswer({ ticket, run, step, writer, machine }: Props) {
  const on = step.records === 'light-on'
  const stillHere = useStillHere()
  const done = () => writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: 'done' })
  return (
    <div className="run-choices">
      {ticket.reachable && (
        <Press
          busy={machine.busy || writer.busy}
          onClick={async () => {
            if ((await machine.run({ errand: 'light', on })) && stillHere.current) await done()
          }}
        >
          Switch it {on ? 'on' : 'off'} for me
        </Press>
      )}
      <Press variant={ticket.reachable ? 'default' : 'filled'} busy={writer.busy} onClick={done}>
        I did it by hand
      </Press>
    </div>
  )
}

/** Gates, holds and calls open by themselves when what they ask for is so. */
function GoOn(props: Props) {
  const { run, step, writer } = props
  const left = useHoldLeft(run, step)
  const shut = left > 0 || (run.unmet !== null && step.kind !== 'hold')
  const elsewhere = step.answers.filter(a => a.answer !== 'done' && a.answer !== 'not-so')
  return (
    <div className="stack">
      {left > 0 ? (
        <p className="run-clock mono" role="timer">
          {Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')}
        </p>
      ) : (
        step.kind !== 'hold' && run.unmet && <p className="run-unmet">Not yet: {run.unmet}</p>
      )}
      {step.kind === 'gate' && shut && <GateHelp {...props} />}
      <div className="run-choices">
        <Press disabled={shut} busy={writer.busy} onClick={() => writer.write({ kind: 'step-passed', sheet: run.sheet.id, step: step.id })}>
          {run.endsHere ? 'End the run here' : 'Go on'}
        </Press>
        {shut &&
          elsewhere.map(answer => (
            <Press
              key={answer.answer}
              variant="default"
              busy={writer.busy}
              onClick={() => writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: answer.answer })}
            >
              {said(answer.label || answer.answer)}
            </Press>
          ))}
      </div>
    </div>
  )
}

/** What was recorded so far does not allow the step. A new look may, and a lead's word does. */
function Stopped(props: Props) {
  return (
    <div className="stack" role="alert">
      <p className="run-unmet">Stop: {props.run.stop} Call a lead: with their word you may go on.</p>
      <GateHelp {...props} />
    </div>
  )
}

/** What usually opens a gate, one press away. */
function GateHelp({ ticket, run, step, writer, machine }: Props) {
  return (
    <div className="gate-help">
      {ticket.reachable && (
        <Press variant="default" busy={machine.busy} onClick={() => machine.run({ errand: 'snapshot' })}>
          Take a snapshot
        </Press>
      )}
      <Button variant="default" component={Link} to={`/tickets/${ticket.number}/snapshot`}>
        Type what you see
      </Button>
      {step.gate === 'light-off' && (
        <Press
          variant="default"
          busy={machine.busy || writer.busy}
          onClick={() =>
            ticket.reachable ? machine.run({ errand: 'light', on: false }) : writer.write({ kind: 'locator-switched', on: false })
          }
        >
          Light off
        </Press>
      )}
      {run.waitsForRebuild && (
        <Button variant="default" component={Link} to={`/tickets/${ticket.number}/rebuild`}>
          See the rebuild
        </Button>
      )}
    </div>
  )
}

/** Why a move may not be made by whoever looks; null where it may. Core says so. */
export const whyNot = (ticket: TicketView, kind: MoveKind): string | null => {
  const move = ticket.moves.find(m => m.move === kind)
  return move ? move.whyNot : 'That is not asked for at this step.'
}

/** Whether the step is still the one that is shown: what a slow machine did at last answers no other. */
function useStillHere() {
  const here = useRef(true)
  useEffect(
    () => () => {
      here.current = false
    },
    [],
  )
  return here
}

/** Whole seconds left of a hold, on the service's clock; 0 where none runs. */
function useHoldLeft(run: RunView, step: RunStep): number {
  const until = step.kind === 'hold' && step.seconds ? Date.parse(run.since) + step.seconds * 1000 : 0
  const now = useSecond(until > 0)
  return Math.max(0, Math.ceil((until - now) / 1000))
}
