import { expect, it } from 'vitest'
import type { TicketLine } from '../shared/types'
import { byDay } from './myDay'

const line = (number: number, margin: number | null = 1) => ({ number, margin }) as TicketLine

it('sorts by whose turn it is, and within that the most dangerous first, unknown before safe', () => {
  const tickets = [line(1, 2), line(2, 0), line(3, null), line(4), line(5)]

  const day = byDay(tickets, ['yours', 'yours', 'yours', 'anybodys', 'others'])

  expect(day.mine.map(t => t.number)).toEqual([2, 3, 1])
  expect(day.anybodys.map(t => t.number)).toEqual([4])
  expect(day.others.map(t => t.number)).toEqual([5])
})
