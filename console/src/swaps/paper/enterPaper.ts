import type { Receipt, RunStep, RunView } from '../../shared/types'
import type { paperEntry } from './paperEntry'

type Entry = NonNullable<ReturnType<typeof paperEntry>>

/** Where entering a paper stopped, and how many answers went in. */
export type Stopped = { count: number; at: RunStep | null; said: string | null }

type Way = {
  run: () => Promise<RunView | null>
  entryOf: (run: RunView, step: RunStep) => Entry | null
  write: (entry: Entry) => Promise<Receipt | undefined>
}

/**
 * Enters what is filled in, from the step the sheet stands at. Each step of a paper is entered once: where an answer leads
 * back to it, or nowhere (a serial that was read in part), what was written there cannot be what is to be written now.
 */
export async function enterPaper({ run, entryOf, write }: Way): Promise<Stopped> {
  const entered = new Set<string>()
  let said: string | null = null
  for (;;) {
    const now = await run()
    const step = now?.current ?? null
    const entry = now && step && !entered.has(step.id) ? entryOf(now, step) : null
    const receipt = entry ? await write(entry) : undefined
    if (!step || !receipt) return { count: entered.size, at: step, said }
    entered.add(step.id)
    said = receipt.said ?? null
  }
}

export function paperTold({ count, at, said }: Stopped): string {
  const stands = at ? `The sheet stands at: ${at.say}` : 'The sheet is at its end.'
  return `${count} ${count === 1 ? 'answer is' : 'answers are'} in. ${said && at ? `${said} ` : ''}${stands}`
}
