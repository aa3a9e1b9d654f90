import { Button, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, useSearchParams } from 'react-router'
import { NotPermitted, useMay } from '../people'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { zones } from '../shared/time'
import { useDraft } from '../shared/typed/useDraft'
import { WaitingPage } from '../shared/Waiting'
import { agreements } from './customers/customerFields'
import { another, nothing, useAdding } from './useAdding'

/** A machine nobody has heard of: what its plate says, and where it stands. Short enough to fill in before it, on a phone. */
export function AddMachinePage() {
  const [params] = useSearchParams()
  const { fields, typed, drop } = useDraft('machine', { ...nothing, asset: params.get('asset') ?? '' })
  const known = useQuery({
    queryKey: ['models and sites'],
    queryFn: async ({ signal }) => ({
      models: unwrap(await api.GET('/api/models', { signal })),
      sites: unwrap(await api.GET('/api/sites', { signal })).sites,
    }),
  })
  const add = useAdding(fields, drop)
  const may = useMay('add-machines')
  if (!known.data) return <WaitingPage for="the models" problem={known.error} />
  const { models, sites } = known.data
  return (
    <main className="page">
      <h1>Add a machine</h1>
      {!may && <NotPermitted permission="add-machines" />}
      <p className="chalk">As its plate says. What is not known yet, such as its arrays, is filled in later.</p>
      <form
        className="panel stack"
        onSubmit={event => {
          event.preventDefault()
          add.mutate()
        }}
      >
        <Said label="Asset number" mono value={fields.asset} onChange={typed('asset')} />
        <Chosen label="Model" value={fields.model} onChange={typed('model')}>
          <option value="" disabled>
            as on the plate
          </option>
          {models.map(m => (
            <option key={m.id} value={m.id}>{`${m.maker} ${m.name}`}</option>
          ))}
        </Chosen>
        <Said label="Its own serial, on the sticker of the chassis" mono value={fields.serial} onChange={typed('serial')} />
        <Chosen label="Site" value={fields.site} onChange={typed('site')}>
          <option value="" disabled>
            where it stands
          </option>
          {sites.map(s => (
            <option key={s.name} value={s.name}>{`${s.name}, ${s.customer}`}</option>
          ))}
          <option value={another}>another site</option>
        </Chosen>
        {fields.site === another && <NewSite fields={fields} typed={typed} customers={[...new Set(sites.map(s => s.customer))].sort()} />}
        <Said label="Room, rack and unit" value={fields.location} onChange={typed('location')} />
        <Button type="submit" disabled={!may} loading={add.isPending}>
          Add it
        </Button>
        <Refused problem={add.error} />
      </form>
      <p>
        <Link to="/intake">What was said and nobody understood yet</Link>
      </p>
    </main>
  )
}

type Draft = Pick<ReturnType<typeof useDraft<typeof nothing>>, 'fields' | 'typed'>

function NewSite({ fields, typed, customers }: Draft & { customers: readonly string[] }) {
  return (
    <>
      <Said label="What the site is called" value={fields.name} onChange={typed('name')} />
      <Chosen label="Whose it is" value={fields.owner} onChange={typed('owner')}>
        <option value="" disabled>
          a customer
        </option>
        {customers.map(name => (
          <option key={name}>{name}</option>
        ))}
        <option value={another}>another customer</option>
      </Chosen>
      {fields.owner === another && <NewCustomer fields={fields} typed={typed} />}
      <Said label="Address" value={fields.address} onChange={typed('address')} />
      <Chosen label="Time zone" value={fields.zone} onChange={typed('zone')}>
        {zones().map(zone => (
          <option key={zone}>{zone}</option>
        ))}
      </Chosen>
      <Textarea label="Getting in" rows={2} value={fields.access} onChange={typed('access')} />
    </>
  )
}

/** The name is enough; whom to ask and what is agreed on data is worth a line while they stand there. */
function NewCustomer({ fields, typed }: Draft) {
  return (
    <>
      <Said label="What the customer is called" value={fields.customer} onChange={typed('customer')} />
      <TextInput label="Whom to ask there" value={fields.ask} onChange={typed('ask')} />
      <TextInput label="About what" value={fields.about} onChange={typed('about')} />
      <TextInput label="How they are reached" value={fields.reach} onChange={typed('reach')} />
      <NativeSelect label="Drives with their data on them" data={agreements} value={fields.data} onChange={typed('data')} />
    </>
  )
}

type SaidProps = { label: string; value: string; mono?: boolean; onChange: (event: React.ChangeEvent<HTMLInputElement>) => void }

const Said = ({ mono, ...said }: SaidProps) => (
  <TextInput {...said} required withAsterisk={false} autoComplete="off" classNames={mono ? { input: 'mono' } : {}} />
)

type ChosenProps = {
  label: string
  value: string
  children: React.ReactNode
  onChange: (event: React.ChangeEvent<HTMLSelectElement>) => void
}

const Chosen = (chosen: ChosenProps) => <NativeSelect {...chosen} required withAsterisk={false} />
