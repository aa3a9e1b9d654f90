import type { Holder } from '../shared/types'

/** Who answers for a part, as people say it. */
export const holderName = (holder: Holder): string =>
  holder.kind === 'destroyed' || holder.kind === 'lost'
    ? holder.kind
    : holder.kind === 'van'
      ? `the van of ${holder.name}`
      : `${holder.kind} ${holder.name}${holder.shelf ? `, shelf ${holder.shelf}` : ''}`
