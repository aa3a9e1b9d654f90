import { useEffect, useState } from 'react'
import { nowAtService } from './api'

/** A time as read on the spot: in the machine's zone, with UTC beside it where they differ. */
export function clock(at: string, zone: string | null | undefined): string {
  const date = new Date(at)
  const utc = date.toISOString().slice(11, 16)
  if (!zone) return `${date.toISOString().slice(0, 10)} ${utc} UTC`
  const there = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }).format(date)
  return there.endsWith(utc) ? `${there} UTC` : `${there} (${utc} UTC)`
}

/** Length of time the way the service says it, from its "hh:mm:ss" or "d.hh:mm:ss". */
export function seconds(span: string): number {
  const [rest = '', days] =
    span.split('.').length > 1 && (span.split('.')[0] ?? '').length < 3
      ? [span.slice(span.indexOf('.') + 1), span.split('.')[0]]
      : [span, '0']
  const [h = '0', m = '0', s = '0'] = rest.split(':')
  return Number(days) * 86400 + Number(h) * 3600 + Number(m) * 60 + Number(s)
}

/** Re-renders each second while something runs; the time itself is the service's, so a locked screen loses nothing. */
export function useSecond(running: boolean): number {
  const [now, setNow] = useState(nowAtService)
  useEffect(() => {
    if (!running) return
    const timer = setInterval(() => setNow(nowAtService()), 500)
    return () => clearInterval(timer)
  }, [running])
  return running ? now : nowAtService()
}

/** Every time zone that can be chosen. */
export const zones = () => [...new Set(['UTC', ...Intl.supportedValuesOf('timeZone')])]

/** Where this browser is; some machines do not know it, and say a name that is no zone. */
export function ownZone() {
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone
  return zones().includes(here) ? here : 'UTC'
}
