import { Button, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { useDraft } from '../shared/typed/useDraft'
import type { Person, Role } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { rolesTold } from '../shared/words'
import { ShownOnce } from './MakeKey'
import { NotPermitted, useMay } from './NotPermitted'
import { useEverybody, usePeopleChange } from './peopleQueries'
import { RoleBoxes } from './RoleBoxes'

/** Everybody, and a way in for one more. */
export function PeoplePage() {
  const people = useEverybody()
  const may = useMay('look-after-people')
  const mayHandOver = useMay('hand-over-all')
  const log = useMay('read-security-log')
  if (!people.data) return <WaitingPage for="who there is" problem={people.error} />
  return (
    <main className="page">
      <h1>People</h1>
      {log && (
        <p style={{ marginTop: 0 }}>
          <Link to="/people/security">Who came in, and who changed what others may do</Link>
        </p>
      )}
      <section className="panel" aria-label="Everybody">
        {people.data.people.map(person => (
          <OnePerson key={person.name} person={person} open={may || mayHandOver} />
        ))}
      </section>
      {may ? <LetIn /> : <NotPermitted permission="look-after-people" />}
    </main>
  )
}

function OnePerson({ person, open }: { person: Person; open: boolean }) {
  return (
    <div className="part-line">
      {open ? (
        <Link to={`/people/${encodeURIComponent(person.name)}`}>
          <strong>{person.fullName}</strong>
        </Link>
      ) : (
        <strong>{person.fullName}</strong>
      )}{' '}
      <span className="mono">{person.name}</span>
      <br />
      <span className="chalk">{rolesTold(person.roles)}</span>
      {person.disabledAt && <strong className="brick"> ✕ may not come in{person.disabledBecause && `: ${person.disabledBecause}`}</strong>}
      {!person.disabledAt && person.mustChange && <span className="ochre"> ◑ chooses a password first</span>}
      {person.hasSecondFactor && <span className="chalk"> · with a second factor</span>}
      {person.elsewhere && <span className="chalk"> · by {person.elsewhere}</span>}
    </div>
  )
}

function LetIn() {
  const { fields, typed, drop } = useDraft('person.add', { name: '', fullName: '', mail: '' })
  const [roles, setRoles] = useState<Role[]>(['engineer'])
  const add = usePeopleChange(
    async () =>
      unwrap(
        await api.POST('/api/people', {
          body: { name: fields.name.trim(), fullName: fields.fullName, password: null, roles, mail: fields.mail.trim() || null },
        }),
      ),
    drop,
  )
  return (
    <form
      className="panel stack"
      aria-label="Let somebody in"
      onSubmit={event => {
        event.preventDefault()
        add.mutate(undefined)
      }}
    >
      <h2>Let somebody in</h2>
      <TextInput label="Full name" value={fields.fullName} onChange={typed('fullName')} required withAsterisk={false} />
      <TextInput
        label="Name to sign in with"
        description="a to z, 0 to 9, dot and hyphen. It is given once: what they write says it for ever."
        autoCapitalize="none"
        autoComplete="off"
        value={fields.name}
        onChange={typed('name')}
        required
        withAsterisk={false}
      />
      <TextInput label="Mail, for reminders" type="email" value={fields.mail} onChange={typed('mail')} />
      <RoleBoxes label="They are" roles={roles} onChange={setRoles} />
      <Button type="submit" loading={add.isPending}>
        Let them in
      </Button>
      {add.data?.firstPassword && (
        <ShownOnce
          what={`${add.data.person.fullName} signs in as ${add.data.person.name} with this password, and has to change it.`}
          secret={add.data.firstPassword}
        />
      )}
      <Refused problem={add.error} />
    </form>
  )
}
