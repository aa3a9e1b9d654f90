import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, within } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { expect, it } from 'vitest'
import { asked, offered } from '../shared/offered.testing'
import type { TicketView } from '../shared/types'
import { ReturnPage } from './ReturnPage'

const at = '2026-03-02T12:00:00Z'
const held = (serial: string, kind: 'bay' | 'engineer', name: string, what: string) => ({
  serial,
  holder: { kind, name },
  mayKeep: kind === 'bay',
  what,
})

function shown(known: Partial<TicketView>) {
  const ticket = {
    number: 1001,
    stage: 'returning',
    report: { asset: 'FSC-1', model: 'B12', site: 'Corrin', location: 'Hall', symptom: 'Lamp' },
    held: [held('C8NEWW2286', 'bay', '2', 'went in'), held('P8BADD0517', 'engineer', 'ilka', 'came out')],
    supplies: [],
    photos: [],
    custody: [{ serial: 'P8BADD0517', to: { kind: 'engineer', name: 'ilka' }, at, by: 'ilka' }],
    returns: [],
    parcels: [],
    claims: [],
    warranties: [],
    moves: [],
    next: { who: 'ilka', say: 'Open a return.', move: 'open-return' },
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

it('draws every move with parts that is offered, with the fields that it asks for', () => {
  const agreed = asked({ name: 'dataAgreedBy', label: 'Who agreed that the data on it may leave' })
  shown({ moves: [offered('open-return', 'To its maker', { about: 'P8BADD0517', fields: [agreed] })] })

  const form = screen.getByRole('heading', { name: 'Send P8BADD0517 back: to its maker' }).closest('section')
  expect(within(form as HTMLElement).getByLabelText(agreed.label)).toBeTruthy()
})

it('several parts are handed over each for itself', () => {
  shown({ moves: ['C8AAAA', 'C8BBBB'].map(serial => offered('issue-part', `Issue ${serial}`, { about: serial })) })

  expect(screen.getAllByRole('button', { name: /^Issue/ }).map(b => b.textContent)).toEqual(['Issue C8AAAA', 'Issue C8BBBB'])
})

it('what may not be done now is told with why, and has no button', () => {
  shown({ moves: [offered('reserve-part', 'Reserve it', { whyNot: 'All 2 parts of this ticket are already issued.' })] })

  expect(screen.queryByRole('button', { name: 'Reserve it' })).toBeNull()
  expect(screen.getByText('All 2 parts of this ticket are already issued.')).toBeTruthy()
})

it('says of each drive who holds it and whether they may keep it', () => {
  shown({})

  expect(screen.getByText(/bay 2: ● may keep it/)).toBeTruthy()
  expect(screen.getByText(/engineer ilka: ○ on the way/)).toBeTruthy()
})
