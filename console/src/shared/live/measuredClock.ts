import type { Middleware } from 'openapi-fetch'

type Measure = { behind: number; way: number; at: number }

// What a poor clock loses meanwhile is well under a second.
const goodForMs = 10 * 60 * 1000
const halfASecond = 500

/**
 * How far this device's clock is behind the service's, in milliseconds, by the whole seconds that each answer bears (`Date`). Halfway
 * between asking and hearing is taken for the moment of the answer, so that a measure is wrong by half the way at most, and that of the
 * quickest answer counts. A clock that can be right by it is taken for right: an answer that was long on its way says nothing against it,
 * and would move what its owner writes past what others do.
 */
export function measuredClock(): { heard: Middleware; behind: () => number | null } {
  let best: Measure | null = null
  const asked = new WeakMap<Request, number>()
  return {
    behind: () => best && (Math.abs(best.behind) <= wrongBy(best) ? 0 : Math.round(best.behind)),
    heard: {
      onRequest({ request }) {
        asked.set(request, Date.now())
      },
      onResponse({ request, response }) {
        const [from, to] = [asked.get(request), Date.now()]
        const shown = Date.parse(response.headers.get('date') ?? '')
        if (from === undefined || to < from || Number.isNaN(shown)) return
        const now = { behind: shown + halfASecond - (from + to) / 2, way: to - from, at: to }
        if (!best || now.way <= best.way || Math.abs(to - best.at) > goodForMs || contradicts(now, best)) best = now
      },
    },
  }
}

const wrongBy = (measure: Measure) => measure.way / 2 + halfASecond

/** Both cannot be right: the device's clock was set in between. */
function contradicts(a: Measure, b: Measure): boolean {
  return Math.abs(a.behind - b.behind) > wrongBy(a) + wrongBy(b)
}
