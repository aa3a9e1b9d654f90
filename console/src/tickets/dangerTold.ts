type Chance = { low: number; high: number }

/** A chance as a range in percent, with as many digits as it is worth. */
export function chanceTold({ low, high }: Chance): string {
  if (high === 0) return '0 %'
  if (high < least) return 'under 0.01 %'
  return `${low < least ? 'under 0.01' : percent(low)} to ${percent(high)} %`
}

// Below this the inputs are worth less than the digits.
const least = 0.0001

const percent = (share: number) => Number((share * 100).toPrecision(2)).toString()

/** How long something lasted, or has lasted so far, in the two largest units. */
export function lasted(from: string, to: string | null, now = Date.now()): string {
  const minutes = Math.max(0, Math.round(((to ? Date.parse(to) : now) - Date.parse(from)) / 60_000))
  const [days, hours] = [Math.floor(minutes / 1440), Math.floor((minutes % 1440) / 60)]
  if (days > 0) return `${days} d ${hours} h`
  return hours > 0 ? `${hours} h ${minutes % 60} min` : `${minutes} min`
}
