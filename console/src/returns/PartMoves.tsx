import type { MoveKind, OfferedMove, TicketView } from '../shared/types'
import { MoveForm, type Writer } from '../tickets'

const partMoves = [
  'issue-part',
  'open-return',
  'send-return',
  'book-in',
  'reserve-part',
  'give-up-part',
  'record-wipe',
] satisfies MoveKind[]

/** What may be done with the parts now, each drive for itself; and what may not, with why. */
export function PartMoves({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const here = partMoves.flatMap(kind => ticket.moves.filter(m => m.move === kind))
  const may = here.filter(m => !m.whyNot)
  const not = here.filter(m => m.whyNot)
  return (
    <>
      {may.map(move => (
        <section
          key={`${move.move}${move.about}${move.say}`}
          className={move.move === ticket.next.move ? 'panel now stack' : 'panel stack'}
        >
          <h2>{titleOf(move)}</h2>
          <MoveForm ticket={ticket} move={move} writer={writer} />
        </section>
      ))}
      {not.length > 0 && (
        <details className="panel">
          <summary className="chalk">Not now, and why</summary>
          <ul style={{ margin: '8px 0 0', paddingLeft: 20 }}>
            {not.map(move => (
              <li key={`${move.move}${move.about}${move.say}`}>
                {titleOf(move)}: <span className="chalk">{move.whyNot}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

function titleOf({ move, about, say }: OfferedMove): string {
  switch (move) {
    case 'reserve-part':
      return 'Reserve a replacement'
    case 'issue-part':
      return about ? `Hand ${about} over` : 'Hand a part over'
    case 'open-return':
      return `Send ${about} back: ${say.toLowerCase()}`
    case 'send-return':
      return `Send ${about}`
    case 'book-in':
      return `Book ${about} in`
    default:
      return say
  }
}
