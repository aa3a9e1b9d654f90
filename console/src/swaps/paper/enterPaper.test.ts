import { expect, it, vi } from 'vitest'
import type { Receipt, RunStep, RunView } from '../../shared/types'
import { enterPaper, paperTold } from './enterPaper'

const at = (...ids: (string | null)[]) => {
  const runs = ids.map(id => ({ current: id ? ({ id, say: `Do ${id}.` } as RunStep) : null }) as RunView)
  return async () => runs.shift() ?? null
}
const entryOf = () => ({ body: { kind: 'hold-lifted' as const }, at: undefined })
const receipt = (said: string | null = null) => ({ said }) as Receipt

it('goes in step by step until the sheet is at its end', async () => {
  const write = vi.fn(async () => receipt())

  const stopped = await enterPaper({ run: at('a', 'b', null), entryOf, write })

  expect(paperTold(stopped)).toBe('2 answers are in. The sheet is at its end.')
  expect(write).toHaveBeenCalledTimes(2)
})

it('stops where nothing moves on, and says why: a serial read in part is not written for ever', async () => {
  const write = vi.fn(async () => receipt('517 is the end of P8BADD0517; read the whole serial from the label.'))

  const stopped = await enterPaper({ run: at('serial', 'serial', 'serial'), entryOf, write })

  expect(write).toHaveBeenCalledTimes(1)
  expect(paperTold(stopped)).toBe(
    '1 answer is in. 517 is the end of P8BADD0517; read the whole serial from the label. The sheet stands at: Do serial.',
  )
})

it('stops where an answer leads back to a step that was entered already', async () => {
  const write = vi.fn(async () => receipt())

  expect((await enterPaper({ run: at('a', 'b', 'a'), entryOf, write })).count).toBe(2)
})

it('stops where an answer is not taken', async () => {
  expect(await enterPaper({ run: at('a', 'a'), entryOf, write: async () => undefined })).toMatchObject({ count: 0 })
})
