import type { RunView } from '../../shared/types'

type Scan = NonNullable<RunView['lastScan']>

/** What was read above what was expected, letter under letter, each place that differs marked. */
export function ReadBeside({ scan }: { scan: Scan }) {
  const isSame = scan.differs.length === 0
  return (
    <section className={isSame ? 'panel read-beside' : 'panel read-beside ochre'} aria-label="What was read, and what was expected">
      <Line name="Read" text={scan.read} differs={scan.differs} />
      <Line name="Expected" text={scan.expected} differs={scan.differs} />
      <span>{isSame ? '○ the same' : `▲ differs at ${scan.differs.map(i => i + 1).join(', ')}`}</span>
    </section>
  )
}

function Line({ name, text, differs }: { name: string; text: string; differs: readonly number[] }) {
  return (
    <span>
      <span className="read-name">{name}</span>{' '}
      <span className="mono">
        {[...text].map((letter, i) =>
          differs.includes(i) ? (
            // biome-ignore lint/suspicious/noArrayIndexKey: the place is what a letter is known by
            <mark key={i}>{letter}</mark>
          ) : (
            letter
          ),
        )}
      </span>
    </span>
  )
}
