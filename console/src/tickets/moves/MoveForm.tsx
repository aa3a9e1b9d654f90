import { Button } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { useDraft } from '../../shared/typed/useDraft'
import type { MoveKind, OfferedMove, TicketView } from '../../shared/types'
import type { Writer } from '../ticketQueries'
import { MoveInput } from './MoveInput'
import { filled, untouched } from './moveBody'
import { pageOf } from './pageOf'

type Props = {
  ticket: TicketView
  move: OfferedMove
  writer: Writer
  variant?: 'filled' | 'default'
  done?: () => void
  autoFocus?: boolean
}

/** A move as Core offers it: one button, or its fields with a button beneath. What may be done is not decided here. */
export function MoveForm(props: Props) {
  const { ticket, move, variant } = props
  if (move.way === 'page')
    return (
      <Button component={Link} to={pageOf(ticket.number, move.move)} variant={variant}>
        {move.say}
      </Button>
    )
  return move.fields.length === 0 ? <OnePress {...props} /> : <Fields {...props} />
}

function OnePress({ ticket, move, writer, variant, done }: Props) {
  const navigate = useNavigate()
  const pressed = async () => {
    const receipt = await sent(writer, move, {})
    if (!receipt) return
    done?.()
    if (await leadsIntoRun(move, receipt.next.move, writer)) navigate(pageOf(ticket.number, 'follow-run'))
  }
  return (
    <Button variant={variant} loading={writer.busy} onClick={pressed}>
      {move.say}
    </Button>
  )
}

function Fields({ ticket, move, writer, variant, done, autoFocus }: Props) {
  const draft = useDraft(`${ticket.number}.${move.move}.${move.about ?? ''}.${move.say}`, untouched(move))
  return (
    <form
      className="stack"
      onSubmit={async event => {
        event.preventDefault()
        if (!(await sent(writer, move, draft.fields))) return
        draft.drop()
        done?.()
      }}
    >
      {move.fields.map((field, nth) => (
        <MoveInput
          key={field.name}
          field={field}
          value={draft.fields[field.name] ?? ''}
          typed={draft.typed(field.name)}
          autoFocus={autoFocus && nth === 0}
        />
      ))}
      <Button type="submit" variant={variant} loading={writer.busy}>
        {move.say}
      </Button>
    </form>
  )
}

/** Arriving, starting and going on are one press: whoever has come begins, where nothing else is to be done first. */
async function leadsIntoRun(move: OfferedMove, next: MoveKind, writer: Writer): Promise<boolean> {
  if (move.move === 'start-run') return true
  return move.move === 'arrive' && (next === 'follow-run' || (next === 'start-run' && Boolean(await writer.run({ errand: 'sheet' }))))
}

/** Sends a move the way Core says it is made. */
function sent(writer: Writer, move: OfferedMove, typed: Record<string, string>) {
  if (move.way === 'sheet') return writer.run({ errand: 'sheet' })
  if (move.way !== 'machine') return writer.write(filled(move, typed))
  switch (move.move) {
    case 'take-reading':
      return writer.run({ errand: 'reading' })
    case 'switch-light':
      return writer.run({ errand: 'light', on: (move.body as { on?: boolean } | null)?.on ?? false })
    default:
      return writer.run({ errand: 'snapshot' })
  }
}
