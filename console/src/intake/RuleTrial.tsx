import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useMay } from '../people'
import { api, unwrap } from '../shared/api'
import { Refused } from '../shared/Refused'
import type { components } from '../shared/schema'
import { useDraft } from '../shared/typed/useDraft'

type Tried = components['schemas']['Tried']

/** A pasted line, a pattern, and what the pattern makes of it, before it becomes a rule. */
export function RuleTrial({ line }: { line: string | null }) {
  const mayMake = useMay('make-rules')
  const client = useQueryClient()
  const { fields, typed, set } = useDraft('rule', { text: '', id: '', pattern: '', kind: 'log-lines' })
  const { text, ...rule } = fields
  useEffect(() => {
    if (line) set('text', line)
  }, [line, set])
  const body = { id: rule.id || '0-tried', pattern: rule.pattern, kind: rule.kind as 'log-lines', app: null, says: null }
  const attempt = useMutation({
    mutationFn: async () => unwrap(await api.POST('/api/intake/try', { body: { line: text, rule: rule.pattern ? body : null } })),
  })
  const keep = useMutation({
    mutationFn: async () => unwrap(await api.PUT('/api/intake/rules/{id}', { params: { path: { id: rule.id } }, body })),
    onSettled: () => client.invalidateQueries({ queryKey: ['intake'] }),
  })
  if (!mayMake) return null
  return (
    <details className="panel" open={Boolean(line)}>
      <summary>Try a line on the rules</summary>
      <div className="stack" style={{ marginTop: 12 }}>
        <TextInput label="A line, from its <priority> on" classNames={{ input: 'mono' }} value={text} onChange={typed('text')} />
        <TextInput
          label="Pattern, with (?<bay>…), (?<name>…), (?<serial>…), (?<array>…), (?<asset>…), (?<count>…)"
          classNames={{ input: 'mono' }}
          value={rule.pattern}
          onChange={typed('pattern')}
        />
        <div className="row" style={{ alignItems: 'flex-end' }}>
          <TextInput label="Id of the rule" value={rule.id} onChange={typed('id')} />
          <NativeSelect
            label="Is evidence of kind"
            data={['log-lines', 'counters', 'self-test', 'link-speed', 'lamp', 'beeper', 'alert']}
            value={rule.kind}
            onChange={typed('kind')}
          />
          <Button variant="default" disabled={!text} loading={attempt.isPending} onClick={() => attempt.mutate()}>
            Try it
          </Button>
          <Button variant="default" disabled={!rule.id || !rule.pattern} loading={keep.isPending} onClick={() => keep.mutate()}>
            Keep the rule
          </Button>
        </div>
        <Refused problem={attempt.error ?? keep.error} />
        {attempt.data && <p style={{ margin: 0 }}>{triedTold(attempt.data)}</p>}
        {keep.data && (
          <p style={{ margin: 0 }}>
            Rule {keep.data.rule.id} is kept; {keep.data.understood} messages are understood by it now.
          </p>
        )}
      </div>
    </details>
  )
}

function triedTold(t: Tried): string {
  if (t.problem) return `Not read: ${t.problem}`
  if (!t.rule) return `Read from ${t.host ?? 'no host'}, ${t.app ?? 'no program'}: no rule matches.`
  const captured = Object.entries({ bay: t.bay, name: t.name, serial: t.serial, array: t.array, asset: t.asset, count: t.count })
    .filter(([, value]) => value !== null)
    .map(([name, value]) => `${name} ${value}`)
  return `${t.rule} matches: ${t.outcome === 'ignore' ? 'ignored' : [t.kind, ...captured].join(', ')}.`
}
