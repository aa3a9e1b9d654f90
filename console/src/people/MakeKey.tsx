import { Button, Checkbox, TextInput } from '@mantine/core'
import { useState } from 'react'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { useFields } from '../shared/typed/useFields'
import type { Person, Role } from '../shared/types'
import { usePeopleChange } from './peopleQueries'
import { chosen, RoleBoxes } from './RoleBoxes'

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

/** A key that a script acts with in one's own name; it is shown once. */
export function MakeKey({ me }: { me: Person }) {
  const [{ name, until }, set] = useFields({ name: '', until: inDays(90) })
  const [roles, setRoles] = useState<Role[]>(chosen(me.roles))
  const [readOnly, setReadOnly] = useState(true)
  const make = usePeopleChange(async () =>
    unwrap(await api.POST('/api/people/{name}/keys', { params: { path: { name: me.name } }, body: { name, until, roles, readOnly } })),
  )
  return (
    <form
      className="panel stack"
      aria-label="A key for a script"
      onSubmit={event => {
        event.preventDefault()
        make.mutate(undefined)
      }}
    >
      <h2>A key for a script</h2>
      <TextInput label="What it is for" placeholder="night report" value={name} onChange={set('name')} required withAsterisk={false} />
      <TextInput
        label="Its last day"
        type="date"
        value={until}
        min={inDays(0)}
        max={inDays(366)}
        onChange={set('until')}
        required
        withAsterisk={false}
      />
      <RoleBoxes label="It acts as" of={chosen(me.roles)} roles={roles} onChange={setRoles} />
      <Checkbox size="md" label="It reads only" checked={readOnly} onChange={event => setReadOnly(event.currentTarget.checked)} />
      <Button type="submit" loading={make.isPending}>
        Make it
      </Button>
      {make.data && <ShownOnce what={`The key '${make.data.key.name}'. A script has it in NAILCROW_KEY.`} secret={make.data.secret} />}
      <Refused problem={make.error} />
    </form>
  )
}

/** A secret that is never shown again. */
export function ShownOnce({ what, secret }: { what: string; secret: string }) {
  return (
    <div role="status" className="panel now">
      <p style={{ marginTop: 0 }}>{what} Shown this once:</p>
      <p className="mono" style={{ fontSize: 17, margin: 0, userSelect: 'all' }}>
        {secret}
      </p>
    </div>
  )
}
