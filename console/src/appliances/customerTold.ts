import type { Customer } from '../shared/types'

/** What was promised to a customer as a whole. */
export const promiseOf = ({ respondHours, restoreHours }: Customer) =>
  [respondHours && `there within ${respondHours} h`, restoreHours && `redundancy back within ${restoreHours} h`]
    .filter(Boolean)
    .join(', ') || 'as each site says'
