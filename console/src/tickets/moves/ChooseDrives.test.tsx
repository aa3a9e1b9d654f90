import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen } from '@testing-library/react'
import { expect, it } from 'vitest'
import { offered } from '../../shared/offered.testing'
import type { TicketView } from '../../shared/types'
import { ChooseDrives } from './ChooseDrives'

function shown(chosen: string[] = [], whyNot: string | null = null) {
  const bays = ['1', '2', '3'].map(label => ({ label, serial: `OLD${label}` }))
  const inTurn = [
    { bay: '3', serial: 'OLD3', why: 'Bay 3 (OLD3) is faulted.' },
    { bay: '1', serial: 'OLD1', why: 'Bay 1 (OLD1) is worn.' },
  ]
  const moves = [offered('choose-drives', 'Choose the drives', { way: 'page', whyNot })]
  const ticket = { number: 1001, chosen, inTurn, moves, latest: { bays } } as unknown as TicketView
  return render(
    <MantineProvider>
      <QueryClientProvider client={new QueryClient()}>
        <ChooseDrives ticket={ticket} />
      </QueryClientProvider>
    </MantineProvider>,
  )
}

const order = () => screen.getAllByRole('listitem').map(item => item.textContent?.slice(0, 12))

it('proposes the worst first, and a person may say otherwise', () => {
  shown()
  expect(order()).toEqual(['Bay 3 (OLD3)', 'Bay 1 (OLD1)'])

  fireEvent.click(screen.getByRole('button', { name: 'Bay 1 earlier' }))
  fireEvent.click(screen.getByRole('button', { name: 'Leave bay 3 out' }))
  fireEvent.change(screen.getByLabelText('Another one'), { target: { value: '2' } })

  expect(order()).toEqual(['Bay 1 (OLD1)', 'Bay 2 (OLD2)'])
  expect(screen.getByRole('button', { name: 'Swap these 2, in this order' })).toBeTruthy()
})

it('says so where the order shown is the one that was chosen', () => {
  shown(['OLD1', 'OLD3'])

  expect(order()).toEqual(['Bay 1 (OLD1)', 'Bay 3 (OLD3)'])
  expect(screen.getByText('Chosen, in this order.')).toBeTruthy()
})

it('whoever may not choose sees the order and why, and nothing to press', () => {
  shown([], 'A drive has been moved already; the drives of this ticket are settled.')

  expect(order()).toEqual(['Bay 3 (OLD3)', 'Bay 1 (OLD1)'])
  expect(screen.queryAllByRole('button')).toEqual([])
  expect(screen.getByText(/drives of this ticket are settled/)).toBeTruthy()
})
