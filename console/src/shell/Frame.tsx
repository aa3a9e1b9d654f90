import { Button, useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link, NavLink, useLocation } from 'react-router'
import { api } from '../shared/api'
import { useLive } from '../shared/live/live'
import type { Person } from '../shared/types'
import './frame.css'

const rooms = [
  ['/', 'My day'],
  ['/desk', 'Desk'],
  ['/machines', 'Machines'],
  ['/stores', 'Stores'],
  ['/procedures', 'Procedures'],
  ['/intake', 'Intake'],
] as const

/** The strip on top of every page: home, contact with the service, who you are. */
export function Frame({ me, children }: { me: Person; children: ReactNode }) {
  const contact = useLive()
  const inRun = useLocation().pathname.endsWith('/run') // a hand at a machine needs no rooms
  const client = useQueryClient()
  const { setColorScheme } = useMantineColorScheme()
  const scheme = useComputedColorScheme('light')
  const other = scheme === 'light' ? 'dark' : 'light'
  return (
    <>
      <a className="skip" href="#main">
        To the page
      </a>
      <header className={inRun ? 'frame in-run' : 'frame'}>
        <Link to="/" className="frame-home">
          <svg width="26" height="18" viewBox="0 0 26 18" aria-hidden="true">
            <rect x="1" y="1" width="24" height="16" rx="2" fill="none" stroke="currentColor" strokeWidth="2" />
            <rect x="4" y="4" width="5" height="10" fill="var(--marigold)" />
            <path d="M12 4v10M16.5 4v10M21 4v10" stroke="currentColor" strokeWidth="2" />
          </svg>
          Nailcrow
        </Link>
        <nav className="frame-rooms" aria-label="Rooms">
          {rooms.map(([to, name]) => (
            <NavLink key={to} to={to} end>
              {name}
            </NavLink>
          ))}
        </nav>
        <span role="status" className={contact === 'lost' ? 'frame-contact lost' : 'frame-contact'}>
          {contact === 'lost' ? '◇ out of contact, trying again' : contact === 'live' ? '◆ live' : '◇ connecting'}
        </span>
        <Link to="/you" className="frame-who">
          <span className="frame-full">{me.fullName}</span>
          <span className="frame-you">You</span>
        </Link>
        <Button variant="default" size="xs" onClick={() => setColorScheme(other)}>
          {other === 'dark' ? 'Night' : 'Day'}
        </Button>
        <Button
          variant="default"
          size="xs"
          onClick={async () => {
            await api.POST('/api/sign-out')
            client.clear()
            window.location.assign('/')
          }}
        >
          Sign out
        </Button>
      </header>
      <div id="main">{children}</div>
    </>
  )
}
