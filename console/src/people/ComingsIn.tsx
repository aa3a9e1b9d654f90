import { Button } from '@mantine/core'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import { clock } from '../shared/time'
import type { ComingIn, ScriptKey } from '../shared/types'
import { rolesTold } from '../shared/words'
import { useComingsIn, usePeopleChange } from './peopleQueries'

/** Where somebody is signed in, and what acts in their name; each can be ended. */
export function ComingsIn({ name }: { name: string }) {
  const comings = useComingsIn(name)
  if (!comings.data) return <Refused problem={comings.error} />
  return (
    <section className="panel" aria-label="Signed in">
      <h2>Signed in</h2>
      {comings.data.sessions.length === 0 && <p className="chalk">Nowhere.</p>}
      {comings.data.sessions.map(session => (
        <OneSession key={session.id} name={name} session={session} />
      ))}
      {comings.data.keys.length > 0 && <h2 style={{ marginTop: 16 }}>Keys of scripts</h2>}
      {comings.data.keys.map(key => (
        <OneKey key={key.id} name={name} of={key} />
      ))}
      {comings.data.changes.length > 0 && (
        <details style={{ marginTop: 16 }}>
          <summary>What was changed of it</summary>
          <ul style={{ margin: '8px 0 0', paddingLeft: 20 }}>
            {comings.data.changes.map(change => (
              <li key={`${change.at} ${change.says}`}>
                {change.says}{' '}
                <span className="chalk">
                  {clock(change.at, null)}
                  {change.from && (
                    <>
                      , from <span className="mono">{change.from}</span>
                    </>
                  )}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

function OneSession({ name, session }: { name: string; session: ComingIn }) {
  const end = usePeopleChange(async () =>
    unwrap(await api.DELETE('/api/people/{name}/sessions/{id}', { params: { path: { name, id: session.id } } })),
  )
  return (
    <div className="part-line">
      <strong>{session.device}</strong>
      {session.this && ' · this one'}
      <br />
      <span className="chalk">
        since {clock(session.since, null)}, last seen {clock(session.lastSeen, null)}, from <span className="mono">{session.address}</span>
      </span>
      {!session.this && (
        <div style={{ marginTop: 6 }}>
          <Button size="xs" variant="default" loading={end.isPending} onClick={() => end.mutate(undefined)}>
            Sign out there
          </Button>
        </div>
      )}
      <Refused problem={end.error} />
    </div>
  )
}

function OneKey({ name, of }: { name: string; of: ScriptKey }) {
  const end = usePeopleChange(async () =>
    unwrap(await api.DELETE('/api/people/{name}/keys/{id}', { params: { path: { name, id: of.id } } })),
  )
  return (
    <div className="part-line">
      <strong>{of.name}</strong>: {of.readOnly ? 'reads only' : 'reads and writes'} as {rolesTold(of.roles)}, until {of.until}
      <br />
      <span className="chalk">{of.lastUsed ? `last used ${clock(of.lastUsed, null)}` : 'never used'}</span>
      <div style={{ marginTop: 6 }}>
        <Button size="xs" variant="default" loading={end.isPending} onClick={() => end.mutate(undefined)}>
          End this key
        </Button>
      </div>
      <Refused problem={end.error} />
    </div>
  )
}
