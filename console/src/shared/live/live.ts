import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'

export type Contact = 'connecting' | 'live' | 'lost'

const heard = (ticket: number) => ['heard', ticket]

/** The live stream has told of an entry that the ticket, as it was last fetched, has not. */
export function isBehind(client: QueryClient, ticket: number): boolean {
  const head = client.getQueryData<{ head: number }>(['tickets', ticket])?.head ?? 0
  return head < (client.getQueryData<number>(heard(ticket)) ?? 0)
}

// The service says each second that it is still there; twice missed, and nobody may call this live any more.
const silentAtMost = 2_400
const lookEvery = 400

// What is not heard of for this long is not going to be heard of: the connection is made anew.
const deadAfter = 8_000
const longestWait = 15_000

// In a storm of thousands of entries the lists are asked for again this often, not thousands of times.
const listsEvery = 2_000

/** Follows the journal as it grows, and says whether anything is heard. It comes back after any answer and any silence, from where it was. */
export function useLive(): Contact {
  const client = useQueryClient()
  const [contact, setContact] = useState<Contact>('connecting')
  useEffect(() => {
    const line = new Line(client, setContact)
    return () => line.close()
  }, [client])
  return contact
}

/** One connection to the journal's news, kept up. */
class Line {
  private stream: EventSource | null = null
  private last: string | null = null
  private heardAt = Date.now()
  private nextTry = 0
  private failures = 0
  private listsDue: ReturnType<typeof setTimeout> | undefined
  private readonly looking: ReturnType<typeof setInterval>

  constructor(
    private readonly client: QueryClient,
    private readonly tell: (contact: Contact) => void,
  ) {
    this.connect()
    this.looking = setInterval(() => this.look(), lookEvery)
  }

  close() {
    clearInterval(this.looking)
    clearTimeout(this.listsDue)
    this.stream?.close()
  }

  private connect() {
    this.stream?.close()
    const stream = new EventSource(this.last === null ? '/api/live' : `/api/live?after=${this.last}`)
    for (const kind of ['entry', 'still-here', 'going']) stream.addEventListener(kind, event => this.hear(event))
    this.stream = stream
    this.nextTry = Date.now() + deadAfter
  }

  private hear(event: MessageEvent) {
    const wasLost = this.failures > 0 || Date.now() - this.heardAt > silentAtMost
    this.heardAt = Date.now()
    this.failures = 0
    this.last = event.lastEventId || this.last
    this.tell('live')
    if (wasLost) void this.client.invalidateQueries()
    if (event.type === 'entry') this.entered(JSON.parse(event.data) as { ticket: number; seq: number })
  }

  private entered(entry: { ticket: number; seq: number }) {
    this.client.setQueryData(heard(entry.ticket), entry.seq)
    // Whoever writes asks for the ticket when the write is over; asking twice is twice the work for a phone.
    if (this.client.isMutating({ mutationKey: ['tickets', entry.ticket] }) === 0 && isBehind(this.client, entry.ticket))
      void this.client.invalidateQueries({ queryKey: ['tickets', entry.ticket] })
    this.listsDue ??= setTimeout(() => {
      this.listsDue = undefined
      void this.client.invalidateQueries({ queryKey: ['tickets', 'list'] })
    }, listsEvery)
  }

  /** What the browser says of a connection is not believed: only what is heard counts. */
  private look() {
    const now = Date.now()
    if (now - this.heardAt <= silentAtMost) return
    this.tell('lost')
    if (this.stream?.readyState !== EventSource.CLOSED && now < this.nextTry) return
    if (this.failures > 0 && now < this.nextTry) return
    this.failures += 1
    this.connect()
    this.nextTry = now + Math.min(longestWait, 1_000 * 2 ** Math.min(this.failures, 4))
    // Whether it was the sign-in that ended is not told by a stream; the next question tells.
    void this.client.invalidateQueries({ queryKey: ['me'] })
  }
}
