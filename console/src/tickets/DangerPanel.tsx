import type { TicketView } from '../shared/types'

/** How bad it is, in a sentence, with a word and a shape for how much is left. */
export function DangerPanel({ ticket }: { ticket: TicketView }) {
  const { margin, sentence, suspects } = ticket.danger
  const grave = margin !== null && margin <= 0
  return (
    <section className={grave ? 'panel danger' : 'panel'} aria-labelledby="danger">
      <h2 id="danger" className={grave ? 'brick' : undefined}>
        {margin === null
          ? '◇ Danger not known yet'
          : margin < 0
            ? '■ Data is lost'
            : margin === 0
              ? '■ No margin left'
              : `▬ Margin ${margin}`}
      </h2>
      <p style={{ margin: 0 }}>{sentence}</p>
      {suspects.length > 0 && (
        <ul style={{ margin: '8px 0 0', paddingLeft: 20 }} className="ochre">
          {suspects.map(suspect => (
            <li key={suspect}>{suspect}</li>
          ))}
        </ul>
      )}
    </section>
  )
}
