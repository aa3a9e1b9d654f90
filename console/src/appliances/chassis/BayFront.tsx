import type { Bay, BayVerdict } from '../../shared/types'
import { said } from '../../shared/words'

type Props = { bay: Bay; verdict: BayVerdict | undefined; isTarget: boolean; isChosen: boolean; choose: () => void }

/** One bay's front: how it is drawn tells its role, the corner what pulling would do, the flag that its drive is not well. */
export function BayFront({ bay, verdict, isTarget, isChosen, choose }: Props) {
  return (
    <button type="button" className={`bay ${bay.role}${isTarget ? ' target' : ''}`} aria-pressed={isChosen} onClick={choose}>
      <span className="for-ears">{spoken(bay, verdict, isTarget)}</span>
      <span className="bay-top" aria-hidden="true">
        <b className="bay-label">{bay.label}</b>
        <span className="bay-verdict">{bay.role === 'empty' ? '' : bay.role === 'not-known' ? '?' : sign(verdict)}</span>
      </span>
      <span className="bay-role" aria-hidden="true">
        {said(bay.role)}
      </span>
      {(bay.health === 'faulted' || bay.health === 'worn') && (
        <span className="bay-role bay-flag" aria-hidden="true">
          ⚑ <span className="bay-flag-word">{bay.health}</span>
        </span>
      )}
      <span className="bay-serial mono" aria-hidden="true">
        {bay.serial ? `…${bay.serial.slice(-5)}` : ' '}
      </span>
    </button>
  )
}

/** Nothing where nobody has reckoned it: an open ring would say that pulling is safe. */
const sign = (verdict: BayVerdict | undefined) =>
  verdict ? { fatal: '✕', thins: '▬', safe: '○', 'not-known': '?' }[verdict.verdict ?? 'fatal'] : ''

function spoken(bay: Bay, verdict: BayVerdict | undefined, isTarget: boolean): string {
  const health = bay.health && bay.health !== 'unknown' && bay.role !== 'empty' ? `, ${bay.health}` : ''
  const pull = verdict && bay.role !== 'empty' ? `, pulling it is ${said(verdict.verdict)}` : ''
  return `Bay ${bay.label}${isTarget ? ', this one' : ''}: ${said(bay.role)}${health}${bay.serial ? `, serial ${bay.serial}` : ''}${pull}`
}
