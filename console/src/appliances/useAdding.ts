import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../shared/api'
import { ownZone } from '../shared/time'
import type { DataAgreement } from '../shared/types'

export const nothing = {
  asset: '',
  serial: '',
  model: '',
  location: '',
  site: '',
  name: '',
  owner: '',
  customer: '',
  ask: '',
  about: '',
  reach: '',
  data: 'ask-each-time',
  address: '',
  zone: ownZone(),
  access: '',
}

/** No site, or no customer, of that name is described yet. */
export const another = 'another'

/** What was said of a customer beside the name; null where nothing was, and the name alone is kept. */
const describedOf = ({ customer, ask, about, reach, data }: typeof nothing) =>
  ask || about || reach || data !== nothing.data
    ? {
        name: customer.trim(),
        people: ask || about || reach ? [{ name: ask.trim(), about: about.trim(), reach: reach.trim() }] : null,
        data: data as DataAgreement,
      }
    : null

/** Sends what was filled in, and goes on to where it leads: what was kept of this machine, or the machine. */
export function useAdding(fields: typeof nothing, drop: () => void) {
  const navigate = useNavigate()
  const client = useQueryClient()
  return useMutation({
    mutationFn: async () => {
      const isNew = fields.site === another
      const site = isNew ? fields.name.trim() : fields.site
      return unwrap(
        await api.POST('/api/appliances', {
          body: {
            appliance: {
              asset: fields.asset.trim().toUpperCase(),
              serial: fields.serial.trim(),
              model: fields.model,
              site,
              location: fields.location.trim(),
            },
            site: isNew
              ? {
                  name: site,
                  customer: (fields.owner === another ? fields.customer : fields.owner).trim(),
                  address: fields.address.trim(),
                  zone: fields.zone,
                  access: fields.access.trim() || null,
                }
              : null,
            customer: isNew && fields.owner === another ? describedOf(fields) : null,
          },
        }),
      )
    },
    onSuccess: async added => {
      drop()
      await client.invalidateQueries({ queryKey: ['appliances'] })
      navigate(added.waiting > 0 ? '/intake' : `/machines/${added.machine.appliance.asset}`)
    },
  })
}
