import { Button, TextInput } from '@mantine/core'

const parts = ['Name', 'Asked about', 'How reached'] as const

/** Whom to ask, a row each. Kept as one text, a line each, so that a draft of it is a draft like any other. */
export function PeopleFields({ value, set }: { value: string; set: (value: string) => void }) {
  const rows = value.split('\n').map(line => line.split('|'))
  const put = (nth: number, part: number, text: string) =>
    set(
      rows
        .map((row, i) => parts.map((_, p) => (i === nth && p === part ? text.replace(/[|\n]/g, ' ') : (row[p] ?? ''))).join('|'))
        .join('\n'),
    )
  return (
    <fieldset className="stack" style={{ border: 0, padding: 0, margin: 0 }}>
      <legend>Whom to ask there</legend>
      {rows.map((row, nth) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a row is what stands at its place
        <div key={nth} className="row">
          {parts.map((label, part) => (
            <TextInput
              key={label}
              label={label}
              aria-label={`${label} ${nth + 1}`}
              style={{ flex: '1 1 140px' }}
              value={row[part] ?? ''}
              onChange={e => put(nth, part, e.currentTarget.value)}
            />
          ))}
        </div>
      ))}
      <Button type="button" variant="default" onClick={() => set(`${value}\n`)}>
        Somebody else as well
      </Button>
    </fieldset>
  )
}
