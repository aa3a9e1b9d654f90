import { Link } from 'react-router'
import { WaitingPage } from '../shared/Waiting'
import { said } from '../shared/words'
import { useProcedures } from './procedureQueries'
import './procedures.css'

/** All procedures with what the proof says of them. */
export function LibraryPage() {
  const list = useProcedures()
  if (!list.data) return <WaitingPage for="the procedures" problem={list.error} />
  return (
    <main className="page" id="main">
      <h1>Procedures</h1>
      <p>Each is proved safe on every path, for every machine and answer it provides for, before anybody may use it.</p>
      <ul className="library">
        {list.data.procedures.map(p => (
          <li key={p.id ?? p.file} className="panel">
            <h2>{p.id ? <Link to={`/procedures/${p.id}`}>{p.title}</Link> : p.file}</h2>
            <p className="proof">
              {p.withdrawn ? (
                <b className="brick">▲ withdrawn: {p.withdrawn}</b>
              ) : p.problems.length + p.findings.length === 0 ? (
                <b className="pine">◆ proved, {p.states.toLocaleString('en')} situations</b>
              ) : (
                <b className="brick">■ {p.problems.length + p.findings.length} things wrong</b>
              )}
              <span className="chalk">
                {' '}
                {p.steps} steps · {p.comesBack ? said(p.comesBack) : ''} {p.byName ? '· taken by name' : ''}
              </span>
            </p>
            {p.appliesTo && <p className="chalk mono applies">{p.appliesTo}</p>}
            {[...p.problems.map(x => `${x.file}:${x.line}: ${x.sentence}`), ...p.findings.map(f => f.sentence)].map(sentence => (
              <p key={sentence} className="brick">
                {sentence}
              </p>
            ))}
          </li>
        ))}
      </ul>
    </main>
  )
}
