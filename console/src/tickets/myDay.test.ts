import { expect, it } from 'vitest'
import type { Person, TicketLine } from '../shared/types'
import { byDay } from './myDay'

const line = (number: number, who: string, margin: number | null, holdReason: string | null = null) =>
  ({ number, margin, holdReason, next: { who, say: '', move: 'take' } }) as TicketLine

it('puts what waits for me first, the most dangerous on top, and what is on hold last', () => {
  const me = { name: 'ilka', fullName: 'Ilka', roles: ['engineer', 'stores'] } as Person

  const day = byDay(
    [
      line(1, 'ilka', 2),
      line(2, 'ilka', 0),
      line(3, 'stores', null),
      line(4, 'dispatcher', 1),
      line(5, 'tamsel', 0),
      line(6, 'ilka', 0, 'snow'),
    ],
    me,
  )

  expect(day.mine.map(t => t.number)).toEqual([2, 3, 1])
  expect(day.anybodys.map(t => t.number)).toEqual([4])
  expect(day.others.map(t => t.number)).toEqual([5, 6])
})
