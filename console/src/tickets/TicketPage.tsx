import { Chassis } from '../appliances'
import { WaitingPage } from '../shared/Waiting'
import { DangerPanel } from './DangerPanel'
import { ChooseDrives } from './moves/ChooseDrives'
import { Closing } from './moves/Closing'
import { NextMove } from './moves/NextMove'
import { OtherMoves } from './moves/OtherMoves'
import { Journal } from './story/Journal'
import { TicketFacts } from './TicketFacts'
import { TicketHead } from './TicketHead'
import { useTicket, useTicketNumber, useWrite } from './ticketQueries'
import './ticketPage.css'

export function TicketPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const writer = useWrite(number)
  if (!ticket.data) return <WaitingPage for="the ticket" problem={ticket.error} />
  const view = ticket.data
  return (
    <main className="page wide">
      <TicketHead ticket={view} />
      <div className="ticket-columns">
        <div>
          <NextMove ticket={view} writer={writer} />
          <DangerPanel ticket={view} />
          <ChooseDrives ticket={view} />
          {view.latest && (
            <Chassis
              snapshot={view.latest}
              verdicts={view.danger.verdicts}
              drawing={view.drawing}
              target={view.targetBay}
              zone={view.zone ?? null}
            />
          )}
        </div>
        <div>
          <TicketFacts ticket={view} />
          <Closing ticket={view} />
          <OtherMoves ticket={view} />
          <Journal ticket={view} />
        </div>
      </div>
    </main>
  )
}
