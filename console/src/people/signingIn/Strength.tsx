import { useQuery } from '@tanstack/react-query'

// By the guesses it takes: under a thousand, a million, a hundred million, ten thousand million, and more.
const words = ['Among the first that are tried.', 'Guessed soon.', 'Holds for a while.', 'Good.', 'Very good.'] as const

/** How well a password that is being typed holds. What it reckons with is large, and comes once somebody types one. */
export function Strength({ password, own }: { password: string; own: readonly string[] }) {
  const meter = useQuery({
    queryKey: ['strength'],
    queryFn: () => import('./strength').then(room => room.strengthOf),
    enabled: password !== '',
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  })
  if (password === '' || !meter.data) return null
  const strength = meter.data(password, own)
  return (
    <p className="row" style={{ margin: 0, alignItems: 'center' }}>
      <meter aria-label="How well it holds" min={0} max={4} low={2} high={3} optimum={4} value={strength} style={{ width: 120 }} />
      <span className="chalk">{words[strength]}</span>
    </p>
  )
}
