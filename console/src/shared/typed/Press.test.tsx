import { MantineProvider } from '@mantine/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import { Press } from './Press'

it('takes no second press, and sends no form again, while the first is under way, and says so', () => {
  const pressed = vi.fn()
  const sent = vi.fn(event => event.preventDefault())
  const shown = (busy: boolean) => (
    <MantineProvider>
      <form onSubmit={sent}>
        <Press type="submit" busy={busy} onClick={pressed}>
          Done
        </Press>
      </form>
    </MantineProvider>
  )
  const { rerender } = render(shown(false))
  const press = () => fireEvent.click(screen.getByRole('button', { name: 'Done' }))

  press()
  rerender(shown(true))
  press()

  expect(pressed).toHaveBeenCalledTimes(1)
  expect(sent).toHaveBeenCalledTimes(1)
  expect(screen.getByRole('button', { name: 'Done' }).getAttribute('aria-disabled')).toBe('true')
})
