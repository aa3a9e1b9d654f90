/** How long something lasted, or has lasted so far, in the two largest units. */
export function lasted(from: string, to: string | null, now = Date.now()): string {
  const minutes = Math.max(0, Math.round(((to ? Date.parse(to) : now) - Date.parse(from)) / 60_000))
  const [days, hours] = [Math.floor(minutes / 1440), Math.floor((minutes % 1440) / 60)]
  if (days > 0) return `${days} d ${hours} h`
  return hours > 0 ? `${hours} h ${minutes % 60} min` : `${minutes} min`
}
