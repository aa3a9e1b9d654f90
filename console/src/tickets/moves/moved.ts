/** The same list with one of its items in another place. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const without = list.filter((_, i) => i !== from)
  return [...without.slice(0, to), ...list.slice(from, from + 1), ...without.slice(to)]
}
