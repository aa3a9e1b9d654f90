import type { Middleware } from 'openapi-fetch'

// The pages somebody goes back and forth between; each is at most some hundred kilobytes.
const most = 40

/**
 * Answers that carry a tag are kept while the page lives, and asked for again only where they have changed. The browser keeps none of
 * them: they are not to lie on the disk of a computer that others use as well.
 */
export function tagged(): Middleware {
  const kept = new Map<string, { tag: string; text: string }>()
  return {
    onRequest({ request }) {
      const known = request.method === 'GET' ? kept.get(request.url) : undefined
      if (known) request.headers.set('if-none-match', known.tag)
      return request
    },
    async onResponse({ request, response }) {
      const known = kept.get(request.url)
      if (response.status === 304 && known)
        return new Response(known.text, { status: 200, headers: { 'content-type': 'application/json', etag: known.tag } })
      const tag = response.headers.get('etag')
      if (request.method !== 'GET' || !response.ok || !tag) return undefined
      kept.delete(request.url)
      kept.set(request.url, { tag, text: await response.clone().text() })
      for (const oldest of kept.keys()) {
        if (kept.size <= most) break
        kept.delete(oldest)
      }
      return undefined
    },
  }
}
