import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { Link, useSearchParams } from 'react-router'
import { v7 as uuid7 } from 'uuid'
import { NotPermitted, useMay, useMe, usePeople } from '../../people'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useSupplies } from '../../shared/supplies'
import { clock } from '../../shared/time'
import { useDraft } from '../../shared/typed/useDraft'
import type { Holder, SupplyAsk, SupplyStock, SupplyWay } from '../../shared/types'
import { Waiting, WaitingPage } from '../../shared/Waiting'
import { ticketName } from '../../shared/words'
import { holderName } from '../holderName'
import { useStores } from './storesQueries'

const ways: [SupplyWay, string][] = [
  ['came', 'Came in'],
  ['moved', 'Put elsewhere'],
  ['used', 'Used up'],
  ['counted', 'Counted'],
]

/** What has no serial: how many of it are where, and what comes, goes and is used up. */
export function SuppliesPage() {
  const supplies = useSupplies()
  const may = useMay('keep-stores')
  const mayOwn = useMay('count-own-van')
  const me = useMe()
  const [params] = useSearchParams()
  const shown = params.get('of')
  if (!supplies.data) return <WaitingPage for="supplies" problem={supplies.error} />
  return (
    <main className="page wide">
      <h1>What is counted</h1>
      <p className="chalk" style={{ marginTop: 0 }}>
        Carriers, screws, cables, labels: what has no serial is counted in each depot and each van. What engineers use on a ticket is taken
        from their van by itself. <Link to="/stores">Back to stores</Link>
      </p>
      {may ? (
        <Written supplies={supplies.data} />
      ) : me.data && mayOwn ? (
        <Written supplies={supplies.data} ownVan={`van of ${me.data.name}`} />
      ) : (
        <NotPermitted permission="keep-stores" />
      )}
      <section className="panel" aria-label="Supplies, by name">
        {supplies.data.length === 0 && (
          <p className="chalk" style={{ margin: 0 }}>
            Nothing is counted yet. What came in, or was counted first, stands here.
          </p>
        )}
        {supplies.data.map(supply => (
          <Supply key={supply.name} supply={supply} open={supply.name === shown} />
        ))}
      </section>
    </main>
  )
}

function Supply({ supply, open }: { supply: SupplyStock; open: boolean }) {
  return (
    <div className="part-line">
      <strong>{supply.name}</strong>: {supply.held}
      {supply.where.length > 0 && <> ({supply.where.map(w => `${w.count} in ${placeName(w.holder)}`).join(', ')})</>}
      {supply.lately > 0 && <>, {supply.lately} used within 90 days</>}{' '}
      <Link to={open ? '/stores/supplies' : `/stores/supplies?of=${encodeURIComponent(supply.name)}`} replace>
        {open ? 'less' : 'what became of it'}
      </Link>
      {supply.order && (
        <>
          <br />
          <strong>Order {supply.order.order}</strong>: <span className="chalk">{supply.order.says}</span>
        </>
      )}
      {open && <Line name={supply.name} />}
    </div>
  )
}

function Line({ name }: { name: string }) {
  const line = useQuery({
    queryKey: ['supplies', name],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/supplies/{name}', { params: { path: { name } }, signal })),
  })
  if (!line.data) return <Waiting for="its line" problem={line.error} />
  return (
    <ol reversed style={{ margin: '8px 0 0', paddingLeft: 32, fontSize: 15 }}>
      {line.data.told.toReversed().map((told, nth) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines have an order and no name of their own
        <li key={nth}>
          {told.says}{' '}
          <span className="chalk">
            {clock(told.at, null)}, {told.by}
          </span>{' '}
          {told.ticket && <Link to={`/tickets/${told.ticket}/return`}>{ticketName(told.ticket)}</Link>}
        </li>
      ))}
      {line.data.earlier > 0 && <li className="chalk">{line.data.earlier} earlier lines are not told here.</li>}
    </ol>
  )
}

/** One line of the ledger at a time; sent again after a lost answer it is taken once. An engineer counts their own van, and no more. */
function Written({ supplies, ownVan }: { supplies: readonly SupplyStock[]; ownVan?: string }) {
  const { fields, typed, set } = useDraft('supplies', { way: 'came', name: '', count: '', from: '', to: '', note: '' })
  const way = ownVan ? 'counted' : (ways.find(([w]) => w === fields.way)?.[0] ?? 'came')
  const line: Told = {
    supply: fields.name,
    way,
    count: Number(fields.count),
    from: way === 'came' ? null : (ownVan ?? fields.from),
    to: way === 'came' || way === 'moved' ? fields.to : null,
    note: fields.note.trim() || null,
  }
  const write = useWriting(line, () => {
    set('count', '')
    set('note', '')
  })
  return (
    <form
      className="panel now stack"
      aria-label="Write down"
      onSubmit={event => {
        event.preventDefault()
        write.mutate({})
      }}
    >
      <div className="row" style={{ alignItems: 'flex-end' }}>
        {ownVan ? (
          <p style={{ margin: 0, alignSelf: 'center' }}>Counted in your van</p>
        ) : (
          <NativeSelect label="What happened" value={way} onChange={typed('way')} data={ways.map(([value, label]) => ({ value, label }))} />
        )}
        <TextInput label="What" list="supplies" value={fields.name} onChange={typed('name')} required withAsterisk={false} maxLength={80} />
        <TextInput
          label={way === 'counted' ? 'How many are there' : 'How many'}
          inputMode="numeric"
          pattern="[0-9]+"
          title="A whole number"
          value={fields.count}
          onChange={typed('count')}
          required
          withAsterisk={false}
          style={{ maxWidth: 160 }}
        />
        {way !== 'came' && !ownVan && <Place label={way === 'counted' ? 'Where' : 'From'} value={fields.from} onChange={typed('from')} />}
        {(way === 'came' || way === 'moved') && <Place label="To" value={fields.to} onChange={typed('to')} />}
        <TextInput label="Note, if any" value={fields.note} onChange={typed('note')} maxLength={4000} />
      </div>
      <datalist id="supplies">{supplies.map(named)}</datalist>
      <Refused problem={write.error} />
      <Answered write={write} line={line} />
      <div>
        <Button type="submit" loading={write.isPending}>
          Write it down
        </Button>
      </div>
    </form>
  )
}

const named = ({ name }: SupplyStock) => <option key={name} value={name} />

type Told = Omit<SupplyAsk, 'id' | 'asNamed' | 'newDepot'>

/** What was made of it; a name that looks like another one is asked about. */
function Answered({ write, line }: { write: ReturnType<typeof useWriting>; line: Told }) {
  const answer = write.data
  if (!answer) return null
  const end = line.to ? 'to' : 'from'
  return (
    <>
      <p role="status" className={answer.asks ? 'brick' : undefined} style={{ margin: 0 }}>
        {answer.says}
      </p>
      {answer.near && (
        <div className="row">
          <Button variant="default" loading={write.isPending} onClick={() => write.mutate({ supply: answer.near ?? '' })}>
            It is {answer.near}
          </Button>
          <Button variant="default" loading={write.isPending} onClick={() => write.mutate({ asNamed: true })}>
            {line.supply} is new
          </Button>
        </div>
      )}
      {answer.nearDepot && (
        <div className="row">
          <Button variant="default" loading={write.isPending} onClick={() => write.mutate({ [end]: answer.nearDepot })}>
            It is {answer.nearDepot}
          </Button>
          <Button variant="default" loading={write.isPending} onClick={() => write.mutate({ newDepot: true })}>
            {line[end]} is a new depot
          </Button>
        </div>
      )}
    </>
  )
}

function useWriting(line: Told, kept: () => void) {
  const id = useRef(uuid7())
  const client = useQueryClient()
  return useMutation({
    mutationFn: async (more: Partial<SupplyAsk>) =>
      unwrap(await api.POST('/api/supplies', { body: { ...line, id: id.current, asNamed: false, newDepot: false, ...more } })),
    onSuccess: answer => {
      id.current = uuid7()
      if (answer.asks) return
      kept()
      return client.invalidateQueries({ queryKey: ['supplies'] })
    },
  })
}

type PlaceProps = { label: string; value: string; onChange: ReturnType<ReturnType<typeof useDraft>['typed']> }

/** A depot by its name or a van of somebody: those that are known are offered, another depot may be typed. */
function Place({ label, value, onChange }: PlaceProps) {
  const stores = useStores('')
  const people = usePeople()
  const depots = [...new Set(stores.data?.shelves.map(s => s.depot) ?? [])]
  const vans = people.data?.people.filter(p => p.roles.includes('engineer')).map(p => `van of ${p.name}`) ?? []
  return (
    <>
      <TextInput label={label} list={`places-${label}`} value={value} onChange={onChange} required withAsterisk={false} />
      <datalist id={`places-${label}`}>
        {[...depots, ...vans].map(name => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  )
}

const placeName = (holder: Holder) => (holder.kind === 'van' ? holderName(holder) : holder.name)
