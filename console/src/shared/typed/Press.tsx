import type { ComponentPropsWithoutRef } from 'react'

type Props = ComponentPropsWithoutRef<'button'> & {
  variant?: 'filled' | 'default' | 'subtle' | 'outline'
  fullWidth?: boolean
  busy?: boolean
}

/**
 * A button of the run, that takes no second press while the first is under way, and says so: what looks as if it could be pressed
 * takes the press. Plain, and not the library's: a dozen of those, each fading a wheel in by two forced frames, held every step up
 * by a tenth of a second on a slow phone.
 */
export function Press({ variant = 'filled', fullWidth = false, busy = false, type = 'button', onClick, ...button }: Props) {
  return (
    <button
      {...button}
      type={type}
      className={fullWidth ? 'press full' : 'press'}
      data-variant={variant}
      aria-busy={busy || undefined}
      aria-disabled={busy || undefined} // and not disabled, which would take the focus away
      onClick={event => {
        if (busy) event.preventDefault()
        else onClick?.(event)
      }}
    />
  )
}
