import { Button, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useMay } from '../people'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { useDraft } from '../shared/typed/useDraft'
import type { ApplianceView } from '../shared/types'

/** The machine has another serial than is known, or stands elsewhere by now: its record is put right, and sheets go by that. */
export function PutMachineRight({ view }: { view: ApplianceView }) {
  const may = useMay('change-machines')
  const [open, setOpen] = useState(false)
  const client = useQueryClient()
  const { appliance } = view
  const { fields, typed, drop } = useDraft(`machine-${appliance.asset}-${view.version}`, {
    serial: appliance.serial,
    location: appliance.location,
    address: appliance.address ?? '',
  })
  const put = useMutation({
    mutationFn: async () =>
      unwrap(
        await api.PUT('/api/appliances/{asset}', {
          params: { path: { asset: appliance.asset }, header: { 'If-Match': `"${view.version}"` } },
          body: { ...appliance, serial: fields.serial.trim(), location: fields.location.trim(), address: fields.address.trim() || null },
        }),
      ),
    onSuccess: () => {
      drop()
      setOpen(false)
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['machines'] }),
  })
  if (!may) return null
  return (
    <div style={{ marginTop: 12 }}>
      <Button variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
        Put right what is known of it
      </Button>
      {open && (
        <form
          className="stack"
          style={{ marginTop: 12 }}
          onSubmit={event => {
            event.preventDefault()
            put.mutate()
          }}
        >
          <TextInput label="Its own serial" classNames={{ input: 'mono' }} value={fields.serial} onChange={typed('serial')} />
          <TextInput label="Room, rack and unit" value={fields.location} onChange={typed('location')} />
          <TextInput
            label="Its management address"
            description="Such as https://10.0.0.7; empty where nobody reaches it."
            classNames={{ input: 'mono' }}
            value={fields.address}
            onChange={typed('address')}
          />
          <Button type="submit" loading={put.isPending}>
            That is so
          </Button>
          <Refused problem={put.error} />
        </form>
      )}
    </div>
  )
}
