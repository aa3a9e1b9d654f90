import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { beforeEach, expect, it, vi } from 'vitest'
import { asked, offered } from '../../shared/offered.testing'
import type { MoveKind, OfferedMove, TicketView } from '../../shared/types'
import type { Writer } from '../ticketQueries'
import { NextMove } from './NextMove'

beforeEach(() => localStorage.clear())

function shown(next: MoveKind, moves: OfferedMove[], discrepancies: object[] = []) {
  const write = vi.fn().mockResolvedValue({ next: { who: 'nobody', say: 'Nothing.', move: 'nothing' } })
  const errand = vi.fn().mockResolvedValue({ next: { who: 'nobody', say: 'Nothing.', move: 'nothing' } })
  const writer = { write, run: errand, busy: false, problem: null } as unknown as Writer
  const ticket = { number: 1001, discrepancies, moves, next: { who: 'ilka', say: 'Do it.', move: next } } as unknown as TicketView
  const client = new QueryClient()
  client.setQueryData(['me'], { name: 'ilka', fullName: 'Ilka', roles: ['engineer'] })
  const page = render(
    <MantineProvider>
      <QueryClientProvider client={client}>
        <MemoryRouter>
          <NextMove ticket={ticket} writer={writer} />
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  )
  return { write, errand, page }
}

const lift = offered('lift-hold', 'Lift the hold', { body: { kind: 'hold-lifted' } as OfferedMove['body'] })
const settle = (id: string) =>
  offered('settle', 'Settle it', {
    about: id,
    body: { kind: 'discrepancy-settled', discrepancy: id, how: '' } as OfferedMove['body'],
    fields: [asked({ name: 'how', label: 'How it is to be read', kind: 'lines' })],
  })

it('one press does the next thing, with the body that Core made', async () => {
  const { write } = shown('lift-hold', [lift])

  fireEvent.click(screen.getByRole('button', { name: 'Lift the hold' }))

  await waitFor(() => expect(write).toHaveBeenCalledWith({ kind: 'hold-lifted' }))
})

it('whoever may not do the next thing gets no button, and is told why', () => {
  shown('lift-hold', [{ ...lift, whyNot: 'ilka may not do this; it takes the role lead.' }])

  expect(screen.queryAllByRole('button')).toEqual([])
  expect(screen.getByText('ilka may not do this; it takes the role lead.')).toBeTruthy()
})

it.each<[MoveKind, string, string, OfferedMove['way']]>([
  ['follow-run', 'Go on with the run', '/tickets/1001/run', 'page'],
  ['reserve-part', 'What to bring', '/tickets/1001/bring', 'entry'],
  ['book-in', 'Parts and returns', '/tickets/1001/return', 'entry'],
])('where the next thing is to %s, one press leads there', (move, say, to, way) => {
  shown(move, [offered(move, say, { way })])

  expect(screen.getByRole('link', { name: say }).getAttribute('href')).toBe(to)
})

it('asks the machine where the service reaches it, and a person where it does not', () => {
  const machine = offered('take-snapshot', 'Ask the machine for a snapshot', { way: 'machine' })
  const person = offered('type-snapshot', 'Type what you see', { way: 'page' })
  const { errand, page } = shown('take-snapshot', [machine, person])
  fireEvent.click(screen.getByRole('button', { name: machine.say }))
  expect(errand).toHaveBeenCalledWith({ errand: 'snapshot' })
  page.unmount()

  shown('take-snapshot', [{ ...machine, whyNot: 'The service does not reach this machine.' }, person])
  expect(screen.queryByRole('button', { name: machine.say })).toBeNull()
  expect(screen.getByRole('link', { name: person.say }).getAttribute('href')).toBe('/tickets/1001/snapshot')
})

it('each contradiction stands with its own answer', async () => {
  const { write } = shown(
    'settle',
    [settle('serial-1'), settle('serial-2')],
    [
      { id: 'serial-1', sentence: 'One drive is in two places.' },
      { id: 'serial-2', sentence: 'Another came out.' },
    ],
  )
  const answers = screen.getAllByLabelText('How it is to be read')
  fireEvent.change(answers[1] as HTMLElement, { target: { value: 'A label was swapped.' } })
  fireEvent.click(screen.getAllByRole('button', { name: 'Settle it' })[1] as HTMLElement)

  expect(screen.getByText(/Another came out/)).toBeTruthy()
  await waitFor(() =>
    expect(write).toHaveBeenCalledWith({ kind: 'discrepancy-settled', discrepancy: 'serial-2', how: 'A label was swapped.' }),
  )
})

it('what was typed is still there after the page was left, and gone once it was sent', async () => {
  const first = shown('settle', [settle('serial-1')])
  fireEvent.change(screen.getByLabelText('How it is to be read'), { target: { value: 'Half a thought' } })
  first.page.unmount()

  const again = shown('settle', [settle('serial-1')])
  expect(screen.getByLabelText<HTMLTextAreaElement>('How it is to be read').value).toBe('Half a thought')
  fireEvent.click(screen.getByRole('button', { name: 'Settle it' }))
  await waitFor(() => expect(screen.getByLabelText<HTMLTextAreaElement>('How it is to be read').value).toBe(''))
  again.page.unmount()

  shown('settle', [settle('serial-1')])
  expect(screen.getByLabelText<HTMLTextAreaElement>('How it is to be read').value).toBe('')
})

it('offers nothing to press where nothing is to be done', () => {
  shown('nothing', [])

  expect(screen.queryAllByRole('button')).toEqual([])
  expect(screen.queryAllByRole('link')).toEqual([])
})
