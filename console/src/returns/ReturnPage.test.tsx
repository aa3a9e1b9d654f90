import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { expect, it } from 'vitest'
import type { TicketView } from '../shared/types'
import { ReturnPage } from './ReturnPage'

const at = '2026-03-02T12:00:00Z'
const moved = (serial: string, kind: 'depot' | 'engineer' | 'bay' | 'carrier', name: string) => ({
  serial,
  to: { kind, name },
  at,
  by: 'ilka',
})

function shown(known: Partial<TicketView>) {
  const ticket = {
    number: 1001,
    stage: 'returning',
    report: { asset: 'FSC-1', model: 'B12', site: 'Corrin', location: 'Hall', symptom: 'Lamp' },
    swap: { outSerial: 'P8BADD0517', inSerial: 'C8NEWW2286' },
    part: { serial: 'C8NEWW2286', model: 'C8', bytes: 1, depot: 'Stores', issuedTo: 'ilka' },
    run: { current: null },
    custody: [moved('C8NEWW2286', 'engineer', 'ilka'), moved('P8BADD0517', 'engineer', 'ilka'), moved('C8NEWW2286', 'bay', '2')],
    returns: [],
    ...known,
  }
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Number.POSITIVE_INFINITY } } })
  client.setQueryData(['tickets', 1001], ticket)
  client.setQueryData(['people'], { people: [] })
  render(
    <MantineProvider>
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={['/tickets/1001/return']}>
          <Routes>
            <Route path="/tickets/:number/return" element={<ReturnPage />} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  )
}

it('asks who agreed that the data may leave for the drive that came out, and for nothing that is in its bay', () => {
  shown({})

  expect(screen.getByRole('heading', { name: 'Open a return for P8BADD0517' })).toBeTruthy()
  expect(screen.getByLabelText('Who agreed that the data on it may leave')).toBeTruthy()
  expect(screen.queryByRole('heading', { name: 'Open a return for C8NEWW2286' })).toBeNull()
})

it('says of each drive who holds it and whether they may keep it', () => {
  shown({})

  expect(screen.getByText(/bay 2: ● may keep it/)).toBeTruthy()
  expect(screen.getByText(/engineer ilka: ○ on the way/)).toBeTruthy()
})

it('goes on with the box once the drive is with a carrier', () => {
  const sent = {
    serial: 'P8BADD0517',
    reason: 'exchange-under-warranty',
    to: { kind: 'maker' as const, name: 'Pellworth' },
    authorisation: 'RX-1',
    dueBy: null,
    openedAt: at,
    carrier: 'Overfell Parcels',
    sentAt: at,
  }
  shown({ custody: [moved('P8BADD0517', 'carrier', 'Overfell Parcels')], returns: [sent] })

  expect(screen.getByRole('heading', { name: 'Book in P8BADD0517' })).toBeTruthy()
  expect(screen.queryByRole('heading', { name: /Open a return/ })).toBeNull()
})

it('starts with the replacement while there is none', () => {
  shown({ part: null, custody: [], swap: {} as TicketView['swap'], run: null })

  expect(screen.getByRole('heading', { name: 'Reserve a replacement' })).toBeTruthy()
  expect(screen.getByText('No drive has moved yet.')).toBeTruthy()
})
