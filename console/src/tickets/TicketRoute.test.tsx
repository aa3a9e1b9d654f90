import { render, screen } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { expect, it } from 'vitest'
import { TicketRoute } from './TicketRoute'
import { useTicketNumber } from './ticketQueries'

function at(path: string) {
  const Page = () => <p>ticket {useTicketNumber()}</p>
  render(
    <MemoryRouter initialEntries={[path]}>
      <Routes>
        <Route path="/tickets/:number" element={<TicketRoute />}>
          <Route path="run" element={<Page />} />
        </Route>
      </Routes>
    </MemoryRouter>,
  )
}

it.each(['/tickets/1042/run', '/tickets/T-1042/run', '/tickets/t-1042/run'])('%s leads to the ticket', path => {
  at(path)

  expect(screen.getByText('ticket 1042')).toBeTruthy()
})

it.each(['/tickets/next/run', '/tickets/0/run', '/tickets/-5/run', '/tickets/10.5/run'])('%s says how a ticket is written', path => {
  at(path)

  expect(screen.getByRole('alert').textContent).toBe(`'${path.split('/')[2]}' is not a ticket number; write T-1042 or 1042.`)
})
