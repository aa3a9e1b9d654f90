import { MantineProvider } from '@mantine/core'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { FilterBar } from './FilterBar'
import type { TicketFilter } from './ticketFilter'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

const bar = (filter: TicketFilter, set: (name: string, value: string) => void) => (
  <MantineProvider>
    <FilterBar filter={filter} set={set} clear={() => {}} />
  </MantineProvider>
)
const find = () => screen.getByLabelText<HTMLInputElement>('Find')
const type = (text: string) => fireEvent.change(find(), { target: { value: text } })
const pause = (ms = 300) => act(() => void vi.advanceTimersByTime(ms))

it('keeps what is typed while the address is still the one before', () => {
  const set = vi.fn()
  const { rerender } = render(bar({}, set))

  type('FSC-0203')
  pause()
  rerender(bar({}, set)) // something else is drawn before the address is there
  pause(1000)

  expect(find().value).toBe('FSC-0203')
  expect(set.mock.calls).toEqual([['find', 'FSC-0203']])
})

it('goes on with what is typed when an earlier part of it comes into the address', () => {
  const set = vi.fn()
  const { rerender } = render(bar({}, set))
  type('FSC')
  pause()
  type('FSC-02')
  pause()
  type('FSC-0203')
  rerender(bar({ find: 'FSC' }, set))
  rerender(bar({ find: 'FSC-02' }, set))
  pause()

  expect(find().value).toBe('FSC-0203')
  expect(set.mock.calls.map(([, value]) => value)).toEqual(['FSC', 'FSC-02', 'FSC-0203'])
})

it('shows what the address says when somebody clears it or comes back to another one', () => {
  const set = vi.fn()
  const { rerender } = render(bar({ find: 'vault' }, set))
  expect(find().value).toBe('vault')

  rerender(bar({}, set))
  pause()
  expect(find().value).toBe('')
  rerender(bar({ find: 'abbey' }, set))
  pause()

  expect(find().value).toBe('abbey')
  expect(set).not.toHaveBeenCalled()
})
