import { useState } from 'react'
import { Press } from '../shared/typed/Press'
import type { RunView } from '../shared/types'
import { said } from '../shared/words'
import type { Writer } from '../tickets'

/** Looking back changes nothing. Taking the last answer back is a new entry; the old one stays in the journal. */
export function TakeBack({ run, writer }: { run: RunView; writer: Writer }) {
  const [looking, setLooking] = useState(0)
  const visit = run.visits.at(-looking)
  const step = looking > 0 && visit ? run.sheet.steps.find(s => s.id === visit.step) : undefined
  return (
    <>
      <Press variant="subtle" disabled={looking >= run.visits.length} onClick={() => setLooking(looking + 1)}>
        {looking === 0 ? 'Look back' : 'Further back'}
      </Press>
      {step && visit && (
        <section className="panel look-back" aria-label="An earlier step">
          <p className="run-kind">
            {looking} back · {said(step.kind)}
          </p>
          <p style={{ fontWeight: 700, margin: 0 }}>{step.say}</p>
          <p style={{ margin: '4px 0' }}>
            {visit.overruled ? 'Overruled' : said(visit.answer)}, by {visit.by}
            {visit.said ? `. ${visit.said}` : ''}
          </p>
          <div className="row">
            {looking === 1 && (
              <Press
                variant="default"
                busy={writer.busy}
                onClick={async () => {
                  if (await writer.write({ kind: 'step-taken-back', sheet: run.sheet.id, step: visit.step })) setLooking(0)
                }}
              >
                Take this answer back
              </Press>
            )}
            <Press variant="default" onClick={() => setLooking(0)}>
              Back to now
            </Press>
          </div>
        </section>
      )}
    </>
  )
}
