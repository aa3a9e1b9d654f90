import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { v7 as uuid7 } from 'uuid'
import { api, isOutOfContact, unwrap } from '../../shared/api'
import { draftOf, dropDraft, keepDraft } from '../../shared/typed/drafts'
import type { Holder, Person, ReceiveAnswer } from '../../shared/types'

export type Way = 'receive' | 'issue' | 'move'

/** What was scanned, what is done with it, and what became of it. Its id is made once: sent again it is the same. */
export type Scan = {
  id: string
  way: Way
  serial: string
  to: Holder
  state: 'waits' | 'done' | 'asks' | 'no-answer'
  says: string
  ticket: number | null
  /** What is said of one that is new here. */
  model?: string
  bytes?: number
  asRead?: boolean
  /** The depot that there is, where the one that was named reads nearly the same. */
  nearDepot?: string | null
  newDepot?: boolean
}

const most = 100

const place = 'scans'

/** Scans are sent one after the other, in the order in which they came: a scanner is faster than any network. */
export function useScans() {
  const client = useQueryClient()
  const person = client.getQueryData<Person>(['me'])?.name ?? ''
  const [scans, setScans] = useState<readonly Scan[]>(() => leftOpen(draftOf(person, place).open))
  const tail = useRef(Promise.resolve())

  // What nobody knows the end of outlives the page; what was answered is in the record, or was told to be not.
  useEffect(() => {
    const open = scans.filter(scan => scan.state === 'waits' || scan.state === 'no-answer')
    if (open.length > 0) keepDraft(person, place, { open: JSON.stringify(open) })
    else dropDraft(person, place)
  }, [scans, person])

  const change = useCallback(
    (id: string, to: Partial<Scan>) => setScans(now => now.map(scan => (scan.id === id ? { ...scan, ...to } : scan))),
    [],
  )

  const send = useCallback(
    (scan: Scan) => {
      tail.current = tail.current.then(async () => {
        try {
          const answer = await sent(scan)
          change(scan.id, became(answer))
          if (!answer.asks) void client.invalidateQueries({ queryKey: ['stores'] })
        } catch (problem) {
          const lost = isOutOfContact(problem)
          change(scan.id, {
            state: lost ? 'no-answer' : 'asks',
            says: lost ? 'No answer. Sent again it is taken once, not twice.' : (problem as Error).message,
          })
        }
      })
    },
    [change, client],
  )

  const scan = useCallback(
    (way: Way, serial: string, to: Holder) => {
      const next: Scan = { id: uuid7(), way, serial, to, state: 'waits', says: 'waits', ticket: null }
      setScans(now => [next, ...now].slice(0, most))
      send(next)
    },
    [send],
  )

  /** The same scan again: after a lost answer under its own id, with more said of it under another. */
  const again = useCallback(
    (earlier: Scan, more: Partial<Scan> = {}) => {
      const next = { ...earlier, ...more, id: earlier.state === 'no-answer' ? earlier.id : uuid7(), state: 'waits' as const, says: 'waits' }
      setScans(now => now.map(scan => (scan.id === earlier.id ? next : scan)))
      send(next)
    },
    [send],
  )

  return { scans, scan, again }
}

/** Scans that a page left behind. One that waited for its answer may have been taken; sent again under its id, it is taken once. */
export function leftOpen(kept: string | undefined): readonly Scan[] {
  try {
    return (JSON.parse(kept ?? '[]') as Scan[]).map(scan =>
      scan.state === 'waits'
        ? { ...scan, state: 'no-answer', says: 'The page was left before an answer came. Sent again it is taken once, not twice.' }
        : scan,
    )
  } catch {
    return [] // not ours
  }
}

const became = (answer: ReceiveAnswer): Partial<Scan> => ({
  state: answer.asks ? 'asks' : 'done',
  says: answer.says,
  ticket: answer.ticket ?? null,
  nearDepot: answer.nearDepot ?? null,
})

async function sent({ id, way, serial, to, model, bytes, asRead, newDepot }: Scan): Promise<ReceiveAnswer> {
  if (way === 'issue') return unwrap(await api.POST('/api/stores/hand-outs', { body: { id, serial, to: to.name } }))
  if (way === 'move') {
    const moved = unwrap(await api.POST('/api/stores/moves', { body: { id, serials: [serial], to, newDepot: newDepot ?? false } }))
    return moved.parts[0] as ReceiveAnswer // one in, one out
  }
  return unwrap(
    await api.POST('/api/stores/receipts', {
      body: { id, serial, to, model: model ?? null, bytes: bytes ?? null, asRead: asRead ?? false, newDepot: newDepot ?? false },
    }),
  )
}
