import { MantineProvider } from '@mantine/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { beforeEach, expect, it, vi } from 'vitest'
import { RoomBoundary } from './RoomBoundary'

beforeEach(() => {
  vi.spyOn(console, 'error').mockImplementation(() => {}) // React tells of every error that is caught
})

let problem: Error | null = null
function Room() {
  if (problem) throw problem
  return <h1>The room</h1>
}

const page = (at: string) => (
  <MantineProvider>
    <MemoryRouter>
      <RoomBoundary at={at}>
        <Room />
      </RoomBoundary>
    </MemoryRouter>
  </MantineProvider>
)

it('says what happened and what to do instead of going white, and goes on when asked to', () => {
  problem = new TypeError('bays is undefined')
  render(page('/tickets/1001'))
  expect(screen.getByRole('alert').textContent).toContain('bays is undefined')

  problem = null
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }))

  expect(screen.getByRole('heading', { name: 'The room' })).toBeTruthy()
})

it('another page is not taken down with it', () => {
  problem = new TypeError('bays is undefined')
  const { rerender } = render(page('/tickets/1001'))

  problem = null
  rerender(page('/desk'))

  expect(screen.getByRole('heading', { name: 'The room' })).toBeTruthy()
})

it('a room that cannot be fetched is told apart from one that is broken', () => {
  problem = new TypeError('Failed to fetch dynamically imported module: /assets/ListsPage-abc.js')
  render(page('/lists'))

  expect(screen.getByRole('heading', { name: 'This page could not be fetched' })).toBeTruthy()
  expect(screen.getByRole('alert').textContent).toContain('tried again by itself')
})
