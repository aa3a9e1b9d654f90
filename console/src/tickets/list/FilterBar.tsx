import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import { useState } from 'react'
import { said } from '../../shared/words'
import type { FilterName, TicketFilter } from './ticketFilter'

type Props = { filter: TicketFilter; set: (name: FilterName, value: string) => void; clear: () => void; onlyOpen?: boolean }

const stages = ['received', 'planned', 'on-site', 'rebuilding', 'returning', 'closed', 'cancelled']
const dangers = ['data-lost', 'no-margin', 'some-margin', 'not-known']
const orders = ['newest', 'worst', 'due-first']

// The service counts no further.
const mostCounted = 1_001

/** How many there are, as far as they were counted. */
export const counted = (count: number) => (count >= mostCounted ? `over ${mostCounted - 1}` : `${count}`)

/** Find at once; the rest is folded away until somebody wants it, or the address asks for it. */
export function FilterBar({ filter, set, clear, onlyOpen = false }: Props) {
  const narrowed = Object.keys(filter).some(name => name !== 'find')
  return (
    <search className="stack" style={{ margin: '8px 0' }}>
      <Typed name="find" label="Find" placeholder="Ticket, or any part of an asset, serial, site or customer" filter={filter} set={set} />
      <details open={narrowed}>
        <summary>Narrow and order</summary>
        <div className="row" style={{ alignItems: 'end', marginTop: 8 }}>
          <Chosen name="stage" label="Stage" words={stages} filter={filter} set={set} />
          <Chosen name="danger" label="Danger" words={dangers} filter={filter} set={set} />
          <Chosen name="order" label="Order" words={orders} filter={filter} set={set} first="as it comes" />
          {!onlyOpen && (
            <NativeSelect
              label="Open or ended"
              value={filter.ended ?? ''}
              onChange={e => set('ended', e.currentTarget.value)}
              data={[
                { value: '', label: 'as it fits' },
                { value: 'false', label: 'open' },
                { value: 'true', label: 'ended' },
                { value: 'any', label: 'both' },
              ]}
            />
          )}
          <Typed name="site" label="Site" filter={filter} set={set} />
          <Typed name="customer" label="Customer" filter={filter} set={set} />
          <Typed name="engineer" label="Engineer" filter={filter} set={set} />
          <Checkbox
            label="Overdue only"
            checked={filter.overdue === 'true'}
            onChange={e => set('overdue', e.currentTarget.checked ? 'true' : '')}
          />
          {(narrowed || filter.find) && (
            <Button variant="default" onClick={clear}>
              Clear
            </Button>
          )}
        </div>
      </details>
    </search>
  )
}

/** Goes into the address once the typing pauses. */
function Typed({
  name,
  label,
  placeholder,
  filter,
  set,
}: Omit<Props, 'clear' | 'onlyOpen'> & { name: FilterName; label: string; placeholder?: string }) {
  const inAddress = filter[name] ?? ''
  const [text, setText] = useState(inAddress)
  const [seen, setSeen] = useState(inAddress)
  const [sent, setSent] = useState<readonly string[]>([])
  const send = useDebouncedCallback((typed: string) => {
    setSent(before => [...before, typed])
    set(name, typed)
  }, 250)
  // The address follows a while after what is typed here, and is no reason to type something else. Where it is nothing of ours,
  // somebody cleared it, or came back to another one: then that stands here.
  if (inAddress !== seen) {
    setSeen(inAddress)
    setSent(sent.slice(sent.lastIndexOf(inAddress) + 1))
    if (!sent.includes(inAddress)) setText(inAddress)
  }
  const typed = (said: string) => {
    setText(said)
    send(said.trim())
  }
  return <TextInput label={label} placeholder={placeholder} value={text} onChange={e => typed(e.currentTarget.value)} />
}

function Chosen({
  name,
  label,
  words,
  filter,
  set,
  first = 'any',
}: Omit<Props, 'clear' | 'onlyOpen'> & { name: FilterName; label: string; words: string[]; first?: string }) {
  return (
    <NativeSelect
      label={label}
      value={filter[name] ?? ''}
      onChange={e => set(name, e.currentTarget.value)}
      data={[{ value: '', label: first }, ...words.map(word => ({ value: word, label: said(word) }))]}
    />
  )
}
