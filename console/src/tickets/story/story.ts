import type { CorrectedEntry, Entry, JournalRow } from '../../shared/types'

/** An entry with what the service says of it. */
export type Told = { entry: Entry; told: string; row: JournalRow | null; corrected: CorrectedEntry | null }

/** Entries of one chapter that follow each other are one; what stands alone is a chapter of one. */
export type Chapter = { name: string | null; told: Told[] }

export type Day = { day: string; chapters: Chapter[] }

type Page = {
  entries: Entry[]
  told?: string[] | null
  rows?: JournalRow[] | null
  corrected?: CorrectedEntry[] | null
}

/** What the pages of a journal say, entry by entry, in order of arrival. */
export function toldBy(pages: Page[]): Told[] {
  const corrected = new Map(pages.flatMap(page => page.corrected ?? []).map(c => [c.seq, c]))
  return pages.flatMap(page =>
    page.entries.map((entry, nth) => ({
      entry,
      told: page.told?.[nth] ?? '',
      row: page.rows?.[nth] ?? null,
      corrected: corrected.get(entry.seq) ?? null,
    })),
  )
}

/** The journal as a story, newest first: days in the site's zone, and in each what belongs together as one. */
export function story(told: Told[], zone: string | null | undefined): Day[] {
  const days: Day[] = []
  for (const one of told.toReversed()) {
    const day = dayOf(one.entry.at, zone)
    let last = days.at(-1)
    if (last?.day !== day) {
      last = { day, chapters: [] }
      days.push(last)
    }
    const name = one.row?.chapter ?? null
    const chapter = last.chapters.at(-1)
    if (name && chapter?.name === name) chapter.told.push(one)
    else last.chapters.push({ name, told: [one] })
  }
  return days
}

function dayOf(at: string, zone: string | null | undefined): string {
  const options = { timeZone: zone ?? 'UTC', weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' } as const
  return new Intl.DateTimeFormat('en-GB', options).format(new Date(at)).replace(',', '') // engines differ in that comma
}
