import { Button } from '@mantine/core'
import { useState } from 'react'
import { clock } from '../../shared/time'
import type { TicketView } from '../../shared/types'
import { useJournal } from '../ticketQueries'
import { PutRight } from './PutRight'
import { type Chapter, story, type Told, toldBy } from './story'
import './journal.css'

/** Everything recorded, newest first: by days, a run's answers as one row that opens, decisions standing out. */
export function Journal({ ticket }: { ticket: TicketView }) {
  const journal = useJournal(ticket.number)
  const pages = journal.data?.pages ?? []
  const unread = new Map(pages.flatMap(page => page.unread ?? []).map(u => [u.seq, u.why]))
  return (
    <section className="panel" aria-labelledby="journal">
      <h2 id="journal">Journal</h2>
      {journal.isError && <p role="alert">{journal.error.message}</p>}
      {story(toldBy(pages), ticket.zone).map(({ day, chapters }) => (
        <div key={day}>
          <h3 className="journal-day">{day}</h3>
          <ol className="journal">
            {chapters.map(chapter => (
              <ChapterRow key={chapter.told[0]?.entry.id} chapter={chapter} ticket={ticket} unread={unread} />
            ))}
          </ol>
        </div>
      ))}
      {journal.hasNextPage && (
        <Button variant="default" onClick={() => journal.fetchNextPage()} loading={journal.isFetchingNextPage}>
          More
        </Button>
      )}
    </section>
  )
}

type Known = { ticket: TicketView; unread: Map<number, string> }

function ChapterRow({ chapter, ...known }: Known & { chapter: Chapter }) {
  const [newest] = chapter.told
  if (!newest) return null
  if (chapter.told.length === 1) return <EntryRow told={newest} {...known} />
  const oldest = chapter.told.at(-1) ?? newest
  return (
    <li>
      <details>
        <summary>
          <span className="mono chalk">
            {timeOf(oldest, known.ticket)}–{timeOf(newest, known.ticket)}
          </span>{' '}
          {chapter.told.length} {chapter.name}
          <span className="chalk">, last: {newest.told}</span>
        </summary>
        <ol className="journal">
          {chapter.told.map(told => (
            <EntryRow key={told.entry.id} told={told} {...known} />
          ))}
        </ol>
      </details>
    </li>
  )
}

function EntryRow({ told, ticket, unread }: Known & { told: Told }) {
  const { entry, row, corrected } = told
  const [opened, setOpened] = useState(false)
  const why = unread.get(entry.seq)
  return (
    <li className={row?.isDecision ? 'decision' : undefined}>
      <span className="chalk">
        <span className="mono">{timeOf(told, ticket)}</span> {entry.by}
        {isLate(told) && ` · written down later, at ${clock(entry.recordedAt, ticket.zone)}`}
      </span>{' '}
      {why !== undefined ? <Unread body={entry.body} why={why} /> : corrected ? <s>{told.told}</s> : told.told}
      {corrected && (
        <p className="put-right">
          {corrected.instead ?? (corrected.happenedAt ? `It was at ${clock(corrected.happenedAt, ticket.zone)}` : 'It was not so')}.{' '}
          <span className="chalk">
            {corrected.by}: {corrected.because}
          </span>
        </p>
      )}
      {row?.mayBePutRight && (
        <button type="button" className="quiet" aria-expanded={opened} onClick={() => setOpened(!opened)}>
          put right
        </button>
      )}
      {opened && <PutRight ticket={ticket} seq={entry.seq} done={() => setOpened(false)} />}
    </li>
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

/** The hour as it was at the site; the day stands above. */
const timeOf = ({ entry }: Told, ticket: TicketView): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: ticket.zone ?? 'UTC', hour: '2-digit', minute: '2-digit' }).format(new Date(entry.at))

const isLate = ({ entry }: Told) => Date.parse(entry.recordedAt) - Date.parse(entry.at) - entry.clockOffsetMs > 120_000
