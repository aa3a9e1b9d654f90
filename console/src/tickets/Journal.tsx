import { Button } from '@mantine/core'
import { clock } from '../shared/time'
import type { Entry, TicketView } from '../shared/types'
import { useJournal } from './ticketQueries'
import './journal.css'

/** Everything recorded, newest first, in order of arrival. */
export function Journal({ ticket }: { ticket: TicketView }) {
  const journal = useJournal(ticket.number)
  const entries = journal.data?.pages.flatMap(page => page.entries) ?? []
  const told = journal.data?.pages.flatMap(page => page.told ?? []) ?? []
  const unread = new Map(journal.data?.pages.flatMap(page => page.unread ?? []).map(u => [u.seq, u.why]))
  return (
    <section className="panel" aria-labelledby="journal">
      <h2 id="journal">Journal</h2>
      {journal.isError && <p role="alert">{journal.error.message}</p>}
      <ol className="journal" reversed>
        {entries
          .map((entry, nth) => ({ entry, told: told[nth] }))
          .toReversed()
          .map(({ entry, told }) => (
            <li key={entry.id}>
              <span className="chalk">
                {clock(entry.at, ticket.zone)} {entry.by}
                {isLate(entry) && ' · written down later'}
              </span>
              <br />
              {unread.has(entry.seq) ? <Unread body={entry.body} why={unread.get(entry.seq) ?? ''} /> : told}
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

/** What this version cannot read is shown as it was written, in its place. */
function Unread({ body, why }: { body: unknown; why: string }) {
  return (
    <>
      <strong>◇ Cannot be read by this version</strong> ({why.replace(/\.$/, '')}):{' '}
      <code className="mono" style={{ overflowWrap: 'anywhere' }}>
        {JSON.stringify(body)}
      </code>
    </>
  )
}

const isLate = (entry: Entry) => Date.parse(entry.recordedAt) - Date.parse(entry.at) - entry.clockOffsetMs > 120_000
