import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import type { MoveKind, RebuildView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { said } from '../shared/words'
import { MoveForm, TicketHead, useTicket, useTicketNumber, useWrite } from '../tickets'
import { RebuildChart } from './RebuildChart'

/** How far the rebuild is, and how long it may still take, as a range. */
export function RebuildPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const writer = useWrite(number)
  if (!ticket.data) return <WaitingPage for="the rebuild" problem={ticket.error} />
  const { rebuild, zone } = ticket.data
  const readings = ticket.data.moves.filter(m => ofReadings.has(m.move))
  const array = ticket.data.run?.sheet.array ?? ticket.data.danger.array
  return (
    <main className="page">
      <TicketHead ticket={ticket.data} here={array ? `rebuild of ${array}` : 'rebuild'} />
      <section className="panel now" aria-live="polite">
        <h2>{mark(rebuild)}</h2>
        <p style={{ fontSize: 20, margin: 0 }}>{rebuild.look.sentence}</p>
        {rebuild.chosen && <p style={{ margin: '8px 0 0' }}>{rebuild.chosen}</p>}
        {rebuild.look.left && (
          <p className="chalk" style={{ margin: '8px 0 0' }}>
            A range, not a promise; how often it was right is from rebuilds that were tried.
          </p>
        )}
      </section>
      <section className="panel" aria-label="Chart">
        <RebuildChart rebuild={rebuild} zone={zone ?? null} />
      </section>
      <section className="panel stack" aria-labelledby="reading">
        <h2 id="reading">Another reading</h2>
        {readings.map(move =>
          move.whyNot ? (
            <p key={move.move} className="chalk">
              {move.say}: {move.whyNot}
            </p>
          ) : (
            <MoveForm key={move.move} ticket={ticket.data} move={move} writer={writer} variant="default" />
          ),
        )}
        <Refused problem={writer.problem} />
      </section>
      <section className="panel" aria-labelledby="readings">
        <h2 id="readings">Readings</h2>
        {rebuild.readings.length === 0 && <p>None yet.</p>}
        <ol reversed style={{ fontSize: 15, margin: 0 }}>
          {rebuild.readings.toReversed().map(reading => (
            <li key={`${reading.at}${reading.percent}`}>
              <span className="mono">
                {reading.progress === 'running' ? (reading.percent != null ? `${reading.percent} %` : 'no percentage') : reading.progress}
              </span>{' '}
              {said(reading.phase)}{' '}
              <span className="chalk">
                {clock(reading.at, zone)}, {reading.source}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </main>
  )
}

const ofReadings = new Set<MoveKind>(['take-reading', 'type-reading', 'take-back-reading', 'choose-rebuild'])

const marks: Record<RebuildView['look']['state'], string> = {
  'not-seen': '◇ Not seen to start',
  'too-early': '◔ Too early to tell',
  moving: '◑ Moving',
  stalled: '◫ Stalled',
  'fell-back': '↺ Fell back',
  'read-again': '◔ Read again',
  'no-news': '◇ No news',
  done: '● Done',
  failed: '✕ Failed',
}
const mark = (rebuild: RebuildView) => marks[rebuild.look.state]
