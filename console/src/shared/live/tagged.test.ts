import createClient from 'openapi-fetch'
import { expect, it } from 'vitest'
import type { paths } from '../schema'
import { tagged } from './tagged'

/** A service that answers one ticket, and 304 to whoever has it. */
function answering() {
  const asked: (string | null)[] = []
  const now = { tag: '"a"', body: '{"name":"ilka"}' }
  const client = createClient<paths>({
    baseUrl: 'http://service.example',
    fetch: async request => {
      asked.push(request.headers.get('if-none-match'))
      return request.headers.get('if-none-match') === now.tag
        ? new Response(null, { status: 304 })
        : new Response(now.body, { status: 200, headers: { etag: now.tag, 'content-type': 'application/json' } })
    },
  })
  client.use(tagged())
  return { client, asked, now }
}

it('an answer that has not changed is told again without being sent again', async () => {
  const { client, asked } = answering()

  const first = await client.GET('/api/me')
  const again = await client.GET('/api/me')

  expect(again.data).toEqual(first.data)
  expect(again.response.status).toBe(200)
  expect(asked).toEqual([null, '"a"'])
})

it('one that has changed is the new one', async () => {
  const { client, asked, now } = answering()
  await client.GET('/api/me')
  now.tag = '"b"'
  now.body = '{"name":"tamsel"}'

  const changed = await client.GET('/api/me')
  await client.GET('/api/me')

  expect(changed.data).toEqual({ name: 'tamsel' })
  expect(asked).toEqual([null, '"a"', '"b"'])
})
