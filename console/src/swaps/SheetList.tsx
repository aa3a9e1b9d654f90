import { memo } from 'react'
import type { RunStep, RunView } from '../shared/types'

/** The whole sheet to look at: what was answered, where one stands, what is to come. */
export function SheetList({ run }: { run: RunView }) {
  const chapters = Object.entries(Object.groupBy(run.sheet.steps, step => step.chapter))
  const last = new Map(run.visits.map(v => [v.step, v])) // the last one of a step stands
  return (
    <section className="panel" aria-label="The whole sheet">
      <h2>{run.sheet.title}</h2>
      <p className="chalk mono" style={{ fontSize: 13 }}>
        {run.sheet.procedure} {run.sheet.version}
      </p>
      {chapters.map(([chapter, steps]) => (
        <div key={chapter}>
          <h3 style={{ fontSize: 15, margin: '12px 0 4px' }}>{chapter}</h3>
          <ol className="sheet-steps">
            {steps?.map(step => (
              <Line key={step.id} step={step} isCurrent={step.id === run.current?.id} answer={answered(last.get(step.id))} />
            ))}
          </ol>
        </div>
      ))}
    </section>
  )
}

/** Drawn again only where something of it changed: there may be hundreds. */
const Line = memo(function Line({ step, isCurrent, answer }: { step: RunStep; isCurrent: boolean; answer: string }) {
  return (
    <li aria-current={isCurrent ? 'step' : undefined}>
      <span aria-hidden="true">{isCurrent ? '► ' : answer ? '✓ ' : '· '}</span>
      {step.say} <span className="chalk">{answer}</span>
    </li>
  )
})

function answered(visit: RunView['visits'][number] | undefined): string {
  return visit ? `[${visit.overruled ? `overruled by ${visit.by}: ${visit.said}` : visit.answer}]` : ''
}
