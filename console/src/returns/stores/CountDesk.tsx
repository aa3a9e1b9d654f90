import { Button, Textarea } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { Link } from 'react-router'
import { v7 as uuid7 } from 'uuid'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useDraft } from '../../shared/typed/useDraft'
import type { CountAnswer, Holder } from '../../shared/types'

/** Scan all that is there, then hold it against the record. Nothing is changed before somebody says so. */
export function CountDesk({ at }: { at: Holder }) {
  const { fields, typed } = useDraft('count', { serials: '' })
  const id = useRef(uuid7()) // kept until it is answered: sent again it is the same count
  const client = useQueryClient()
  const scanned = fields.serials.split(/\s+/).filter(Boolean)
  const count = useMutation({
    mutationFn: async (book: boolean) =>
      unwrap(await api.POST('/api/stores/counts', { body: { id: id.current, at, serials: scanned, book } })),
    onSuccess: () => {
      id.current = uuid7()
      return client.invalidateQueries({ queryKey: ['stores'] })
    },
  })
  return (
    <div className="stack">
      <Textarea
        label="Serials, one after the other"
        description={`${new Set(scanned).size} scanned.`}
        classNames={{ input: 'mono' }}
        rows={6}
        spellCheck={false}
        value={fields.serials}
        onChange={typed('serials')}
      />
      <Button variant="default" loading={count.isPending} disabled={scanned.length === 0 || !at.name} onClick={() => count.mutate(false)}>
        Compare with the record
      </Button>
      <Refused problem={count.error} />
      {count.data && <Result answer={count.data} book={() => count.mutate(true)} busy={count.isPending} />}
    </div>
  )
}

function Result({ answer: { counted, booked }, book, busy }: { answer: CountAnswer; book: () => void; busy: boolean }) {
  const open = counted.found.filter(f => !booked.some(b => b.serial === f.serial && !b.asks))
  return (
    <div aria-live="polite" className="stack">
      <p style={{ margin: 0 }}>
        {counted.scanned} scanned, {counted.asRecorded} as recorded
        {counted.missing.length === 0 && counted.found.length === 0 && counted.unknown.length === 0 ? ': all of it agrees.' : '.'}
      </p>
      <Lines title="Recorded here, and not scanned" serials={counted.missing.map(m => [m.serial, m.model])} />
      <Lines title="Here, and recorded elsewhere" serials={open.map(f => [f.serial, f.says])} />
      <Lines title="Here, and not known" serials={counted.unknown.map(u => [u, 'take it in'])} />
      <Lines title="Scanned twice; each counts once" serials={counted.twice.map(t => [t, ''])} />
      <Lines title="No serials" serials={counted.unusable.map(u => [u, ''])} />
      {booked.map(b => (
        <p key={b.serial} style={{ margin: 0 }} className={b.asks ? 'brick' : undefined}>
          {b.says}
        </p>
      ))}
      {open.length > 0 && booked.length === 0 && (
        <Button variant="default" loading={busy} onClick={book}>
          Write down that {open.length === 1 ? 'it is' : 'they are'} here
        </Button>
      )}
    </div>
  )
}

function Lines({ title, serials }: { title: string; serials: readonly (readonly [string, string])[] }) {
  if (serials.length === 0) return null
  return (
    <div>
      <strong>{title}</strong>
      <ul style={{ margin: 0, paddingLeft: 20 }}>
        {serials.map(([serial, says]) => (
          <li key={serial}>
            <Link className="mono" to={`/drives/${encodeURIComponent(serial)}`}>
              {serial}
            </Link>{' '}
            {says}
          </li>
        ))}
      </ul>
    </div>
  )
}
