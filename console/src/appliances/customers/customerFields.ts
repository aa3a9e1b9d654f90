import type { Customer } from '../../shared/types'

/** What may be agreed on drives that have a customer's data on them. */
export const agreements = [
  { value: 'ask-each-time', label: 'nothing is agreed: ask, for each' },
  { value: 'may-leave', label: 'may leave' },
  { value: 'wiped-first', label: 'are wiped before they leave' },
  { value: 'stays-with-them', label: 'stay with them' },
  { value: 'destroyed-there', label: 'are destroyed there' },
]

/** A line each, its three parts between bars, as they stand in a list. */
export const peopleOf = (text: string) =>
  text
    .split('\n')
    .map(line => line.split('|').map(part => part.trim()))
    .filter(parts => parts.some(part => part !== ''))
    .map(([name = '', about = '', reach = '']) => ({ name, about, reach }))

export const fieldsOf = (customer: Customer | null) => ({
  name: customer?.name ?? '',
  people: (customer?.people ?? []).map(p => [p.name, p.about, p.reach].join('|')).join('\n'),
  respond: customer?.respondHours ? `${customer.respondHours}` : '',
  restore: customer?.restoreHours ? `${customer.restoreHours}` : '',
  data: customer?.data ?? 'ask-each-time',
  dataNote: customer?.dataNote ?? '',
  spares: customer?.spares ?? '',
  months: customer?.picturesKeptMonths ? `${customer.picturesKeptMonths}` : '',
})

/** What was typed, and where nothing was what is known by now: somebody else may have changed the rest meanwhile. */
export const over = <T extends Record<string, string>>(start: T, typed: T, now: T): T =>
  Object.fromEntries(Object.entries(typed).map(([field, value]) => [field, value === start[field] ? now[field] : value])) as T

export const readCustomer = (fields: ReturnType<typeof fieldsOf>): Customer => ({
  name: fields.name.trim(),
  people: peopleOf(fields.people),
  respondHours: whole(fields.respond),
  restoreHours: whole(fields.restore),
  data: fields.data as NonNullable<Customer['data']>,
  dataNote: fields.dataNote.trim() || null,
  spares: fields.spares.trim() || null,
  picturesKeptMonths: whole(fields.months),
})

/** What is no whole number is sent as none that is taken, so that the service says so. */
const whole = (text: string) => (text.trim() === '' ? null : /^\d+$/.test(text.trim()) ? Number(text) : 0)
