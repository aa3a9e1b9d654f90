import { Button, TextInput } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { ticketName } from '../../shared/words'
import type { Scan } from './scans'

const signs = { waits: '○', done: '●', asks: '◆', 'no-answer': '◇' } as const

type Props = { scan: Scan; again: (scan: Scan, more?: Partial<Scan>) => void }

/** What became of one scan; where something has to be said first, it is asked here. */
export function ScanLine({ scan, again }: Props) {
  return (
    <li className="part-line">
      <span aria-hidden="true">{signs[scan.state]}</span>{' '}
      {!scan.says.toUpperCase().includes(scan.serial.toUpperCase()) && <span className="mono">{scan.serial} </span>}
      <span className={scan.state === 'asks' ? 'brick' : scan.state === 'waits' ? 'chalk' : undefined}>{scan.says}</span>{' '}
      {scan.ticket !== null && <Link to={`/tickets/${scan.ticket}/return`}>{ticketName(scan.ticket)}</Link>}
      {scan.state === 'no-answer' && (
        <Button variant="default" size="xs" onClick={() => again(scan)}>
          Send again
        </Button>
      )}
      {scan.state === 'asks' && scan.nearDepot && <WhichDepot scan={scan} depot={scan.nearDepot} again={again} />}
      {scan.state === 'asks' && !scan.nearDepot && scan.way === 'receive' && <NewHere scan={scan} again={again} />}
    </li>
  )
}

/** A depot that reads nearly like another one is that, or a new one. */
function WhichDepot({ scan, depot, again }: Props & { depot: string }) {
  return (
    <span className="row">
      <Button variant="default" size="xs" onClick={() => again(scan, { to: { ...scan.to, name: depot } })}>
        Into {depot}
      </Button>
      <Button variant="default" size="xs" onClick={() => again(scan, { newDepot: true })}>
        {scan.to.name} is a new depot
      </Button>
    </span>
  )
}

/** A part nobody knows: as its label says. */
function NewHere({ scan, again }: Props) {
  const [model, setModel] = useState('')
  const [terabytes, setTerabytes] = useState('')
  const bytes = Math.round(Number(terabytes.replace(',', '.')) * 1e12)
  return (
    <form
      className="row"
      style={{ alignItems: 'flex-end', marginTop: 4 }}
      aria-label={`${scan.serial} is new here`}
      onSubmit={event => {
        event.preventDefault()
        again(scan, { model: model.trim(), bytes, asRead: true })
      }}
    >
      <TextInput label="Model on its label" value={model} onChange={e => setModel(e.currentTarget.value)} required />
      <TextInput label="Size, TB" inputMode="decimal" value={terabytes} onChange={e => setTerabytes(e.currentTarget.value)} required />
      <Button type="submit" variant="default" disabled={!model.trim() || !(bytes > 0)}>
        It is new here, and as read
      </Button>
    </form>
  )
}
