import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { beforeEach, expect, it, vi } from 'vitest'

const { post } = vi.hoisted(() => ({ post: vi.fn() }))
vi.mock('../shared/api', async actual => ({ ...(await actual<typeof import('../shared/api')>()), api: { POST: post } }))

const { ApiProblem, isOutOfContact } = await import('../shared/api')
const { useWrite } = await import('./ticketQueries')

const kept = { data: { seq: 2, repeated: false }, response: new Response(null, { status: 200 }) }

function writer() {
  const client = new QueryClient({
    defaultOptions: { mutations: { retry: (count, error) => isOutOfContact(error) && count < 3, retryDelay: 1 } },
  })
  const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>
  return renderHook(() => useWrite(1001), { wrapper })
}

beforeEach(() => {
  post.mockReset()
  localStorage.clear()
})

it('repeats after a broken connection under the same id, so that it counts once', async () => {
  post.mockRejectedValueOnce(new TypeError('Failed to fetch')).mockResolvedValueOnce(kept)
  const { result } = writer()

  await act(() => result.current.write({ kind: 'note-written', text: 'Key is with the porter' }))

  const ids = post.mock.calls.map(([, options]) => options.body.id)
  expect(ids).toHaveLength(2)
  expect(ids[0]).toBe(ids[1])
})

it.each([502, 503, 504])('repeats under the same id where something between says by %i that nobody answers', async status => {
  post.mockResolvedValueOnce({ error: '<h1>It is down</h1>', response: new Response(null, { status }) }).mockResolvedValueOnce(kept)
  const { result } = writer()

  await act(() => result.current.write({ kind: 'note-written', text: 'Key is with the porter' }))

  const ids = post.mock.calls.map(([, options]) => options.body.id)
  expect(ids).toHaveLength(2)
  expect(ids[0]).toBe(ids[1])
})

it('does not repeat what the service itself could not do, and tells it', async () => {
  const detail = 'The disk is full.'
  post.mockResolvedValue({ error: { detail }, response: new Response(null, { status: 503 }) })
  const { result } = writer()

  await act(() => result.current.write({ kind: 'note-written', text: 'Key is with the porter' }))

  await waitFor(() => expect(result.current.problem).toEqual(new ApiProblem(503, detail)))
  expect(post).toHaveBeenCalledTimes(1)
})

it('is the same entry when the answer was lost, the page was loaded again, and the same is pressed once more', async () => {
  post.mockRejectedValue(new TypeError('Failed to fetch'))
  const note = { kind: 'note-written' as const, text: 'Key is with the porter' }
  const first = writer()
  await act(() => first.result.current.write(note))
  first.unmount()
  post.mockResolvedValue(kept)
  const afterReload = writer()

  await act(() => afterReload.result.current.write(note))
  await act(() => afterReload.result.current.write(note))

  const ids = post.mock.calls.map(([, options]) => options.body.id)
  expect(new Set(ids.slice(0, -1)).size).toBe(1) // every try, and the press after the reload
  expect(ids.at(-1)).not.toBe(ids[0]) // answered: the same again is another note
})

it.each([
  [{ errand: 'snapshot' as const }],
  [{ errand: 'reading' as const }],
  [{ errand: 'light' as const, on: true }],
  [{ errand: 'sheet' as const }],
])('asks the service for %o under an id, the same one until it is answered', async errand => {
  post
    .mockResolvedValueOnce({ error: { detail: 'The disk is full.' }, response: new Response(null, { status: 503 }) })
    .mockResolvedValue(kept)
  const { result } = writer()

  await act(() => result.current.run(errand))
  await act(() => result.current.run(errand))
  await act(() => result.current.run(errand))

  const [first, second, third] = post.mock.calls.map(([, options]) => options.params.query.id)
  expect(second).toBe(first)
  expect(third).not.toBe(first)
})

it('does not repeat what was refused, and shows the sentence of the service', async () => {
  const detail = 'Not yet: sign-off: The customer has not signed off.'
  post.mockResolvedValue({ error: { detail }, response: new Response(null, { status: 409 }) })
  const { result } = writer()

  await act(() => result.current.write({ kind: 'ticket-closed' }))

  await waitFor(() => expect(result.current.problem).toEqual(new ApiProblem(409, detail)))
  expect(post).toHaveBeenCalledTimes(1)
})

it('makes a new id for each thing a person does, and says when it was done', async () => {
  post.mockResolvedValue(kept)
  const { result } = writer()

  await act(() => result.current.write({ kind: 'hold-lifted' }))
  await act(() => result.current.write({ kind: 'hold-lifted' }))

  const bodies = post.mock.calls.map(([, options]) => options.body)
  expect(bodies[0].id).not.toBe(bodies[1].id)
  expect(Date.parse(bodies[0].at)).toBeLessThanOrEqual(Date.parse(bodies[0].sentAt))
})

it.each([
  [2, 1],
  [5, 2],
])('asks once more where the stream told of entry %s while the ticket was fetched up to 2', async (told, times) => {
  post.mockResolvedValue(kept)
  const client = new QueryClient()
  client.setQueryData(['tickets', 1001], { head: 2 })
  client.setQueryData(['heard', 1001], told)
  const asked = vi.spyOn(client, 'invalidateQueries')
  const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>
  const { result } = renderHook(() => useWrite(1001), { wrapper })

  await act(() => result.current.write({ kind: 'hold-lifted' }))

  expect(asked).toHaveBeenCalledTimes(times)
})
