import { useProcedures } from '../procedures'
import { Press } from '../shared/Press'
import { Refused } from '../shared/Refused'
import type { Writer } from '../tickets'

/** Something else has happened: another sheet is followed first, and this one goes on after it. */
export function OtherSheet({ writer }: { writer: Writer }) {
  const procedures = useProcedures()
  return (
    <details className="other-sheet">
      <summary>Something else has happened</summary>
      <Refused problem={procedures.error} />
      <div className="run-choices">
        {procedures.data?.procedures
          .filter(p => p.byName && p.id && !p.withdrawn)
          .map(p => (
            <Press key={p.id} variant="default" busy={writer.busy} onClick={() => writer.run({ errand: 'sheet', procedure: p.id ?? null })}>
              {p.title}
            </Press>
          ))}
      </div>
    </details>
  )
}
