import { useState, useTransition } from 'react'
import { Press } from '../shared/typed/Press'
import type { RunStep, RunView, TicketView } from '../shared/types'
import { said } from '../shared/words'
import type { Writer } from '../tickets'
import { CallForHelp } from './CallForHelp'
import { OtherSheet } from './OtherSheet'
import { Overrule } from './Overrule'
import { SheetList } from './SheetList'
import { whyNot } from './StepAnswers'
import { TakeBack } from './TakeBack'

type Props = { ticket: TicketView; run: RunView; step: RunStep; writer: Writer; close: () => void }

/** One door to all side ways: it is otherwise, it cannot be done, help, another sheet, one answer back. */
export function SomethingElse({ ticket, run, step, writer: plain, close }: Props) {
  const writer = closing(plain, close)
  const [whole, setWhole] = useState(false)
  const [, unhurried] = useTransition() // a long sheet is drawn bit by bit, and what is pressed meanwhile goes first
  const overruling = ticket.moves.find(m => m.move === 'overrule-step')
  const mine = whyNot(ticket, 'follow-run') === null
  return (
    <section className="run-door stack" aria-label="Something is different">
      {mine && <Otherwise run={run} step={step} writer={writer} />}
      <CallForHelp ticket={ticket.number} writer={writer} />
      {mine && <TakeBack run={run} writer={writer} />}
      {overruling?.whyNot === null && <Overrule label={overruling.say} run={run} step={step} writer={writer} />}
      {mine && <OtherSheet ticket={ticket.number} run={run} writer={writer} />}
      <Press variant="default" aria-expanded={whole} onClick={() => unhurried(() => setWhole(!whole))}>
        {whole ? 'Hide the sheet' : 'The whole sheet'}
      </Press>
      {whole && <SheetList run={run} />}
      <Press variant="subtle" onClick={close}>
        Nothing is: back to the step
      </Press>
    </section>
  )
}

/** What is done behind the door ends there: whoever did it stands at the step again. */
function closing(writer: Writer, close: () => void): Writer {
  const then = <T,>(done: T): T => {
    if (done) close()
    return done
  }
  return { ...writer, write: async (...said) => then(await writer.write(...said)), run: async errand => then(await writer.run(errand)) }
}

/** The answers that lead off the plain way. */
function Otherwise({ run, step, writer }: { run: RunView; step: RunStep; writer: Writer }) {
  const answer = (word: string) => writer.write({ kind: 'step-answered', sheet: run.sheet.id, step: step.id, answer: word })
  const opens = step.kind === 'gate' || step.kind === 'call' || step.kind === 'hold'
  const ways = step.answers.filter(a => a.answer === 'not-so' || (opens && a.answer !== 'done'))
  return (
    <>
      {ways.map(way => (
        <Press key={way.answer} variant="default" busy={writer.busy} onClick={() => answer(way.answer)}>
          {said(way.label || way.answer)}
        </Press>
      ))}
      {run.mayBeUnreadable && (
        <Press variant="default" busy={writer.busy} onClick={() => answer('unreadable')}>
          The label cannot be read
        </Press>
      )}
      {run.mayBeShown && (
        <Press
          variant="default"
          busy={writer.busy}
          onClick={() => writer.write({ kind: 'serial-shown', sheet: run.sheet.id, step: step.id })}
        >
          Show it first; that goes on record
        </Press>
      )}
    </>
  )
}
