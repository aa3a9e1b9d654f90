import { type ReactNode, useState } from 'react'
import { clock } from '../../shared/time'
import type { Bay, BayVerdict, ChassisDrawing, Snapshot } from '../../shared/types'
import { said } from '../../shared/words'
import { BayDetail } from './BayDetail'
import { BayFront } from './BayFront'
import { type Drawn, drawn } from './chassisLayout'
import './chassis.css'

type Props = {
  snapshot: Snapshot
  verdicts: readonly BayVerdict[]
  drawing: readonly ChassisDrawing[] | null | undefined
  target: string | null
  zone: string | null
  lit?: boolean
  brief?: boolean
}

/** The chassis as one stands before it. Pressing a bay tells what is known of it. */
export function Chassis({ snapshot, verdicts, drawing, target, zone, lit = false, brief = false }: Props) {
  const [chosen, setChosen] = useState<string | null>(null)
  const verdictOf = (bay: Bay) => verdicts.find(v => v.bay === bay.label)
  const enclosures = drawn(drawing, snapshot)
  const shown = snapshot.bays.find(b => b.label === (chosen ?? target))
  return (
    <section className="panel" aria-label="The chassis, seen from the front">
      {enclosures.map(enclosure => (
        <Enclosure key={enclosure.name ?? ''} enclosure={enclosure} lit={lit}>
          {bay => (
            <BayFront
              key={bay.label}
              bay={bay}
              verdict={verdictOf(bay)}
              isTarget={bay.label === target}
              isChosen={bay.label === chosen}
              choose={() => setChosen(bay.label === chosen ? null : bay.label)}
            />
          )}
        </Enclosure>
      ))}
      {!brief && (
        <>
          <p className="chassis-legend chalk">
            pulling it now: <b>○</b> safe <b>▬</b> thins the margin <b>✕</b> loses data
          </p>
          {shown && <BayDetail bay={shown} verdict={verdictOf(shown)} isTarget={shown.label === target} />}
          <ul className="chassis-arrays">
            {snapshot.arrays.map(array => (
              <li key={array.name}>
                <strong>{array.name}</strong> {array.level}, <strong>{array.state}</strong>,{' '}
                {snapshot.bays.filter(b => b.array === array.name && b.role === 'member').length} of {array.designMembers} members
              </li>
            ))}
          </ul>
          {snapshot.gaps?.map(gap => (
            <p key={gap} className="ochre wrap" style={{ margin: 0 }}>
              ◆ Not read: {gap}
            </p>
          ))}
          <p className="chalk" style={{ fontSize: 15, margin: 0 }}>
            Seen {clock(snapshot.takenAt, zone)} {snapshot.source === 'person' ? 'by a person' : `by ${said(snapshot.source)}`}
          </p>
        </>
      )}
    </section>
  )
}

type EnclosureProps = { enclosure: Drawn; lit: boolean; children: (bay: Bay) => ReactNode }

function Enclosure({ enclosure, lit, children }: EnclosureProps) {
  return (
    <div className={enclosure.wide ? undefined : 'chassis-scroll'}>
      {enclosure.name && <p className="chassis-name">Enclosure {enclosure.name}</p>}
      {enclosure.drawers.map((rows, drawer) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: a drawer is its place
          key={drawer}
          className={`chassis${lit ? ' lit' : ''}${enclosure.wide ? '' : ' dense'}`}
        >
          <Ear />
          <div className="chassis-bays" style={{ gridTemplateColumns: `repeat(${rows[0]?.length ?? 1}, minmax(0, 1fr))` }}>
            {/* biome-ignore lint/suspicious/noArrayIndexKey: a gap is its place */}
            {rows.map((row, r) => row.map((bay, c) => (bay ? children(bay) : <span key={`gap ${r}-${c}`} />)))}
          </div>
          <Ear />
        </div>
      ))}
    </div>
  )
}

function Ear() {
  return (
    <svg className="chassis-ear" viewBox="0 0 16 120" preserveAspectRatio="none" aria-hidden="true">
      <circle cx="8" cy="14" r="4" />
      <circle cx="8" cy="106" r="4" />
    </svg>
  )
}
