import { NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Refused } from '../shared/Refused'
import type { components } from '../shared/schema'
import { WaitingPage } from '../shared/Waiting'
import { said } from '../shared/words'
import { useDifference, useModels, usePreview, useProcedure, useTimes } from './procedureQueries'
import './procedures.css'

type Page = components['schemas']['ProcedurePage']

/** One procedure: what it looks like on a machine, its branches drawn, its versions, and how its steps go. */
export function ProcedurePage() {
  const id = useParams().id ?? ''
  const [version, setVersion] = useState<string>()
  const page = useProcedure(id, version)
  if (!page.data) return <WaitingPage for="the procedure" problem={page.error} />
  const current = page.data.versions.find(v => v.version === page.data.version)
  return (
    <main className="page" id="main">
      <p>
        <Link to="/procedures">Procedures</Link>
      </p>
      <h1>{page.data.title}</h1>
      <p className="proof">
        {current?.withdrawnBecause ? (
          <b className="brick">▲ withdrawn: {current.withdrawnBecause}</b>
        ) : current?.noLonger ? (
          <b className="brick">▲ used for no new run. {current.noLonger}</b>
        ) : (
          <b className="pine">◆ proved, {current?.states.toLocaleString('en')} situations</b>
        )}{' '}
        <span className="chalk">
          {page.data.id} {page.data.version} · redundancy comes back {said(page.data.comesBack).toLowerCase()}
        </span>
      </p>
      <p className="chalk mono applies">{page.data.appliesTo}</p>
      <Preview id={id} version={page.data.version} />
      <Versions page={page.data} choose={setVersion} />
      <TakenOnTrust page={page.data} />
      <Times id={id} />
      <details className="panel">
        <summary>Its steps and branches, drawn</summary>
        <div className="drawing">
          <img alt={`Steps and branches of ${page.data.title}`} src={`data:image/svg+xml;utf8,${encodeURIComponent(page.data.drawing)}`} />
        </div>
      </details>
    </main>
  )
}

/** The sheet as an engineer would get it, for any model. */
function Preview({ id, version }: { id: string; version: string }) {
  const models = useModels()
  const [model, setModel] = useState('')
  const sheet = usePreview(id, model, version)
  return (
    <section className="panel" aria-label="Preview">
      <NativeSelect
        label="As it would be on"
        value={model}
        onChange={e => setModel(e.currentTarget.value)}
        data={[{ value: '', label: 'choose a model' }, ...(models.data ?? []).map(m => ({ value: m.id, label: `${m.maker} ${m.name}` }))]}
      />
      <Refused problem={sheet.error} />
      {sheet.data && (
        <ol className="preview">
          {sheet.data.steps.map(step => (
            <li key={step.id}>
              <b className="chalk">{said(step.kind)}</b> {step.say}
              {step.see && <span className="chalk"> Then you see: {step.see}</span>}
            </li>
          ))}
        </ol>
      )}
    </section>
  )
}

const beliefs = {
  'moves-nothing': 'Moves or empties no drive',
  means: 'Means something else than it sounds',
  mark: 'Really is this mark',
}

/** What no proof can know: whoever published this version answers for it. */
function TakenOnTrust({ page }: { page: Page }) {
  const by = page.versions.find(v => v.version === page.version)?.publishedBy
  return (
    <details className="panel">
      <summary>
        Taken on trust: {page.trusted.length} things no proof can know; {by} answers for them
      </summary>
      {Object.entries(beliefs).map(([what, title]) => {
        const some = page.trusted.filter(t => t.what === what)
        return some.length === 0 ? null : (
          <section key={what} aria-label={title}>
            <h3>{title}</h3>
            <ul className="trusted">
              {some.map(t => (
                <li key={t.step + (t.word ?? '')}>
                  <b className="mono">{t.step}</b> {t.word && <i>{t.word}: </i>}
                  {t.sentence}
                  {t.claim && <b> {t.claim}</b>}
                </li>
              ))}
            </ul>
          </section>
        )
      })}
    </details>
  )
}

function Versions({ page, choose }: { page: Page; choose: (version: string) => void }) {
  const [before, setBefore] = useState('')
  const difference = useDifference(page.id, before, page.version)
  return (
    <section className="panel" aria-label="Versions">
      <h2>Versions</h2>
      <ul className="versions">
        {page.versions.map(v => (
          <li key={v.version}>
            <button
              type="button"
              className="link mono"
              aria-current={v.version === page.version || undefined}
              onClick={() => choose(v.version)}
            >
              {v.version}
            </button>{' '}
            {new Date(v.publishedAt).toISOString().slice(0, 10)} by {v.publishedBy}
            {v.withdrawnAt && (
              <b className="brick">
                {' '}
                withdrawn by {v.withdrawnBy}: {v.withdrawnBecause}
              </b>
            )}
            {v.earlier && <span className="chalk"> {v.earlier}</span>}
            {v.noLonger && !v.withdrawnAt && <b className="brick"> used for no new run. {v.noLonger}</b>}
          </li>
        ))}
      </ul>
      {page.versions.length > 1 && (
        <NativeSelect
          label="What differs from"
          value={before}
          onChange={e => setBefore(e.currentTarget.value)}
          data={['', ...page.versions.map(v => v.version).filter(v => v !== page.version)]}
        />
      )}
      <Refused problem={difference.error} />
      {difference.data?.changes.length === 0 && <p>Nothing differs in what is done.</p>}
      {difference.data?.changes.map(change => (
        <div key={change.step + change.what} className="change">
          <b>{change.step}</b> {change.what}
          {lines(change.before, change.after).map(line => (
            <p key={`-${line}`} className="gone">
              − {line}
            </p>
          ))}
          {lines(change.after, change.before).map(line => (
            <p key={`+${line}`} className="come">
              + {line}
            </p>
          ))}
        </div>
      ))}
    </section>
  )
}

/** The lines of one text that the other one has not. */
function lines(of: string | null | undefined, without: string | null | undefined): string[] {
  const other = new Set((without ?? '').split('\n'))
  return (of ?? '').split('\n').filter(line => line && !other.has(line))
}

function Times({ id }: { id: string }) {
  const times = useTimes(id)
  if (!times.data || times.data.runs === 0)
    return (
      <section className="panel" aria-label="How its steps go">
        <h2>How its steps go</h2>
        <Refused problem={times.error} />
        <p>No run of it is over yet: too early to tell.</p>
      </section>
    )
  const longest = drawnLength(Math.max(1, ...times.data.steps.map(s => s.slowSeconds)))
  return (
    <section className="panel" aria-label="How its steps go">
      <h2>How its steps go</h2>
      <p>
        {times.data.runs} {times.data.runs === 1 ? 'run is' : 'runs are'} over. The bar is what half of the visits took; the thin line, nine
        of ten. Drawn by their logarithm: a rebuild takes hours and a look seconds.
      </p>
      <div className="scroll">
        <table className="times">
          <thead>
            <tr>
              <th scope="col">Step</th>
              <th scope="col">Took</th>
              <th scope="col">
                <span className="sr">Drawn</span>
              </th>
              <th scope="col">What happened there</th>
            </tr>
          </thead>
          <tbody>
            {times.data.steps.map(s => (
              <tr key={s.step}>
                <th scope="row">{s.step}</th>
                <td className="mono">{took(s.seconds)}</td>
                <td className="bars" aria-hidden="true">
                  <i style={{ width: `${(100 * drawnLength(s.slowSeconds)) / longest}%` }} />
                  <b style={{ width: `${(100 * drawnLength(s.seconds)) / longest}%` }} />
                </td>
                <td>
                  {s.tooEarly ? (
                    <span className="chalk">too early to tell ({s.visits})</span>
                  ) : s.stuck ? (
                    <b className="ochre">
                      ▲ people get stuck: came back {share(s.again)}, went elsewhere {share(s.otherwise)}, overruled {s.overruled}
                    </b>
                  ) : (
                    <span className="chalk">straight on</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

/** A tenfold time is one step longer. */
const drawnLength = (seconds: number) => Math.log10(1 + seconds)

const took = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${(seconds / 3600).toFixed(1)} h`
const share = (part: number) => `${Math.round(part * 100)} %`
