import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useMay } from '../../people'
import { api, unwrap } from '../../shared/api'
import { WaitingPage } from '../../shared/Waiting'
import { said } from '../../shared/words'
import { CustomerForm } from './CustomerForm'

/** One customer: whom to ask there, what was promised and agreed, and where the machines stand. */
export function CustomerPage() {
  const name = useParams().name ?? ''
  const may = useMay('change-customers')
  const [changing, setChanging] = useState(false)
  const known = useQuery({
    queryKey: ['customers', 'one', name],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/customers/one', { params: { query: { name } }, signal })),
  })
  if (!known.data) return <WaitingPage for="the customer" problem={known.error} />
  const { customer, sites, machines, promise, pictures } = known.data
  return (
    <main className="page">
      <h1>{customer.name}</h1>
      <section className="panel" aria-label="What is known">
        <dl className="facts">
          {(customer.people ?? []).map(person => (
            <div key={person.name} style={{ display: 'contents' }}>
              <dt>Ask</dt>
              <dd>
                {person.name}
                {person.about ? `, ${person.about}` : ''}: {person.reach}
              </dd>
            </div>
          ))}
          <dt>Promise</dt>
          <dd>{promise}</dd>
          <dt>Their data</dt>
          <dd>
            {said(customer.data ?? 'ask-each-time')}
            {customer.dataNote ? `. ${customer.dataNote}` : ''}
          </dd>
          {customer.spares && (
            <>
              <dt>Spares</dt>
              <dd>{customer.spares}</dd>
            </>
          )}
          <dt>Pictures</dt>
          <dd>{pictures}</dd>
          <dt>Sites</dt>
          <dd>
            <Sites names={sites} />
          </dd>
          <dt>Machines</dt>
          <dd>
            {machines} · <Link to={`/?customer=${encodeURIComponent(customer.name)}`}>tickets</Link>
          </dd>
        </dl>
        {may && (
          <Button variant="default" style={{ marginTop: 12 }} aria-expanded={changing} onClick={() => setChanging(!changing)}>
            Change what is known
          </Button>
        )}
      </section>
      {changing && <CustomerForm known={known.data} done={() => setChanging(false)} />}
    </main>
  )
}

function Sites({ names }: { names: readonly string[] }) {
  if (names.length === 0) return 'none yet'
  return names.map(site => (
    <span key={site} style={{ display: 'block' }}>
      <Link to={`/machines?find=${encodeURIComponent(site)}`}>{site}</Link>
    </span>
  ))
}
