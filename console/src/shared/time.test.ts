import { afterEach, describe, expect, it, vi } from 'vitest'
import { clock, ownZone, seconds, zones } from './time'

describe('a time as read on the spot', () => {
  it('has UTC beside it where the zone differs', () =>
    expect(clock('2026-03-02T12:30:00Z', 'America/Santiago')).toBe('2026-03-02 09:30 (12:30 UTC)'))
  it('is said once where it does not', () => expect(clock('2026-03-02T12:30:00Z', 'Atlantic/Reykjavik')).toBe('2026-03-02 12:30 UTC'))
  it('is UTC where no zone is known', () => expect(clock('2026-03-02T12:30:00Z', null)).toBe('2026-03-02 12:30 UTC'))
})

describe('a length of time from the interface', () => {
  it.each([
    ['00:00:07', 7],
    ['00:00:07.2500000', 7.25],
    ['03:20:00', 12_000],
    ['2.03:00:00', 183_600],
    ['12.00:00:01.5000000', 1_036_801.5],
  ])('%s is %d seconds', (span, expected) => expect(seconds(span)).toBeCloseTo(expected, 6))
})

describe('where this browser is', () => {
  afterEach(() => vi.restoreAllMocks())
  const saying = (timeZone: string) =>
    vi.spyOn(Intl.DateTimeFormat.prototype, 'resolvedOptions').mockReturnValue({ timeZone } as Intl.ResolvedDateTimeFormatOptions)

  it.each([
    ['Europe/Oslo', 'Europe/Oslo'],
    ['UTC', 'UTC'],
    ['Etc/Unknown', 'UTC'],
  ])('where it says %s a new site is offered %s', (said, offered) => {
    saying(said)
    expect(ownZone()).toBe(offered)
    expect(zones()).toContain(offered)
  })
})
