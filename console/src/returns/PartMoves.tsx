import type { MoveKind, OfferedMove, TicketView } from '../shared/types'
import { MoveForm, type Writer } from '../tickets'
import { OtherEnds } from './OtherEnds'

const usual = [
  'issue-part',
  'open-return',
  'ask-carrier',
  'send-return',
  'book-in',
  'reserve-part',
  'give-up-part',
  'record-wipe',
] satisfies MoveKind[]

/** How a part's way ends when no box brings it where it belongs. */
const otherwise = [
  'inspect-return',
  'settle-return',
  'ask-maker',
  'keep-drive',
  'destroy-drive',
  'take-back-part',
  'write-off',
  'use-supplies',
] satisfies MoveKind[]

/** What may be done with the parts now, the next thing first, each drive for itself; and what may not, with why. */
export function PartMoves({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const next = ticket.next.move
  const ends = otherwise.filter(kind => kind !== next)
  const kinds = [...otherwise.filter(kind => kind === next), ...usual]
  const here = kinds
    .flatMap(kind => ticket.moves.filter(m => m.move === kind))
    .sort((a, b) => Number(b.move === next) - Number(a.move === next))
  const may = here.filter(m => !m.whyNot)
  const others = ticket.moves.filter(m => ends.some(kind => kind === m.move))
  const not = [...here, ...others].filter(m => m.whyNot)
  return (
    <>
      {may.map(move => (
        <section key={keyOf(move)} className={move.move === next ? 'panel now stack' : 'panel stack'}>
          <h2>{titleOf(move)}</h2>
          <MoveForm ticket={ticket} move={move} writer={writer} />
        </section>
      ))}
      <OtherEnds title="Look at" ticket={ticket} moves={others.filter(m => !m.whyNot && m.move === 'inspect-return')} writer={writer} />
      <OtherEnds title="What came of" ticket={ticket} moves={others.filter(m => !m.whyNot && m.move === 'settle-return')} writer={writer} />
      <OtherEnds
        title="Otherwise with"
        ticket={ticket}
        moves={others.filter(m => !m.whyNot && m.move !== 'settle-return' && m.move !== 'inspect-return' && m.move !== 'use-supplies')}
        writer={writer}
      />
      <OtherEnds
        title="Used up beside the drives"
        ticket={ticket}
        moves={others.filter(m => !m.whyNot && m.move === 'use-supplies')}
        writer={writer}
      />
      {not.length > 0 && (
        <details className="panel">
          <summary className="chalk">Not now, and why</summary>
          <ul style={{ margin: '8px 0 0', paddingLeft: 20 }}>
            {not.map(move => (
              <li key={keyOf(move)}>
                {titleOf(move)}: <span className="chalk">{move.whyNot}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

const keyOf = (move: OfferedMove) => `${move.move}${move.about}${move.say}`

function titleOf({ move, about, say, fields }: OfferedMove): string {
  switch (move) {
    case 'reserve-part':
      return 'Reserve a replacement'
    case 'issue-part':
      return about ? `Hand ${about} over` : 'Hand a part over'
    case 'open-return':
      return `Send ${about} back: ${say.toLowerCase()}`
    case 'send-return':
      return `Send ${about}`
    case 'ask-carrier':
      return `${say}: ${about}`
    case 'ask-maker':
      return `${about}: ${say.toLowerCase()}`
    case 'book-in':
      return fields.length > 0 ? `Book ${about} in` : `${about}: ${say.toLowerCase()}`
    case 'keep-drive':
    case 'destroy-drive':
    case 'take-back-part':
    case 'inspect-return':
    case 'settle-return':
    case 'write-off':
      return `${about}: ${say.toLowerCase()}`
    default:
      return say
  }
}
