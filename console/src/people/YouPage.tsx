import { Link } from 'react-router'
import { WaitingPage } from '../shared/Waiting'
import { rolesTold } from '../shared/words'
import { ComingsIn } from './ComingsIn'
import { MakeKey } from './MakeKey'
import { useMe } from './peopleQueries'
import { Elsewhere } from './signingIn/Elsewhere'
import { OwnPassword } from './signingIn/OwnPassword'
import { SecondFactor } from './signingIn/SecondFactor'

/** Oneself: what one may, where one is signed in, one's password and keys. */
export function YouPage() {
  const me = useMe()
  if (!me.data) return <WaitingPage for="who you are" problem={me.error} />
  return (
    <main className="page">
      <h1>{me.data.fullName}</h1>
      <p className="chalk" style={{ marginTop: 0 }}>
        Signed in as {me.data.name}: {rolesTold(me.data.roles)}
        {me.data.mail && `; reminders go to ${me.data.mail}`}.
      </p>
      {me.data.may?.includes('look-after-people') && (
        <p>
          <Link to="/people">Everybody who may come in</Link>
        </p>
      )}
      <ComingsIn name={me.data.name} />
      {me.data.hasPassword && <OwnPassword />}
      {me.data.hasPassword && <SecondFactor />}
      <Elsewhere me={me.data} />
      <MakeKey me={me.data} />
    </main>
  )
}
