import { Button, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMay } from '../people'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import { useDraft } from '../shared/typed/useDraft'
import type { IntakeView } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { said, ticketName } from '../shared/words'
import { RuleTrial } from './RuleTrial'

/** What machines said and nobody understood; a person makes a rule of it, or a ticket, or puts it aside. */
export function IntakePage() {
  const [outcome, setOutcome] = useState<string | null>(null)
  const [line, setLine] = useState<string | null>(null)
  const intake = useQuery({
    queryKey: ['intake', outcome],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/intake', { params: { query: outcome ? { outcome } : {} }, signal })),
    refetchInterval: 10_000,
  })
  if (!intake.data) return <WaitingPage for="what came in" problem={intake.error} />
  const { items, counts, turnedAway } = intake.data
  return (
    <main className="page wide">
      <h1>Intake</h1>
      <nav className="row" aria-label="Which messages">
        <Button variant={outcome === null ? 'filled' : 'default'} size="xs" onClick={() => setOutcome(null)}>
          not understood
        </Button>
        <Button variant={outcome === 'settled' ? 'filled' : 'default'} size="xs" onClick={() => setOutcome('settled')}>
          put aside
        </Button>
        {Object.entries(counts)
          .filter(([word]) => word !== 'settled')
          .map(([word, count]) => (
            <Button key={word} variant={outcome === word ? 'filled' : 'default'} size="xs" onClick={() => setOutcome(word)}>
              {said(word)} {count}
            </Button>
          ))}
      </nav>
      {turnedAway > 0 && (
        <p role="alert" className="panel danger">
          {turnedAway} datagrams were turned away: they came faster than they could be kept.
        </p>
      )}
      <RuleTrial line={line} />
      {items.length === 0 && <p className="panel">{outcome ? 'None.' : 'Nothing waits to be understood.'}</p>}
      {items.map(item => (
        <Message key={item.id} item={item} tryIt={() => setLine(item.text)} />
      ))}
    </main>
  )
}

function Message({ item, tryIt }: { item: IntakeView; tryIt: () => void }) {
  const open = item.outcome === 'unmatched' || item.outcome === 'unknown-sender' || item.outcome === 'settled'
  return (
    <article className="panel" aria-label={item.text.slice(0, 60)}>
      <p className="chalk" style={{ margin: 0 }}>
        {clock(item.receivedAt, null)} · {item.via} from <span className="mono">{item.sender}</span> · {said(item.outcome)}
        {item.rule ? ` by ${item.rule}` : ''}
        {item.times > 1 && item.first && (
          <b>
            {' '}
            · {item.times} times since {clock(item.first, null)}
          </b>
        )}
        {item.ticket ? ' · ' : ''}
        {item.ticket && <Link to={`/tickets/${item.ticket}`}>{ticketName(item.ticket)}</Link>}
      </p>
      <p className="mono" style={{ margin: '4px 0' }}>
        {item.text}
      </p>
      {open && <ToSettle item={item} tryIt={tryIt} />}
    </article>
  )
}

/** What may become of a message: a rule, a ticket, a machine that is added, or nothing. */
function ToSettle({ item, tryIt }: { item: IntakeView; tryIt: () => void }) {
  const mayAdd = useMay('add-machines')
  const { fields: about, typed, drop } = useDraft(`intake-${item.id}`, { asset: item.asset ?? '', bay: '' })
  const { settle, back } = useSettling(item.id, about.bay, drop)
  return (
    <>
      <div className="row">
        {item.via === 'syslog' && (
          <Button variant="default" size="xs" onClick={tryIt}>
            Make a rule
          </Button>
        )}
        <TextInput
          aria-label="Machine"
          placeholder="Asset number"
          classNames={{ input: 'mono' }}
          w={170}
          value={about.asset}
          onChange={typed('asset')}
        />
        <TextInput aria-label="Bay" placeholder="Bay" w={80} value={about.bay} onChange={typed('bay')} />
        <Button
          variant="default"
          size="xs"
          disabled={!about.asset.trim()}
          loading={settle.isPending}
          onClick={() => settle.mutate(about.asset.trim())}
        >
          Make it a ticket
        </Button>
        {item.isOfUnknownMachine && item.asset && mayAdd && (
          <Button component={Link} to={`/machines/new?asset=${encodeURIComponent(item.asset)}`} variant="default" size="xs">
            Add the machine
          </Button>
        )}
        {item.outcome === 'settled' ? (
          <Button variant="subtle" size="xs" loading={back.isPending} onClick={() => back.mutate()}>
            Have it wait again
          </Button>
        ) : (
          <Button variant="subtle" size="xs" loading={settle.isPending} onClick={() => settle.mutate(null)}>
            Put it aside
          </Button>
        )}
      </div>
      <Refused problem={settle.error ?? back.error} />
    </>
  )
}

function useSettling(id: string, bay: string, done: () => void) {
  const client = useQueryClient()
  const onSettled = () => client.invalidateQueries({ queryKey: ['intake'] })
  const settle = useMutation({
    mutationFn: async (asset: string | null) =>
      unwrap(
        await api.POST('/api/intake/{id}/settle', { params: { path: { id } }, body: { asset, bay: bay.trim() || null, serial: null } }),
      ),
    onSuccess: done,
    onSettled,
  })
  const back = useMutation({
    mutationFn: async () => unwrap(await api.POST('/api/intake/{id}/take-back', { params: { path: { id } } })),
    onSettled,
  })
  return { settle, back }
}
