import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useInfiniteQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { api, unwrap } from '../shared/api'
import { clock } from '../shared/time'
import type { SecurityLine } from '../shared/types'
import { WaitingPage } from '../shared/Waiting'
import { said } from '../shared/words'

// As with roles: the compiler tells of a kind that is new here.
const kinds = Object.keys({
  'signed-in': 0,
  'sign-in-refused': 0,
  'sign-in-slowed': 0,
  'signed-out': 0,
  'session-ended': 0,
  'person-added': 0,
  'person-renamed': 0,
  'roles-changed': 0,
  'person-disabled': 0,
  'person-enabled': 0,
  'person-left': 0,
  'password-given': 0,
  'password-changed': 0,
  'second-factor-set-up': 0,
  'second-factor-ended': 0,
  'second-factor-taken-away': 0,
  'recovery-codes-made': 0,
  'recovery-code-used': 0,
  'mail-changed': 0,
  'elsewhere-joined': 0,
  'elsewhere-parted': 0,
  'key-made': 0,
  'key-ends-soon': 0,
  'key-ended': 0,
  'let-back-in': 0,
  'call-refused': 0,
  'machine-sign-in-given': 0,
  'machine-sign-in-taken-away': 0,
  'machine-trusted': 0,
  'rule-kept': 0,
  'procedure-published': 0,
  'procedure-withdrawn': 0,
  'procedure-brought-back': 0,
  'list-exported': 0,
  'backed-up': 0,
  'keys-renewed': 0,
} satisfies Record<SecurityLine['what'], number>)

/** Who came in or tried to, and who changed what others may do; newest first. */
export function SecurityLogPage() {
  const [asked, setAsked] = useSearchParams()
  const [by, what] = [asked.get('by') ?? '', asked.get('what') ?? '']
  const log = useInfiniteQuery({
    queryKey: ['security-log', by, what],
    queryFn: async ({ signal, pageParam }) =>
      unwrap(
        await api.GET('/api/security-log', {
          params: { query: { ...(by ? { by } : {}), ...(what ? { what } : {}), ...(pageParam ? { before: pageParam } : {}) } },
          signal,
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: page => page.next,
  })
  const ask = (field: 'by' | 'what', value: string) =>
    setAsked(now => {
      if (value) now.set(field, value)
      else now.delete(field)
      return now
    })
  return (
    <main className="page wide">
      <h1>Who came in</h1>
      <div className="row" style={{ marginBottom: 12 }}>
        <TextInput label="By" placeholder="anybody" value={by} onChange={event => ask('by', event.currentTarget.value.trim())} />
        <NativeSelect
          label="What"
          value={what}
          onChange={event => ask('what', event.currentTarget.value)}
          data={[{ value: '', label: 'anything' }, ...kinds.map(kind => ({ value: kind, label: said(kind) }))]}
        />
      </div>
      {!log.data && <WaitingPage for="the log" problem={log.error} />}
      {log.data && (
        <section className="panel" aria-label="Lines">
          {log.data.pages
            .flatMap(page => page.lines)
            .map(line => (
              <Line key={line.seq} line={line} />
            ))}
          {log.data.pages[0]?.lines.length === 0 && <p className="chalk">Nothing of that kind.</p>}
          {log.hasNextPage && (
            <Button variant="default" loading={log.isFetchingNextPage} onClick={() => log.fetchNextPage()}>
              Show older
            </Button>
          )}
        </section>
      )}
    </main>
  )
}

function Line({ line }: { line: SecurityLine }) {
  return (
    <div className="part-line">
      <span className="chalk">{clock(line.at, null)}</span> <strong>{line.by}</strong> {said(line.what)}
      {line.about && line.about !== line.by && `: ${line.about}`}
      {line.address && (
        <>
          {' '}
          from <span className="mono">{line.address}</span>
        </>
      )}
      {line.detail && <span className="chalk"> · {line.detail}</span>}
    </div>
  )
}
