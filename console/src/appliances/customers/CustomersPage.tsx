import { Button, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useMay } from '../../people'
import { api, unwrap } from '../../shared/api'
import type { Customer } from '../../shared/types'
import { Waiting } from '../../shared/Waiting'
import { said } from '../../shared/words'
import { CustomerForm } from './CustomerForm'

/** Who owns the machines. */
export function CustomersPage() {
  const [params, setParams] = useSearchParams()
  const [adding, setAdding] = useState(false)
  const may = useMay('change-customers')
  const find = params.get('find') ?? ''
  return (
    <main className="page">
      <h1>Customers</h1>
      <TextInput
        label="A customer by any part of its name"
        value={find}
        onChange={e => setParams(e.currentTarget.value ? { find: e.currentTarget.value } : {}, { replace: true })}
      />
      <List find={find} after={params.get('after')} />
      {may && (
        <Button variant="default" style={{ marginTop: 12 }} aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Add a customer
        </Button>
      )}
      {adding && <CustomerForm known={null} />}
    </main>
  )
}

function List({ find, after }: { find: string; after: string | null }) {
  const list = useQuery({
    queryKey: ['customers', 'list', find, after],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/customers', { params: { query: { find, ...(after ? { after } : {}) } }, signal })),
    placeholderData: earlier => earlier,
  })
  if (!list.data) return <Waiting for="the customers" problem={list.error} />
  const { customers, next, promises } = list.data
  if (customers.length === 0)
    return (
      <p>{find ? `No customer has '${find}' in its name.` : 'No customer is listed yet; whoever owns a site appears here by itself.'}</p>
    )
  return (
    <>
      {customers.map((customer, nth) => (
        <Line key={customer.name} customer={customer} promise={promises?.[nth] ?? ''} />
      ))}
      {next && <Link to={`?${new URLSearchParams({ ...(find ? { find } : {}), after: next })}`}>More</Link>}
    </>
  )
}

function Line({ customer, promise }: { customer: Customer; promise: string }) {
  return (
    <p className="panel" style={{ margin: '8px 0' }}>
      <Link to={`/customers/${encodeURIComponent(customer.name)}`}>{customer.name}</Link>
      <br />
      <span className="chalk">
        {(customer.people ?? []).map(p => p.name).join(', ') || 'nobody to ask is known'} · promise: {promise} · data:{' '}
        {said(customer.data ?? 'ask-each-time')}
      </span>
    </p>
  )
}
