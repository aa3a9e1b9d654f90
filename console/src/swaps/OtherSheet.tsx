import { Text, Textarea } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../shared/api'
import { Press } from '../shared/typed/Press'
import { useDraft } from '../shared/typed/useDraft'
import type { OtherSheets, RunView } from '../shared/types'
import { Waiting } from '../shared/Waiting'
import type { Writer } from '../tickets'

type Sheet = OtherSheets['sheets'][number]

/** Something else has happened: its sheet is followed first, and this one goes on after it. Or another one takes this one's place. */
export function OtherSheet({ ticket, run, writer }: { ticket: number; run: RunView; writer: Writer }) {
  const found = useQuery({
    queryKey: ['tickets', ticket, 'other sheets', run.current?.id],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/tickets/{number}/sheets', { params: { path: { number: ticket } }, signal })),
  })
  if (!found.data) return <Waiting for="what else may be followed" problem={found.error} />
  const others = found.data.sheets
  const instead = others.filter(o => !o.isRecovery)
  return (
    <>
      <details className="other-sheet">
        <summary>Something else has happened</summary>
        <div className="run-choices">
          {others
            .filter(o => o.isRecovery)
            .map(o => (
              <SheetPress
                key={o.procedure}
                sheet={o}
                busy={writer.busy}
                press={() => writer.run({ errand: 'sheet', procedure: o.procedure })}
              />
            ))}
        </div>
      </details>
      {instead.length > 0 && <Instead sheets={instead} run={run} writer={writer} />}
    </>
  )
}

/** Leaving a sheet is a decision with a reason; what both have and is done stays done, and one may come back. */
function Instead({ sheets, run, writer }: { sheets: Sheet[]; run: RunView; writer: Writer }) {
  const { fields, typed, drop } = useDraft(`leave-${run.sheet.id}`, { because: '' })
  const go = async (procedure: string) => {
    if (await writer.run({ errand: 'sheet', procedure, because: fields.because })) drop()
  }
  return (
    <details className="other-sheet">
      <summary>Go over to another sheet</summary>
      <Textarea label="Why; it stands in the record" value={fields.because} onChange={typed('because')} />
      <div className="run-choices">
        {sheets.map(o => (
          <SheetPress key={o.procedure} sheet={o} busy={writer.busy} press={() => go(o.procedure)} />
        ))}
      </div>
    </details>
  )
}

function SheetPress({ sheet, busy, press }: { sheet: Sheet; busy: boolean; press: () => unknown }) {
  if (sheet.whyNot)
    return (
      <Text size="sm" c="dimmed">
        {sheet.title}: {sheet.whyNot}
      </Text>
    )
  return (
    <Press variant="default" busy={busy} onClick={press}>
      {sheet.title}
      {sheet.wasLeft && ', where it was left'}
    </Press>
  )
}
