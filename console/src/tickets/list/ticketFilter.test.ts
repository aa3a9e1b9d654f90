import { expect, it } from 'vitest'
import { filterOf, queryOf } from './ticketFilter'

it('takes from the address what a list knows, and nothing that is blank', () =>
  expect(filterOf(new URLSearchParams('find=%20&site=Corrin&colour=red&order=worst'))).toEqual({ site: 'Corrin', order: 'worst' }))

it('searches what is closed as well, and filters what is open', () => {
  expect(queryOf({ find: '0517' }).ended).toBeUndefined()
  expect(queryOf({ site: 'Corrin' }).ended).toBe(false)
  expect(queryOf({ site: 'Corrin', ended: 'true' }).ended).toBe(true)
  expect(queryOf({ find: '0517', ended: 'false' }).ended).toBe(false)
  expect(queryOf({ site: 'Corrin', ended: 'any' }).ended).toBeUndefined()
})
