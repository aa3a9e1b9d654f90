import type { RunView } from '../shared/types'

/** The whole sheet to look at: what was answered, where one stands, what is to come. */
export function SheetList({ run }: { run: RunView }) {
  const chapters = Object.entries(Object.groupBy(run.sheet.steps, step => step.chapter))
  return (
    <section className="panel" aria-label="The whole sheet">
      <h2>{run.sheet.title}</h2>
      <p className="chalk mono" style={{ fontSize: 13 }}>
        {run.sheet.procedure} {run.sheet.version}
      </p>
      {chapters.map(([chapter, steps]) => (
        <div key={chapter}>
          <h3 style={{ fontSize: 15, margin: '12px 0 4px' }}>{chapter}</h3>
          <ol style={{ margin: 0, paddingLeft: 0, listStyle: 'none', fontSize: 15 }}>
            {steps?.map(step => (
              <li
                key={step.id}
                aria-current={step.id === run.current?.id ? 'step' : undefined}
                style={{ fontWeight: step.id === run.current?.id ? 700 : 400 }}
              >
                <span aria-hidden="true">{step.id === run.current?.id ? '► ' : answered(run, step.id) ? '✓ ' : '· '}</span>
                {step.say} <span className="chalk">{answered(run, step.id)}</span>
              </li>
            ))}
          </ol>
        </div>
      ))}
    </section>
  )
}

function answered(run: RunView, step: string): string {
  const last = run.visits.findLast(v => v.step === step)
  return last ? `[${last.overruled ? `overruled by ${last.by}: ${last.said}` : last.answer}]` : ''
}
