/**
 * What is typed and not sent yet. It outlives the page, a sign-in and leaving, and is dropped when it was sent; on a shared
 * device each person has their own.
 */
const place = (person: string, key: string) => `nailcrow.draft.${person}.${key}`

// A form that nobody came back to for this long is about something that has long been done.
const lasts = 14 * 24 * 3_600_000

type Kept = { until: number; fields: Record<string, string> }

export function draftOf(person: string, key: string): Record<string, string> {
  try {
    const kept = JSON.parse(localStorage.getItem(place(person, key)) ?? 'null') as Kept | null
    return kept && kept.until > Date.now() ? kept.fields : {}
  } catch {
    return {} // no storage, or what is there is not ours: then a draft lives as long as its page
  }
}

export function keepDraft(person: string, key: string, fields: Record<string, string>): void {
  try {
    localStorage.setItem(place(person, key), JSON.stringify({ until: Date.now() + lasts, fields } satisfies Kept))
  } catch {
    // As above.
  }
}

/** Somebody else goes on where one was: what was typed here and not sent is theirs now. What they typed themselves stays. */
export function takeOverDrafts(from: string, to: string): void {
  try {
    const [begin, mine] = [place(from, ''), place(to, '')]
    for (const key of Object.keys(localStorage).filter(key => key.startsWith(begin))) {
      const own = mine + key.slice(begin.length)
      if (localStorage.getItem(own) === null) localStorage.setItem(own, localStorage.getItem(key) ?? '')
      localStorage.removeItem(key)
    }
  } catch {
    // As above.
  }
}

export function dropDraft(person: string, key: string): void {
  try {
    localStorage.removeItem(place(person, key))
  } catch {
    // As above.
  }
}
