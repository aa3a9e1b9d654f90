import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../shared/api'
import { ownZone } from '../shared/time'

export const nothing = {
  asset: '',
  serial: '',
  model: '',
  location: '',
  site: '',
  name: '',
  customer: '',
  address: '',
  zone: ownZone(),
  access: '',
}

/** No site of that name is described yet. */
export const another = 'another'

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
                  customer: fields.customer.trim(),
                  address: fields.address.trim(),
                  zone: fields.zone,
                  access: fields.access.trim() || null,
                }
              : null,
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
