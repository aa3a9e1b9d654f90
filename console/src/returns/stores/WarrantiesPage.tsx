import { Button, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, unwrap } from '../../shared/api'
import { WaitingPage } from '../../shared/Waiting'

/** Until when drives are exchanged by their makers: from the firm's list, and what makers answered since. */
export function WarrantiesPage() {
  const [typed, setTyped] = useState('')
  const [find] = useDebouncedValue(typed.trim(), 300)
  const warranties = useInfiniteQuery({
    queryKey: ['warranties', find],
    queryFn: async ({ signal, pageParam }) =>
      unwrap(
        await api.GET('/api/warranties', {
          params: { query: { ...(find ? { find } : {}), ...(pageParam ? { after: pageParam } : {}) } },
          signal,
        }),
      ),
    initialPageParam: '',
    getNextPageParam: page => page.next,
    placeholderData: before => before,
  })
  if (!warranties.data) return <WaitingPage for="warranties" problem={warranties.error} />
  const lines = warranties.data.pages.flatMap(page => page.warranties)
  return (
    <main className="page wide">
      <h1>Warranties</h1>
      <TextInput
        label="Serial or drive model"
        placeholder="a serial's beginning or end, any part of a model"
        value={typed}
        onChange={e => setTyped(e.currentTarget.value)}
        style={{ maxWidth: 360 }}
      />
      <section className="panel" aria-label="Warranties, those that end first first">
        {lines.length === 0 && (
          <p className="chalk" style={{ margin: 0 }}>
            Nothing is known of {find ? `“${find}”` : 'any warranty'}. A list of them is brought in under{' '}
            <Link to="/lists">Lists in and out</Link>; what makers answer comes by itself.
          </p>
        )}
        {lines.map(({ known, says, ended }) => (
          <p key={known.serial ?? known.model} className="part-line" style={{ margin: 0 }}>
            {known.serial ? (
              <Link className="mono" to={`/drives/${known.serial}`}>
                {known.serial}
              </Link>
            ) : (
              <strong>every {known.model}</strong>
            )}
            : {ended && '✕ '}
            {says}
          </p>
        ))}
        {warranties.hasNextPage && (
          <Button variant="default" loading={warranties.isFetchingNextPage} onClick={() => warranties.fetchNextPage()}>
            Show more
          </Button>
        )}
      </section>
    </main>
  )
}
