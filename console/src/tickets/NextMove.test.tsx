import { MantineProvider } from '@mantine/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'
import type { Person, TicketView } from '../shared/types'
import { NextMove } from './NextMove'
import type { Writer } from './ticketQueries'

type Move = TicketView['next']['move']

function shown(move: Move, reachable = true) {
  const write = vi.fn().mockResolvedValue({})
  const errand = vi.fn().mockResolvedValue({})
  const writer = { write, run: errand, busy: false, problem: null } as unknown as Writer
  const ticket = { number: 1001, reachable, discrepancies: [], next: { who: 'ilka', say: 'Do it.', move } } as unknown as TicketView
  render(
    <MantineProvider>
      <MemoryRouter>
        <NextMove ticket={ticket} me={{ name: 'ilka' } as Person} writer={writer} />
      </MemoryRouter>
    </MantineProvider>,
  )
  return { write, errand }
}

it.each<[Move, string, object]>([
  ['lift-hold', 'Lift the hold', { kind: 'hold-lifted' }],
  ['take', 'Take it', { kind: 'engineer-assigned', engineer: 'ilka' }],
  ['arrive', 'I have arrived', { kind: 'arrived-on-site' }],
  ['close', 'Close the ticket', { kind: 'ticket-closed' }],
])('where the next thing is to %s, one press does it', (move, say, body) => {
  const { write } = shown(move)

  fireEvent.click(screen.getByRole('button', { name: say }))

  expect(write).toHaveBeenCalledWith(body)
})

it.each<[Move, string, string]>([
  ['follow-run', 'Go on with the run', '/tickets/1001/run'],
  ['reserve-part', 'What to bring', '/tickets/1001/bring'],
  ['book-in', 'Parts and returns', '/tickets/1001/return'],
])('where the next thing is to %s, one press leads there', (move, say, to) => {
  shown(move)

  expect(screen.getByRole('link', { name: say }).getAttribute('href')).toBe(to)
})

it('asks the machine where a wire reaches it, and a person where none does', () => {
  const { errand } = shown('take-snapshot')
  fireEvent.click(screen.getByRole('button', { name: 'Ask the machine for a snapshot' }))
  expect(errand).toHaveBeenCalledWith({ errand: 'snapshot' })

  shown('take-snapshot', false)
  expect(screen.getAllByRole('link', { name: 'Type what you see' })).toHaveLength(2)
  expect(screen.getAllByRole('button', { name: 'Ask the machine for a snapshot' })).toHaveLength(1)
})

it('offers nothing to press where nothing is to be done', () => {
  shown('nothing')

  expect(screen.queryAllByRole('button')).toEqual([])
  expect(screen.queryAllByRole('link')).toEqual([])
})
