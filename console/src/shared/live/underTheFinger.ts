import { notifyManager } from '@tanstack/react-query'

// A finger that stays down is reading, or dragging: news does not wait for it for ever.
const longestPress = 5_000

// A touch is told as a click only some moments after the finger was lifted, wherever the button then is.
const untilClick = 300

/**
 * What a finger has gone down on stays where it is until the press is over. News that came in between would move another button
 * under the finger: the press would be lost, or be another one.
 */
export function holdNewsWhilePressing(): void {
  let held: (() => void)[] | null = null
  let over: ReturnType<typeof setTimeout> | undefined

  const letGo = () => {
    for (const tell of held ?? []) setTimeout(tell, 0) // each by itself, as without us: one that fails keeps no other back
    held = null
  }
  const letGoIn = (ms: number) => {
    clearTimeout(over)
    over = setTimeout(letGo, ms)
  }
  const on = (kind: string, heard: () => void) => document.addEventListener(kind, heard, { capture: true })

  on('pointerdown', () => {
    held ??= []
    letGoIn(longestPress)
  })
  on('pointerup', () => letGoIn(untilClick))
  on('pointercancel', () => letGoIn(0))
  on('click', () => letGoIn(0)) // whoever hears the click hears it first

  notifyManager.setScheduler(tell => setTimeout(() => (held ? held.push(tell) : tell()), 0))
}
