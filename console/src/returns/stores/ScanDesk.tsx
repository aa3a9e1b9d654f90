import { NativeSelect, TextInput } from '@mantine/core'
import { lazy, Suspense, useRef, useState } from 'react'
import { usePeople } from '../../people'
import { Press } from '../../shared/typed/Press'
import { useDraft } from '../../shared/typed/useDraft'
import type { Holder } from '../../shared/types'
import { CountDesk } from './CountDesk'
import { ScanLine } from './ScanLine'
import { useScans, type Way } from './scans'

// The reader of codes is large, and a desk with a scanner never needs it.
const CameraScan = lazy(() => import('../../shared/scanning/CameraScan').then(part => ({ default: part.CameraScan })))

const ways = { receive: 'Take in', issue: 'Hand out', move: 'Put elsewhere', count: 'Count' } as const

const nothing = { way: 'receive', depot: '', shelf: '', van: '', to: '' }

type Props = { depots: readonly string[]; depot: string }

/** One field for the scanner, and what is done with what it reads. Everything here is done by keyboard alone. */
export function ScanDesk({ depots, depot }: Props) {
  const { fields, typed } = useDraft('stores', { ...nothing, depot: depot || (depots[0] ?? '') })
  const [missing, setMissing] = useState<string | null>(null)
  const { scans, scan, again } = useScans()
  const way = fields.way as keyof typeof ways
  const place: Holder =
    way === 'issue'
      ? { kind: 'engineer', name: fields.to }
      : way !== 'receive' && fields.van
        ? { kind: 'van', name: fields.van }
        : { kind: 'depot', name: fields.depot.trim(), shelf: fields.shelf.trim() || null }
  /** Taken, unless it has to be said first where it goes. */
  const take = (read: string) => {
    if (!read.trim()) return false
    if (!place.name) {
      setMissing(way === 'issue' ? 'Say first who takes it.' : 'Say first into which depot.')
      return false
    }
    setMissing(null)
    scan(way as Way, read.trim(), place)
    return true
  }
  return (
    <section className="panel now stack" aria-label="Scan">
      <div className="row" style={{ alignItems: 'flex-end' }}>
        <NativeSelect label="What you do" value={way} onChange={typed('way')}>
          {Object.entries(ways).map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </NativeSelect>
        {way === 'issue' ? (
          <Person label="To" value={fields.to} onChange={typed('to')} none="who takes it" />
        ) : (
          <Where depots={depots} fields={fields} typed={typed} mayBeVan={way !== 'receive'} inVan={place.kind === 'van'} />
        )}
      </div>
      {way === 'count' ? <CountDesk at={place} /> : <SerialField take={take} missing={missing} />}
      {scans.length > 0 && (
        <ol aria-live="polite" aria-label="Scanned" style={{ margin: 0, padding: 0, listStyle: 'none' }}>
          {scans.map(one => (
            <ScanLine key={one.id} scan={one} again={again} />
          ))}
        </ol>
      )}
    </section>
  )
}

type WhereProps = Pick<ReturnType<typeof useDraft<typeof nothing>>, 'fields' | 'typed'> & {
  depots: readonly string[]
  mayBeVan: boolean
  inVan: boolean
}

function Where({ depots, fields, typed, mayBeVan, inVan }: WhereProps) {
  return (
    <>
      <TextInput label="Depot" list="depots" value={fields.depot} onChange={typed('depot')} disabled={inVan} />
      <datalist id="depots">
        {depots.map(name => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <TextInput label="Shelf" value={fields.shelf} onChange={typed('shelf')} disabled={inVan} />
      {mayBeVan && <Person label="Or the van of" value={fields.van} onChange={typed('van')} none="no van" />}
    </>
  )
}

/** What is read stays in the field until it is taken. */
function SerialField({ take, missing }: { take: (read: string) => boolean; missing: string | null }) {
  const [serial, setSerial] = useState('')
  const [camera, setCamera] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  return (
    <form
      className="stack"
      onSubmit={event => {
        event.preventDefault()
        if (take(serial)) setSerial('')
        field.current?.focus()
      }}
    >
      <TextInput
        ref={field}
        autoFocus
        label="Serial"
        description="Scan it, or type it and press Enter."
        classNames={{ input: 'mono' }}
        autoComplete="off"
        autoCapitalize="characters"
        spellCheck={false}
        error={missing}
        value={serial}
        onChange={e => setSerial(e.currentTarget.value)}
      />
      {camera ? (
        <Suspense fallback={<p>The camera is made ready.</p>}>
          <CameraScan
            found={read => {
              setCamera(false)
              if (!take(read)) setSerial(read)
            }}
            close={() => setCamera(false)}
          />
        </Suspense>
      ) : (
        <Press variant="default" onClick={() => setCamera(true)}>
          Scan with the camera
        </Press>
      )}
    </form>
  )
}

type PersonProps = { label: string; value: string; none: string; onChange: (event: React.ChangeEvent<HTMLSelectElement>) => void }

function Person({ label, value, none, onChange }: PersonProps) {
  const people = usePeople()
  return (
    <NativeSelect label={label} value={value} onChange={onChange}>
      <option value="">{none}</option>
      {(people.data?.people ?? [])
        .filter(p => p.roles.includes('engineer'))
        .map(p => (
          <option key={p.name} value={p.name}>
            {p.fullName}
          </option>
        ))}
    </NativeSelect>
  )
}
