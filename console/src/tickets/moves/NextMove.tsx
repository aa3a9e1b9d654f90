import { Button } from '@mantine/core'
import { Link } from 'react-router'
import { Refused } from '../../shared/Refused'
import type { OfferedMove, TicketView } from '../../shared/types'
import type { Writer } from '../ticketQueries'
import { MoveForm } from './MoveForm'
import { pageOf } from './pageOf'

/** Whose turn it is, what to do, and what does it: offered to who may, told to everybody else. */
export function NextMove({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  return (
    <section className="panel now" aria-labelledby="next">
      <h2 id="next">Next: {ticket.next.who}</h2>
      <p style={{ fontSize: 20, margin: '0 0 12px' }}>{ticket.next.say}</p>
      <Doing ticket={ticket} writer={writer} />
      <Refused problem={writer.problem} />
    </section>
  )
}

// Parts have a page of their own: what lies where is seen there, and decided from it.
const onPartsPage = { 'reserve-part': 'What to bring', 'issue-part': 'Parts and returns', 'open-return': 'Parts and returns' } as const

// The same thing done in another way: typed where the machine is silent, given by whoever is no engineer.
const otherWay = { 'take-snapshot': 'type-snapshot', take: 'assign' } as const

function Doing({ ticket, writer }: { ticket: TicketView; writer: Writer }) {
  const { move } = ticket.next
  if (move === 'nothing') return null
  if (move === 'no-swap')
    return (
      <p className="chalk" style={{ margin: 0 }}>
        Call a lead below; their go-ahead makes it an ordinary ticket. Or cancel it, with what was agreed.
      </p>
    )
  const offered = ticket.moves.filter(m => m.move === move || m.move === otherWay[move as keyof typeof otherWay])
  const may = offered.filter(m => !m.whyNot)
  if (may.length === 0) return <NotYours why={offered[0]?.whyNot ?? null} />
  if (move === 'reserve-part' || move === 'issue-part' || move === 'open-return' || move === 'send-return' || move === 'book-in')
    return (
      <Button component={Link} to={pageOf(ticket.number, move)}>
        {move in onPartsPage ? onPartsPage[move as keyof typeof onPartsPage] : 'Parts and returns'}
      </Button>
    )
  return <Several ticket={ticket} moves={may} writer={writer} />
}

/** Moves without fields stand in a row, the first one filled; each with fields has its own form, told what it is about. */
function Several({ ticket, moves, writer }: { ticket: TicketView; moves: readonly OfferedMove[]; writer: Writer }) {
  const plain = moves.filter(m => m.fields.length === 0)
  return (
    <div className="stack">
      {plain.length > 0 && (
        <div className="row">
          {plain.map((move, nth) => (
            <MoveForm key={move.say} ticket={ticket} move={move} writer={writer} variant={nth === 0 ? 'filled' : 'default'} />
          ))}
        </div>
      )}
      {moves
        .filter(m => m.fields.length > 0)
        .map(move => (
          <div key={`${move.about}${move.say}`}>
            {move.move === 'settle' && <p style={{ margin: '0 0 8px', fontWeight: 700 }}>◆ {discrepancy(ticket, move)}</p>}
            <MoveForm ticket={ticket} move={move} writer={writer} />
          </div>
        ))}
    </div>
  )
}

const discrepancy = (ticket: TicketView, move: OfferedMove) => ticket.discrepancies.find(d => d.id === move.about)?.sentence

function NotYours({ why }: { why: string | null }) {
  return (
    <p className="chalk" style={{ margin: 0 }}>
      {why ?? 'Nothing here is for you to do now.'}
    </p>
  )
}
