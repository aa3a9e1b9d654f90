import { Button } from '@mantine/core'
import { clock } from '../shared/time'
import type { Entry, TicketView } from '../shared/types'
import { told } from './journalTold'
import { useJournal } from './ticketQueries'
import './journal.css'

/** Everything recorded, newest first, in order of arrival. */
export function Journal({ ticket }: { ticket: TicketView }) {
  const journal = useJournal(ticket.number)
  const entries = journal.data?.pages.flatMap(page => page.entries) ?? []
  return (
    <section className="panel" aria-labelledby="journal">
      <h2 id="journal">Journal</h2>
      {journal.isError && <p role="alert">{journal.error.message}</p>}
      <ol className="journal" reversed>
        {entries.toReversed().map(entry => (
          <li key={entry.id}>
            <span className="chalk">
              {clock(entry.at, ticket.zone)} {entry.by}
              {isLate(entry) && ' · written down later'}
            </span>
            <br />
            {told(entry.body)}
          </li>
        ))}
      </ol>
      {journal.hasNextPage && (
        <Button variant="default" onClick={() => journal.fetchNextPage()} loading={journal.isFetchingNextPage}>
          More
        </Button>
      )}
    </section>
  )
}

const isLate = (entry: Entry) => Date.parse(entry.recordedAt) - Date.parse(entry.at) - entry.clockOffsetMs > 120_000
