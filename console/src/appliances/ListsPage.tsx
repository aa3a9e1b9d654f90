import { Button, Checkbox, FileInput, NativeSelect } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { NotPermitted, useMay } from '../people'
import { sendFile } from '../shared/api'
import { Refused } from '../shared/Refused'
import type { components } from '../shared/schema'

type Result = components['schemas']['ImportResult']

const kinds = [
  { value: 'customers', label: 'Customers' },
  { value: 'sites', label: 'Sites' },
  { value: 'appliances', label: 'Appliances' },
  { value: 'drives', label: 'Drives, in machines and depots' },
  { value: 'qualified', label: "Makers' qualified lists" },
  { value: 'warranties', label: 'Warranties' },
]

/** Lists in and out as CSV. A file is checked first, row by row; only then may it be brought in. */
export function ListsPage() {
  const mayBring = useMay('bring-lists-in')
  return (
    <main className="page">
      <h1>Lists in and out</h1>
      {mayBring ? <BringIn /> : <NotPermitted permission="bring-lists-in" />}
      <section className="panel" aria-labelledby="out">
        <h2 id="out">Out</h2>
        <div className="row">
          {kinds.map(k => (
            <Button key={k.value} component="a" href={`/api/export/${k.value}`} download variant="default">
              {k.label}
            </Button>
          ))}
        </div>
      </section>
    </main>
  )
}

/** A file, what is in it, and first of all what is wrong with it. */
function BringIn() {
  const [kind, setKind] = useState('sites')
  const [file, setFile] = useState<File | null>(null)
  const [all, setAll] = useState(false)
  const send = useMutation({ mutationFn: (dryRun: boolean) => upload(kind, file, dryRun, all) })
  const checked = send.data?.dryRun === true && send.data.kind === kind
  return (
    <section className="panel stack" aria-label="Bring a list in">
      <NativeSelect
        label="What is in it"
        data={kinds}
        value={kind}
        onChange={e => {
          setKind(e.currentTarget.value)
          send.reset()
        }}
      />
      <FileInput
        label="CSV file, its first line naming the columns"
        accept=".csv,text/csv"
        clearable={false}
        value={file}
        onChange={chosen => {
          setFile(chosen)
          send.reset()
        }}
      />
      <Checkbox label="All or nothing: one bad row, and none is brought in" checked={all} onChange={e => setAll(e.currentTarget.checked)} />
      <div className="row">
        <Button disabled={!file} variant={checked ? 'default' : 'filled'} loading={send.isPending} onClick={() => send.mutate(true)}>
          Check it
        </Button>
        {checked && (send.data?.good ?? 0) > 0 && !(all && (send.data?.bad ?? 0) > 0) && (
          <Button loading={send.isPending} onClick={() => send.mutate(false)}>
            Bring {send.data?.good} rows in
          </Button>
        )}
      </div>
      <Refused problem={send.error} />
      {send.data && <Told result={send.data} />}
    </section>
  )
}

function Told({ result }: { result: Result }) {
  return (
    <div aria-live="polite">
      <p style={{ margin: 0 }}>
        <strong>
          {result.rows} rows: {result.good} good, {result.bad} bad, {result.imported} brought in.
        </strong>
        {result.dryRun ? ' Nothing was changed yet.' : ''}
      </p>
      <ul style={{ paddingLeft: 20 }}>
        {result.problems.map(p => (
          <li key={p.line}>
            line {p.line}: {p.reason}
          </li>
        ))}
      </ul>
    </div>
  )
}

const upload = (kind: string, file: File | null, dryRun: boolean, all: boolean) =>
  sendFile<Result>(`/api/import/${kind}?dryRun=${dryRun}&all=${all}`, file, 'text/csv')
