import { NativeSelect } from '@mantine/core'
import { Link, useSearchParams } from 'react-router'
import { NotPermitted, useMay, useMe } from '../../people'
import { WaitingPage } from '../../shared/Waiting'
import { CountDesk } from './CountDesk'
import { ScanDesk } from './ScanDesk'
import { StoresLists } from './StoresLists'
import { useStores } from './storesQueries'

/** Stores' desk: scan what is in the hand; below it, what to pick, what comes, what is late, what lies where. */
export function StoresPage() {
  const [params, setParams] = useSearchParams()
  const depot = params.get('depot') ?? ''
  const stores = useStores(depot)
  const all = useStores('')
  const may = useMay('keep-stores')
  if (!stores.data) return <WaitingPage for="stores" problem={stores.error} />
  const depots = [...new Set((all.data ?? stores.data).shelves.map(s => s.depot))]
  return (
    <main className="page wide">
      <h1>Stores</h1>
      <nav className="row" style={{ margin: '0 0 12px', gap: 20 }} aria-label="More of stores">
        <Link to="/stores/supplies">What is counted</Link>
        <Link to="/stores/outbox">What goes out to carriers, to makers and by mail</Link>
        <Link to="/stores/warranties">Warranties</Link>
      </nav>
      {may ? <ScanDesk depots={depots} depot={depot} /> : <OwnVan />}
      {depots.length > 1 && (
        <NativeSelect
          label="What lies in"
          value={depot}
          onChange={e => setParams(e.currentTarget.value ? { depot: e.currentTarget.value } : {}, { replace: true })}
          style={{ maxWidth: 320, marginTop: 12 }}
        >
          <option value="">all depots</option>
          {depots.map(name => (
            <option key={name}>{name}</option>
          ))}
        </NativeSelect>
      )}
      <StoresLists desk={stores.data} depot={depot} />
    </main>
  )
}

/** An engineer counts what lies in their own van; nobody else looks into it. */
function OwnVan() {
  const me = useMe()
  const may = useMay('count-own-van')
  if (!me.data || !may) return <NotPermitted permission="keep-stores" />
  return (
    <section className="panel now" aria-label="Count your van">
      <h2>Count your van</h2>
      <CountDesk at={{ kind: 'van', name: me.data.name, shelf: null }} />
    </section>
  )
}
