import { Button, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useParams } from 'react-router'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import { useFields } from '../shared/typed/useFields'
import type { Person, Role } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { ComingsIn } from './ComingsIn'
import { ShownOnce } from './MakeKey'
import { NotPermitted, useMay } from './NotPermitted'
import { Holding, Out } from './Out'
import { useEverybody, useMe, usePeopleChange } from './peopleQueries'
import { chosen, RoleBoxes } from './RoleBoxes'

/** One person: who looks after people sees all of it, who plans hands over what they lead. */
export function PersonPage() {
  const { name = '' } = useParams()
  const people = useEverybody()
  const me = useMe()
  const may = useMay('look-after-people')
  if (!people.data) return <WaitingPage for="who there is" problem={people.error} />
  const person = people.data.people.find(one => one.name === name)
  return (
    <main className="page">
      <h1>{person?.fullName ?? 'Nobody'}</h1>
      {!person && <p role="alert">Nobody here is called '{name}'.</p>}
      {person && !may && (
        <section className="panel stack" aria-label="What they lead">
          <Holding person={person} />
          <NotPermitted permission="look-after-people" />
        </section>
      )}
      {person && may && (
        <>
          <p className="chalk" style={{ marginTop: 0 }}>
            Signs in as <span className="mono">{person.name}</span>
            {person.mustChange && '; chooses a password of their own first'}
            {person.mustChange && person.firstUntil && `, until ${clock(person.firstUntil, null)}; after that they are given another`}
          </p>
          {person.disabledAt && (
            <p role="status" className="panel danger">
              ✕ May not come in since {clock(person.disabledAt, null)}: {person.disabledBecause}
            </p>
          )}
          <Called key={person.fullName} person={person} />
          <May key={person.roles.join()} person={person} />
          <FirstPassword person={person} />
          {person.hasSecondFactor && person.name !== me.data?.name && <LostFactor person={person} />}
          {person.elsewhere && person.name !== me.data?.name && <ByProvider person={person} />}
          <ComingsIn name={person.name} />
          <Out person={person} />
        </>
      )}
    </main>
  )
}

function Called({ person }: { person: Person }) {
  const [{ fullName }, set] = useFields({ fullName: person.fullName })
  const rename = usePeopleChange(async () =>
    unwrap(await api.PUT('/api/people/{name}/full-name', { params: { path: { name: person.name } }, body: { fullName } })),
  )
  return (
    <form
      className="panel stack"
      aria-label="What they are called"
      onSubmit={event => {
        event.preventDefault()
        rename.mutate(undefined)
      }}
    >
      <TextInput label="Full name" value={fullName} onChange={set('fullName')} required withAsterisk={false} />
      <Button type="submit" variant="default" loading={rename.isPending} disabled={fullName === person.fullName}>
        They are called that
      </Button>
      <Refused problem={rename.error} />
    </form>
  )
}

function May({ person }: { person: Person }) {
  const [roles, setRoles] = useState<Role[]>(chosen(person.roles))
  const change = usePeopleChange(async () =>
    unwrap(await api.PUT('/api/people/{name}/roles', { params: { path: { name: person.name } }, body: { roles } })),
  )
  return (
    <form
      className="panel stack"
      aria-label="What they may do"
      onSubmit={event => {
        event.preventDefault()
        change.mutate(undefined)
      }}
    >
      <RoleBoxes label="They are" roles={roles} onChange={setRoles} />
      <Button type="submit" variant="default" loading={change.isPending} disabled={roles.join() === person.roles.join()}>
        From now on
      </Button>
      <Refused problem={change.error} />
    </form>
  )
}

function LostFactor({ person }: { person: Person }) {
  const take = usePeopleChange(async () =>
    unwrap(await api.POST('/api/people/{name}/second-factor/end', { params: { path: { name: person.name } } })),
  )
  return (
    <section className="panel stack" aria-label="Their second factor">
      <h2>They have lost their device?</h2>
      <p className="chalk" style={{ margin: 0 }}>
        They show something beside their password. Taken away, the password alone lets them in, and wherever they are signed in they are not
        any more. Be sure that it is them who asks.
      </p>
      <Button variant="default" loading={take.isPending} onClick={() => take.mutate(undefined)}>
        Take their second factor away
      </Button>
      <Refused problem={take.error} />
    </section>
  )
}

function ByProvider({ person }: { person: Person }) {
  const end = usePeopleChange(async () =>
    unwrap(await api.POST('/api/people/{name}/elsewhere/end', { params: { path: { name: person.name } } })),
  )
  return (
    <section className="panel stack" aria-label="Provider of sign-ins">
      <h2>They come in by {person.elsewhere}</h2>
      <p className="chalk" style={{ margin: 0 }}>
        Their roles are what it says, and are changed there.{' '}
        {person.hasPassword ? 'Ended, their password lets them in.' : 'Ended, nothing lets them in until they are given a password.'}
      </p>
      <Button variant="default" loading={end.isPending} onClick={() => end.mutate(undefined)}>
        No longer by it
      </Button>
      <Refused problem={end.error} />
    </section>
  )
}

function FirstPassword({ person }: { person: Person }) {
  const give = usePeopleChange(async () =>
    unwrap(await api.PUT('/api/people/{name}/password', { params: { path: { name: person.name } }, body: { password: null } })),
  )
  return (
    <section className="panel stack" aria-label="Their password">
      <h2>They cannot get in?</h2>
      <p className="chalk" style={{ margin: 0 }}>
        They are given a password that they have to change. Wherever they are signed in, they are not any more.
      </p>
      <Button variant="default" loading={give.isPending} onClick={() => give.mutate(undefined)}>
        Give them a new password
      </Button>
      {give.data?.firstPassword && <ShownOnce what={`For ${person.fullName} alone.`} secret={give.data.firstPassword} />}
      <Refused problem={give.error} />
    </section>
  )
}
