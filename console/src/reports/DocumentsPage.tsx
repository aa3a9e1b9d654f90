import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import type { TicketPaper } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { MoveForm, TicketHead, useTicket, useTicketNumber, useWrite } from '../tickets'
import { documentAddress } from './documentAddress'
import './documents.css'

/** Every paper of a ticket: what there is to read and print, and what is not there yet and why. */
export function DocumentsPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const writer = useWrite(number)
  const head = ticket.data?.head
  const papers = useQuery({
    queryKey: ['documents', number, head], // another entry, another set of papers
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/tickets/{number}/documents', { params: { path: { number } }, signal })),
    enabled: head !== undefined,
    placeholderData: before => before,
  })
  if (!ticket.data || (!papers.data && !papers.error)) return <WaitingPage for="the documents" problem={ticket.error} />
  return (
    <main className="page">
      <TicketHead ticket={ticket.data} here="documents" />
      <Refused problem={papers.error} />
      <Papers number={number} papers={papers.data ?? []} />
      {ticket.data.moves
        .filter(move => move.move === 'mail-paper')
        .map(move => (
          <section key={move.move} className="panel stack" aria-labelledby="by-mail">
            <h2 id="by-mail">By mail</h2>
            {move.whyNot ? <p className="chalk">{move.whyNot}</p> : <MoveForm ticket={ticket.data} move={move} writer={writer} />}
            <Refused problem={writer.problem} />
          </section>
        ))}
      {ticket.data.letters.length > 0 && (
        <section className="panel" aria-labelledby="sent">
          <h2 id="sent">What went out by mail</h2>
          <ul style={{ margin: 0, paddingLeft: 20 }}>
            {ticket.data.letters.map((letter, nth) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a list that only grows, and may say the same twice
              <li key={nth}>{letter}</li>
            ))}
          </ul>
        </section>
      )}
      <p>
        What was filled in on a run sheet by hand is <Link to={`/tickets/${number}/paper`}>entered from paper</Link>; drives are sent, kept
        and destroyed under <Link to={`/tickets/${number}/return`}>parts and returns</Link>.
      </p>
    </main>
  )
}

function Papers({ number, papers }: { number: number; papers: readonly TicketPaper[] }) {
  const notYet = papers.filter(p => p.notYet)
  return (
    <>
      <section className="panel" aria-labelledby="there">
        <h2 id="there">To read and to print</h2>
        <ul style={{ margin: 0, padding: 0, listStyle: 'none' }}>
          {papers
            .filter(p => !p.notYet)
            .map(paper => (
              <li className="paper-line" key={`${paper.kind}${paper.about ?? ''}`}>
                <a href={documentAddress(number, paper)} target="_blank" rel="noreferrer">
                  {paper.title}
                </a>
                <br />
                <span className="chalk">{purpose[paper.kind]}</span>
              </li>
            ))}
        </ul>
      </section>
      {notYet.length > 0 && (
        <section className="panel" aria-labelledby="not-yet">
          <h2 id="not-yet">Not yet</h2>
          <ul style={{ margin: 0, padding: 0, listStyle: 'none' }}>
            {notYet.map(paper => (
              <li className="paper-line" key={paper.kind}>
                {paper.title}
                <br />
                <span className="chalk">{paper.notYet}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}

const purpose: Record<TicketPaper['kind'], string> = {
  'run-sheet': 'The steps, with boxes to tick and blanks to fill in by hand.',
  'delivery-note': 'What was put in and who has what came out. Both sides sign.',
  'return-label': 'For the outside of the box, 100 by 150 mm.',
  'packing-list': 'Goes into the box, with every drive in it.',
  destruction: 'How and before whose eyes it was destroyed. Signed by both.',
  retention: 'The customer keeps it and answers for it from now on. Signed by both.',
  'service-report': 'What was wrong, what was done, who has which drive.',
  proposal: 'What the customer was advised, with room to decide.',
}
