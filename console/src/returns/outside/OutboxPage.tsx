import { Button } from '@mantine/core'
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMay } from '../../people'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { clock } from '../../shared/time'
import type { Errand } from '../../shared/types'
import { WaitingPage } from '../../shared/Waiting'
import { said, ticketName } from '../../shared/words'
import { PartnerList } from './PartnerList'

/** What still has to be said to carriers and makers, what could not be, and who they are. */
export function OutboxPage() {
  const [state, setState] = useState<string | null>(null)
  const outbox = useInfiniteQuery({
    queryKey: ['outbox', state],
    queryFn: async ({ signal, pageParam }) =>
      unwrap(
        await api.GET('/api/outbox', {
          params: { query: { ...(state ? { state } : {}), ...(pageParam ? { after: pageParam } : {}) } },
          signal,
        }),
      ),
    initialPageParam: '',
    getNextPageParam: page => page.next,
    refetchInterval: 5_000,
  })
  if (!outbox.data) return <WaitingPage for="what goes out" problem={outbox.error} />
  const errands = outbox.data.pages.flatMap(page => page.errands)
  const counts = outbox.data.pages[0]?.counts ?? {}
  return (
    <main className="page wide">
      <h1>Going out</h1>
      <nav className="row" aria-label="Which of them">
        <Button variant={state === null ? 'filled' : 'default'} size="xs" onClick={() => setState(null)}>
          still to be said
        </Button>
        {Object.entries(counts).map(([word, count]) => (
          <Button key={word} variant={state === word ? 'filled' : 'default'} size="xs" onClick={() => setState(word)}>
            {said(word)} {count}
          </Button>
        ))}
        <span className="chalk">done and not wanted: the last 30 days</span>
      </nav>
      <section className="panel" aria-label="What goes out">
        {errands.length === 0 && (
          <p className="chalk" style={{ margin: 0 }}>
            {state ? 'None.' : 'Nothing. Everything that had to be said was said.'}
          </p>
        )}
        {errands.map(errand => (
          <Going key={errand.id} errand={errand} />
        ))}
        {outbox.hasNextPage && (
          <Button variant="default" loading={outbox.isFetchingNextPage} onClick={() => outbox.fetchNextPage()}>
            Show more
          </Button>
        )}
      </section>
      <PartnerList />
    </main>
  )
}

const shapes: Record<string, string> = { waiting: '◑', done: '●', 'given-up': '✕', 'not-wanted': '○' }

/** One errand: to whom, how often it was tried, and what was answered. */
function Going({ errand }: { errand: Errand }) {
  const may = useMay('send-again')
  const client = useQueryClient()
  const again = useMutation({
    mutationFn: async () => unwrap(await api.POST('/api/outbox/{id}/again', { params: { path: { id: errand.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ['outbox'] }),
  })
  const open = errand.state === 'waiting' || errand.state === 'given-up'
  return (
    <div className="part-line">
      <Link to={`/tickets/${errand.ticket}/return`}>{ticketName(errand.ticket)}</Link> {errand.what}:{' '}
      <strong>
        {shapes[errand.state]} {said(errand.state)}
      </strong>
      {errand.tries > 0 && `, tried ${errand.tries === 1 ? 'once' : `${errand.tries} times`}`}
      {errand.nextAt && `, next at ${clock(errand.nextAt, null)}`}
      {errand.says && (
        <>
          <br />
          <span className="chalk">{errand.says}</span>
        </>
      )}
      {open && may && (
        <div style={{ marginTop: 6 }}>
          <Button size="xs" variant="default" loading={again.isPending} onClick={() => again.mutate()}>
            Send it again now
          </Button>
        </div>
      )}
      <Refused problem={again.error} />
    </div>
  )
}
