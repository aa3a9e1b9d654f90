import type { Bay, BayVerdict } from '../../shared/types'
import { said, size } from '../../shared/words'

const colours: Partial<Record<BayVerdict['verdict'], string>> = { fatal: 'brick', 'not-known': 'ochre' }

export function BayDetail({ bay, verdict, isTarget }: { bay: Bay; verdict: BayVerdict | undefined; isTarget: boolean }) {
  return (
    <div className={isTarget ? 'bay-detail target' : 'bay-detail'} aria-live="polite">
      <strong>
        Bay {bay.label}
        {isTarget ? ', this one' : ''}
      </strong>{' '}
      {bay.name && (
        <span className="chalk">
          software calls it <span className="mono">{bay.name}</span>
        </span>
      )}
      <br />
      {bay.serial ? <span className="mono">{bay.serial}</span> : bay.role === 'empty' ? 'Nothing in it.' : 'No serial known.'} {bay.model}{' '}
      {bay.bytes ? size(bay.bytes) : ''}
      <br />
      {said(bay.role)}
      {bay.array ? ` of ${bay.array}` : ''}
      {bay.role === 'empty' ? '' : `, reads ${bay.health}`}
      {bay.signs?.length ? `: ${bay.signs.join(', ')}` : ''}
      {verdict && bay.role !== 'empty' && (
        <>
          <br />
          Pulling it now is <strong className={colours[verdict.verdict]}>{said(verdict.verdict)}</strong>: {verdict.reason}
        </>
      )}
    </div>
  )
}
