import { Button, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { ApiProblem, api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useDraft } from '../../shared/typed/useDraft'
import type { Customer, CustomerView } from '../../shared/types'
import { agreements, fieldsOf, over, readCustomer } from './customerFields'
import { PeopleFields } from './PeopleFields'

/** Adds a customer, or changes what is known of one. What was typed outlives the page until it is sent. */
export function CustomerForm({ known, done }: { known: CustomerView | null; done?: () => void }) {
  const now = fieldsOf(known?.customer ?? null)
  const [start] = useState(now)
  const { fields, typed, set, drop } = useDraft(known ? `customer-${known.customer.name}-${known.version}` : 'customer', start)
  // What they saw when they began to type, until they were told that it is another by now: then what they see beside the form.
  const [seen, setSeen] = useState(known?.version ?? null)
  const navigate = useNavigate()
  const client = useQueryClient()
  const put = useMutation({
    mutationFn: async (customer: Customer) =>
      unwrap(
        await api.PUT('/api/customers', { params: { header: known ? { 'If-Match': `"${seen ?? known.version}"` } : {} }, body: customer }),
      ),
    onSuccess: saved => {
      drop()
      done?.()
      navigate(`/customers/${encodeURIComponent(saved.customer.name)}`)
    },
    onError: problem => {
      if (problem instanceof ApiProblem && problem.status === 412) setSeen(null)
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['customers'] }),
  })
  return (
    <form
      className="panel stack"
      style={{ marginTop: 12 }}
      onSubmit={event => {
        event.preventDefault()
        put.mutate(readCustomer(over(start, fields, now)))
      }}
    >
      {!known && <TextInput label="What they are called" required withAsterisk={false} value={fields.name} onChange={typed('name')} />}
      <PeopleFields value={fields.people} set={value => set('people', value)} />
      <div className="row">
        <TextInput label="Somebody there within, hours" inputMode="numeric" value={fields.respond} onChange={typed('respond')} />
        <TextInput label="Redundancy back within, hours" inputMode="numeric" value={fields.restore} onChange={typed('restore')} />
      </div>
      <p className="chalk" style={{ margin: 0 }}>
        Where a site promises something itself, that counts there.
      </p>
      <NativeSelect label="Drives with their data on them" data={agreements} value={fields.data} onChange={typed('data')} />
      <Textarea label="Where that is agreed, and what else it says" rows={2} value={fields.dataNote} onChange={typed('dataNote')} />
      <Textarea label="Spares they keep: which, where, whose" rows={2} value={fields.spares} onChange={typed('spares')} />
      <TextInput
        label="Pictures go after a ticket has ended, months"
        description="Left empty, they are kept as long as the record. It counts once it has stood here for a week."
        inputMode="numeric"
        value={fields.months}
        onChange={typed('months')}
      />
      <Button type="submit" loading={put.isPending}>
        That is so
      </Button>
      <Refused problem={put.error} />
    </form>
  )
}
