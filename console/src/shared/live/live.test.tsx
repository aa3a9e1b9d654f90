import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { useLive } from './live'

/** A stream that says only what a test lets it say. */
class Spoken extends EventTarget {
  static readonly CLOSED = 2
  static all: Spoken[] = []
  readyState = 1

  constructor(readonly url: string) {
    super()
    Spoken.all.push(this)
  }

  close() {
    this.readyState = Spoken.CLOSED
  }

  say(kind: string, lastEventId: string, data: object = {}) {
    this.dispatchEvent(new MessageEvent(kind, { lastEventId, data: JSON.stringify(data) }))
  }
}

const latest = () => Spoken.all.at(-1) as Spoken

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', Spoken)
  Spoken.all = []
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

function listening() {
  const client = new QueryClient()
  const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>
  return { client, ...renderHook(() => useLive(), { wrapper }) }
}

const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

it('is live while something is heard, and out of contact within three seconds of silence, whatever the connection claims', async () => {
  const { result } = listening()
  act(() => latest().say('still-here', '7'))
  expect(result.current).toBe('live')

  await pass(2_000)
  act(() => latest().say('still-here', '7'))
  await pass(2_000)
  expect(result.current).toBe('live')

  await pass(1_000)
  expect(latest().readyState).toBe(1)
  expect(result.current).toBe('lost')
})

it('comes back by itself after an answer that closed the stream, from where it was', async () => {
  const { result } = listening()
  act(() => latest().say('entry', '41', { ticket: 1001, seq: 3 }))
  latest().close() // what a browser does for good when a proxy answers 502

  await pass(4_000)
  expect(latest().url).toBe('/api/live?after=41')
  expect(result.current).toBe('lost')
  act(() => latest().say('still-here', '41'))
  expect(result.current).toBe('live')
})

it('makes a connection anew that is open and says nothing', async () => {
  listening()
  act(() => latest().say('still-here', '7'))

  await pass(12_000)

  expect(Spoken.all.length).toBeGreaterThan(1)
})

it('asks for the lists now and then in a storm, not once for every entry', async () => {
  const { client } = listening()
  const asked = vi.spyOn(client, 'invalidateQueries')
  act(() => {
    for (let seq = 1; seq <= 500; seq++) latest().say('entry', `${seq}`, { ticket: 1000 + seq, seq: 1 })
  })
  await pass(2_300)

  expect(asked.mock.calls.filter(([filter]) => filter?.queryKey?.[1] === 'list')).toHaveLength(1)
})
