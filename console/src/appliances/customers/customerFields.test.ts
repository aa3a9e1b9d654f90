import { expect, test } from 'vitest'
import { fieldsOf, over, peopleOf, readCustomer } from './customerFields'

const whole = {
  name: 'Orrin Trust',
  people: [
    { name: 'Ansa Hale', about: 'getting in', reach: 'desk 12' },
    { name: 'Orm Vey', about: '', reach: 'orm@example.org' },
  ],
  respondHours: 8,
  restoreHours: null,
  data: 'stays-with-them' as const,
  dataNote: 'Contract 7, page 2',
  spares: null,
  picturesKeptMonths: 24,
}

test('what is known of a customer is in the form, and what was not touched goes back as it was', () => {
  expect(readCustomer(fieldsOf(whole))).toEqual(whole)
})

test('a row nobody filled in names nobody, and half a row is sent for the service to judge', () => {
  expect(peopleOf('||\nAnsa Hale||\n')).toEqual([{ name: 'Ansa Hale', about: '', reach: '' }])
})

test('hours and months that are no number are not dropped without a word', () => {
  expect(readCustomer({ ...fieldsOf(whole), respond: 'soon', months: 'a year' })).toMatchObject({ respondHours: 0, picturesKeptMonths: 0 })
})

test('what somebody else changed meanwhile stays, unless the same field was typed in', () => {
  const start = fieldsOf(whole)
  const now = { ...start, spares: 'One in the safe', respond: '6' }

  expect(over(start, { ...start, respond: '4', restore: '40' }, now)).toEqual({ ...now, respond: '4', restore: '40' })
})
